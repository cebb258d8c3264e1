"""A label as it was copied from a package, and what it says per 100 g."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field

from nutrition.composition.errors import CoreError
from nutrition.composition.foods import HouseholdMeasure
from nutrition.composition.nutrients import NUTRIENT
from nutrition.labels.printed_value import (
    KIND_WORDS,
    WITHOUT_FIBER,
    Unreadable,
    read_printed,
)
from nutrition.labels.rounding import Printed
from nutrition.written import units
from nutrition.written.grammar import read
from nutrition.written.wording import NUMBER, number

MOST_GRAMS, MOST_SERVINGS = 5000.0, 500.0
# A milliliter of a drink or sauce: usual, least, most. Common practice, no source. [g/mL]
GRAMS_PER_ML = (1.03, 0.99, 1.08)
_SIZE = re.compile(
    rf"^(?:about |ca\.? ?)?(?P<n>{NUMBER})\s*(?P<unit>g|gr?ams?|ml|milliliters?|oz|ounces?)?\.?$",
    re.I,
)
_POURED = re.compile(r"ml\b|milliliter", re.I)
_IN_BRACKETS = re.compile(rf"\(\s*(?:about )?({NUMBER}\s*(?:g|gr?ams?|ml|oz)\b\.?)[^)]*\)", re.I)
# Energy from the printed parts may miss the printed energy by so much before it is asked about.
# [share], [kcal]
ENERGY_OFF, ENERGY_SLACK = 0.2, 10.0
# kcal in a gram, least and most as labels reckon: fiber may count nothing, polyols less. 21 CFR
# 101.9(c)(1)(i).
_KCAL = {"protein_g": (3.0, 4.3), "fat_g": (8.4, 9.3)}
_KCAL_CARBOHYDRATE, _KCAL_FIBER = (3.6, 4.2), (0.0, 4.0)
# How far a household measure on a label may be off what is spooned. Common practice, no source.
MEASURE_SPREAD = 0.05


class BadLabel(CoreError):
    """A label that cannot be used as it stands; `errors` say why, by field."""

    def __init__(self, errors: Mapping[str, str]) -> None:
        super().__init__("; ".join(errors.values()))
        self.errors = dict(errors)


@dataclass(frozen=True, kw_only=True)
class Label:
    """What was copied from a package, as it was typed.

    `printed` has values by key; `kind` says what they are values of, a key of KIND_WORDS (per 100
    mL where the serving is in milliliters); `sure` that odd values were looked at again. `like` is
    the food of the table that it is most like; where that was only guessed it is not `like_sure`,
    and tells no more than the kind.
    """

    name: str
    serving_size: str
    serving: str = ""
    servings: str = ""
    kind: str = "us"
    printed: Mapping[str, str] = field(default_factory=dict)
    ingredients: str = ""
    claims: str = ""
    like: str = ""
    like_sure: bool = True
    sure: bool = False


@dataclass(frozen=True, kw_only=True)
class ReadLabel:
    """A label that was read: the serving's weight [g], values per serving and per 100 g, in the
    key's unit, and what its household measures weigh."""

    label: Label
    serving_g: Printed
    servings: Printed | None
    per_serving: Mapping[str, Printed]
    per_100_g: Mapping[str, Printed]
    measures: tuple[HouseholdMeasure, ...]
    notes: tuple[str, ...]

    @property
    def fiber_left_out(self) -> bool:
        """Whether its carbohydrate is without the fiber, which is not printed either."""
        printed = self.per_100_g
        without = self.label.kind in WITHOUT_FIBER and "fiber_g" not in printed
        return without and "carbohydrate_g" in printed


def read_label(label: Label) -> ReadLabel:
    """Read what was copied. Raises BadLabel with what is wrong by field: `name`, `serving_size`,
    `serving`, `servings` or a nutrient's key."""
    errors: dict[str, str] = {}
    notes: list[str] = []
    if not label.name.strip():
        errors["name"] = "Say what it is called."
    if label.kind not in KIND_WORDS:
        errors["kind"] = "There is no such kind of label."
    grams = _serving_grams(label, errors, notes)
    servings = _servings(label, errors)
    printed: dict[str, Printed] = {}
    for key, text in label.printed.items():
        if not text.strip() or label.kind not in KIND_WORDS:
            continue
        try:
            printed[key] = read_printed(key, text, label.kind)
        except Unreadable as error:
            errors[key] = str(error)
    for key in ("energy_kcal", "protein_g"):
        if key not in printed and key not in errors:
            errors[key] = f"Copy the {NUTRIENT[key].name.lower()} at least."
    if grams is None or errors:
        raise BadLabel(errors)
    base = grams if label.kind == "us" else _hundred(label)
    if label.kind in WITHOUT_FIBER and "carbohydrate_g" in printed:
        fiber = printed.get("fiber_g")
        if fiber is None:
            notes.append("carbohydrate without the fiber, which is not printed")
        else:
            one = printed["carbohydrate_g"]
            printed["carbohydrate_g"] = Printed(
                one.amount + fiber.amount, one.low + fiber.low, one.high + fiber.high
            )
    errors = _contradictions(printed, base)
    if not errors and not label.sure:
        errors = _oddities(printed)
    if errors:
        raise BadLabel(errors)
    per_100 = {
        key: Printed(
            one.amount / base.amount * 100.0,
            one.low / base.high * 100.0,
            one.high / base.low * 100.0,
        )
        for key, one in printed.items()
    }
    share = grams.amount / base.amount
    return ReadLabel(
        label=label,
        serving_g=grams,
        servings=servings,
        per_serving=printed
        if label.kind == "us"
        else {key: one.times(share) for key, one in printed.items()},
        per_100_g=per_100,
        measures=tuple(_measures(label, grams, servings)),
        notes=tuple(notes),
    )


def _serving_grams(label: Label, errors: dict[str, str], notes: list[str]) -> Printed | None:
    """The weight of a serving, with what its rounding hides. [g]

    References: 21 CFR 101.9(b)(7) for the steps, from memory.
    """
    text = label.serving_size.strip()
    # "5.3 oz (150 g)": the grams count
    within = _IN_BRACKETS.search(text) or (None if text else _IN_BRACKETS.search(label.serving))
    if within:
        text = within[1]
    found = _SIZE.match(text.replace(",", "."))
    if not found:
        errors["serving_size"] = "Write the serving's weight as printed: 32 g, or 240 mL."
        return None
    value, unit = number(found["n"]), (found["unit"] or "g").lower()
    step = 0.1 if value < 2 else 0.5 if value < 5 else 1.0
    if unit.startswith("o"):
        per = units.grams("oz") or 0.0
        grams = Printed(value * per, (value - 0.05) * per, (value + 0.05) * per)
    elif unit.startswith("m"):
        best, low, high = GRAMS_PER_ML
        grams = Printed(value * best, value * low, value * high)
        notes.append(f"a serving of {value:g} mL taken as {grams.amount:.0f} g, as of other drinks")
    else:
        grams = Printed(value, value - step / 2, value + step / 2)
    if not 0 < grams.low <= grams.high <= MOST_GRAMS:
        errors["serving_size"] = f"A serving weighs more than nothing and up to {MOST_GRAMS:g} g."
        return None
    return grams


def _hundred(label: Label) -> Printed:
    """What 100 g, or 100 mL of what is poured, weighs. [g]"""
    if not _POURED.search(label.serving_size):
        return Printed(100.0, 100.0, 100.0)
    best, low, high = GRAMS_PER_ML
    return Printed(best * 100.0, low * 100.0, high * 100.0)


def _servings(label: Label, errors: dict[str, str]) -> Printed | None:
    """Servings in a package, with what "about 3" hides.

    References: 21 CFR 101.9(b)(8), from memory: halves from 2 to 5, whole numbers above.
    """
    text = label.servings.strip().lower().removeprefix("about").strip().replace(",", ".")
    if not text:
        return None
    try:
        value = number(text)
    except ValueError:
        value = 0.0
    if not 0 < value <= MOST_SERVINGS:
        errors["servings"] = f"Write how many servings are in it: 1 to {MOST_SERVINGS:g}."
        return None
    half = 0.0 if value < 2 else 0.25 if value < 5 else 0.5
    return Printed(value, value - half, value + half)


def _contradictions(printed: Mapping[str, Printed], base: Printed) -> dict[str, str]:
    """What cannot be, whatever the rounding hides."""
    out: dict[str, str] = {}
    for part, whole in (
        ("saturated_fat_g", "fat_g"),
        ("monounsaturated_fat_g", "fat_g"),
        ("polyunsaturated_fat_g", "fat_g"),
        ("fiber_g", "carbohydrate_g"),
        ("sugars_g", "carbohydrate_g"),
        ("added_sugars_g", "sugars_g"),
    ):
        if part in printed and whole in printed and printed[part].low > printed[whole].high:
            out[part] = f"More than the {NUTRIENT[whole].name.lower()} it is part of: look again."
    weight = sum(
        printed[key].low for key in ("protein_g", "fat_g", "carbohydrate_g") if key in printed
    )
    if weight > base.high * 1.01:
        out["serving_size"] = (
            f"Protein, fat and carbohydrate come to {weight:.0f} g of {base.amount:.0f} g: "
            "one of the numbers belongs to another serving."
        )
    most = printed["energy_kcal"].low if "energy_kcal" in printed else 0.0
    if most > base.high * 9.1:
        out["energy_kcal"] = "More than so much pure fat has: look again."
    if "sodium_mg" in printed and printed["sodium_mg"].low > base.high * 400:
        out["sodium_mg"] = "More than so much pure salt has: look again."
    return out


def _oddities(printed: Mapping[str, Printed]) -> dict[str, str]:
    """What may be, and is asked about: energy that its parts do not bring."""
    if not {"energy_kcal", "protein_g", "fat_g", "carbohydrate_g"} <= set(printed):
        return {}
    low = sum(printed[key].low * least for key, (least, _most) in _KCAL.items())
    high = sum(printed[key].high * most for key, (_least, most) in _KCAL.items())
    fiber, carbohydrate = printed.get("fiber_g", Printed(0.0, 0.0, 0.0)), printed["carbohydrate_g"]
    low += max(carbohydrate.low - fiber.high, 0.0) * _KCAL_CARBOHYDRATE[0]
    low += fiber.low * _KCAL_FIBER[0]
    high += max(carbohydrate.high - fiber.low, 0.0) * _KCAL_CARBOHYDRATE[1]
    high += fiber.high * _KCAL_FIBER[1]
    energy = printed["energy_kcal"]
    least, most = low * (1 - ENERGY_OFF) - ENERGY_SLACK, high * (1 + ENERGY_OFF) + ENERGY_SLACK
    if energy.high < least or energy.low > most:
        said = (
            f"{energy.amount:.0f} kcal is printed; protein, fat and carbohydrate bring "
            f"{low:.0f} to {high:.0f}. Is every number as printed?"
        )
        return {"energy_kcal": said}
    return {}


def _measures(label: Label, grams: Printed, servings: Printed | None) -> list[HouseholdMeasure]:
    """What the label's household measure, a serving and a package weigh. Raises BadLabel for a
    household measure that is none."""
    out = []

    def put(measure: str, times: float, low: float, high: float, said: str) -> None:
        out.append(
            HouseholdMeasure(
                measure=measure,
                form="",
                grams=grams.amount * times,
                low=grams.low * low,
                high=grams.high * high,
                source=f"the label: {said}",
            )
        )

    serving = _IN_BRACKETS.sub("", label.serving).strip()
    if serving:
        reading = read(serving)
        if len(reading.terms) != 1 or not reading.terms[0].best > 0:
            said = "Write it as on the label: 2 tbsp, 1 cup, 3 crackers."
            raise BadLabel({"serving": said})
        term = reading.terms[0]
        each = 1.0 / term.best
        if units.grams(term.unit) is None:
            measure = term.unit or "piece"
            spread = MEASURE_SPREAD if units.milliliters(term.unit) is not None else 0.0
            put(measure, each, each * (1 - spread), each * (1 + spread), f"a serving is {serving}")
    put("serving", 1.0, 1.0, 1.0, f"{grams.amount:g} g")
    if servings is not None:
        said = f"{servings.amount:g} servings of {grams.amount:g} g"
        put("package", servings.amount, servings.low, servings.high, said)
    return out
