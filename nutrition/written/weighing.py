"""The grams that an amount means for a food, with their range, their basis and what was assumed."""

# Whole: the ways in which an amount becomes grams, in the order in which they are tried.

from __future__ import annotations

import re
from dataclasses import replace

from nutrition.composition.errors import CoreError
from nutrition.composition.food_words import words
from nutrition.composition.foods import Food, HouseholdMeasure
from nutrition.composition.profile import INDEX
from nutrition.written import units
from nutrition.written.as_purchased import eaten_of, weighed_as_bought
from nutrition.written.basis import BASIS_SPREAD
from nutrition.written.eye_measures import (
    BUNCH_GRAMS,
    BY_EYE,
    COMMON_GRAMS,
    HANDFUL_GRAMS,
    LITTLE_GRAMS,
    LITTLE_OTHER,
    LOOSE_GRAMS,
    LOOSE_OTHER,
    PART_OF_ONE,
    POT_GRAMS,
    PUNNET_GRAMS,
    SPRAY,
    SPRAYED_GRAMS,
    UNMEASURED,
    VESSEL_SIZE,
    VESSELS,
    ZEST_LITTLE,
)
from nutrition.written.grammar import Quantity, Reading
from nutrition.written.household import volume_row
from nutrition.written.line import Line
from nutrition.written.line_patterns import FILLS

# A small or large one against the usual, where it has no weight of its own. Common practice, no
# source.
SIZE_FACTOR = {"small": 0.65, "large": 1.4, "extra large": 1.8}
# The usual can, when the line does not say which. Common practice, no source. [g]
COMMON_CAN_G = 425.0
# What is in a can, with its liquid. Common practice, no source. [g/mL]
CAN_G_PER_ML = 1.03
# Of a can of beans so much is left when drained, where the bean has no share of its own: best,
# least, most. Common practice, no source.
CAN_DRAINED_SHARE = (0.6, 0.55, 0.66)
LIKE_FORM = {
    "chopped": ("chopped",),
    "sliced": ("sliced", "chopped"),
    "grated": ("grated", "shredded"),
    "mashed": ("mashed",),
    "shredded": ("shredded", "grated"),
    "minced": ("minced", "grated", "chopped"),
    "packed": ("packed",),
    "whole": ("whole",),
    "halves": ("halves",),
}
# One that is called so weighs much less or more than the usual one.
UNUSUAL_SIZES = frozenset({"baby", "mini", "miniature", "dwarf", "petite", "giant", "gem", "pak"})
# Weighed or measured like this, much is not eaten.
IN_ITS_SHELL = re.compile(
    r"\b(?:in|with) (?:the |their |its )?(?:pods?|shells?)\b|\bunshelled\b|\bin-shell\b", re.I
)
# Of a can or jar of other things so much is left when drained: best, least, most. Common practice,
# no source.
DRAINED_SHARE = (0.6, 0.5, 0.72)
# A package of which the line does not say how large it is: makers sell others. Least and most of
# the usual one; a can of beans varies less. Common practice, no source.
ASSUMED_PACKAGE, ASSUMED_CAN = (0.7, 1.35), (0.9, 1.06)
CAN_DRAINED_STATES = ("canned, drained", "canned, drained and rinsed")


class CannotWeigh(CoreError):
    """The grams that are meant are not known; the message says why."""


def weigh(reading: Reading, food: Food) -> Line:
    """The grams a reading means for this food. Raises CannotWeigh, saying why, where they are not
    known."""
    if not reading.terms and (reading.loose or needs_no_amount(food, reading)):
        best, low, high = next(
            (grams for groups, grams in LOOSE_GRAMS if food.group in groups), LOOSE_OTHER
        )
        if SPRAY in words(reading.phrase):
            best, low, high = SPRAYED_GRAMS
        said = (
            f"{reading.loose or 'no amount'}: taken as {best:g} g, between {low:g} and {high:g}; "
            f"weigh it to know"
        )
        return Line(text="", grams=best, low=low, high=high, basis="by eye", assumed=(said,))
    if IN_ITS_SHELL.search(reading.text) and not IN_ITS_SHELL.search(food.name):
        what = "pod" if "pod" in reading.text.lower() else "shell"
        said = f"measured with the {what}: say what is left without it"
        raise CannotWeigh(said)
    lines = [_term(term, reading, food) for term in reading.terms]
    if len(lines) == 1:
        return lines[0]
    grams = sum(line.grams or 0.0 for line in lines)
    low, high = sum(line.low or 0.0 for line in lines), sum(line.high or 0.0 for line in lines)
    assumed = tuple(dict.fromkeys(note for line in lines for note in line.assumed))
    worst = max(lines, key=lambda line: list(BASIS_SPREAD).index(line.basis))
    return Line(text="", grams=grams, low=low, high=high, basis=worst.basis, assumed=assumed)


def _term(term: Quantity, reading: Reading, food: Food) -> Line:
    assumed: list[str] = []
    fill = FILLS.get(reading.fill, 1.0)
    if fill != 1.0:
        assumed.append(f"{reading.fill} taken as {fill:g} level")
        term = term.times(fill)
    if reading.package is not None:
        return _package(term, reading.package, reading, food)
    per_gram = units.grams(term.unit)
    if per_gram is not None:
        return _by_weight(term, per_gram, reading, food)
    if reading.take:
        portion = _find(food, f"{reading.take} of 1", ())
        if portion is None:
            raise CannotWeigh(f"no weight known for the {reading.take} of one")
        return _by_portion(
            term, portion, 1.0, "counted", [f"{reading.take} of one: {portion.grams:g} g"]
        )
    if term.unit == "kcal":
        return _by_energy(term, food)
    if term.unit in VESSELS:
        best, low, high = (ml * VESSEL_SIZE.get(reading.size, 1.0) for ml in VESSELS[term.unit])
        filled = Quantity(term.best * best, term.low * low, term.high * high, "ml")
        said = f"a {' '.join(filter(None, (reading.size, term.unit)))} taken as {best:.0f} mL"
        return replace(_by_volume(filled, reading, food, [said]), basis="by eye")
    if units.milliliters(term.unit) is not None:
        return _by_volume(term, reading, food, assumed)
    return _by_count(term, reading, food, assumed)


def _line(
    term: Quantity, grams: float, low: float, high: float, basis: str, assumed: list[str]
) -> Line:
    """One term at `grams` (from low to high) apiece. The written range and the basis widen it."""
    spread = BASIS_SPREAD[basis]
    best = term.best * grams
    down = (
        ((term.best - term.low) * grams) ** 2
        + (term.best * (grams - low)) ** 2
        + (best * spread) ** 2
    )
    up = (
        ((term.high - term.best) * grams) ** 2
        + (term.best * (high - grams)) ** 2
        + (best * spread) ** 2
    )
    return Line(
        text="",
        grams=best,
        low=max(best - down**0.5, 0.0),
        high=best + up**0.5,
        basis=basis,
        assumed=tuple(assumed),
    )


def _by_portion(
    term: Quantity, portion: HouseholdMeasure, factor: float, basis: str, assumed: list[str]
) -> Line:
    return _line(
        term, portion.grams * factor, portion.low * factor, portion.high * factor, basis, assumed
    )


def _by_weight(term: Quantity, per_unit: float, reading: Reading, food: Food) -> Line:
    assumed: list[str] = []
    share = eaten_of(food)
    grams = term.best * per_unit
    if share and weighed_as_bought(reading, food, grams):
        eaten = grams * share.share
        assumed.append(
            f"{grams:,.0f} g as bought; {share.share:.0%} of it is eaten, {eaten:,.0f} g"
        )
        line = _line(
            term,
            per_unit * share.share,
            per_unit * share.low,
            per_unit * share.high,
            "weighed",
            assumed,
        )
        return replace(line, bought=grams)
    if share and share.share < 0.85:
        assumed.append("weighed after peeling and trimming")
    return _line(term, per_unit, per_unit, per_unit, "weighed", assumed)


def _by_energy(term: Quantity, food: Food) -> Line:
    """The weight of so much energy of it: "300 kcal of trail mix"."""
    best = food.per_100_g("energy_kcal")
    if not best:
        raise CannotWeigh(f"the energy of {food.name.lower()} is not known")
    at = INDEX["energy_kcal"]
    low, high = 100.0 / float(food.high[at]), 100.0 / max(float(food.low[at]), 0.5 * best)
    said = f"{term.best:g} kcal of it at {best / 100:.1f} kcal/g"
    return _line(term, 100.0 / best, low, high, "label", [said])


def _by_volume(term: Quantity, reading: Reading, food: Food, assumed: list[str]) -> Line:
    volume = units.milliliters(term.unit, reading.system) or 0.0
    portion = volume_row(food, term.unit, _wanted_forms(reading))
    if portion is None:
        raise CannotWeigh(f"no weight known for a {term.unit} of {food.name.lower()}")
    factor = volume / (units.milliliters(portion.measure) or 1.0)
    if portion.form:
        assumed.append(f"a cup taken as {portion.form}")
    if portion.source.startswith("by kind"):
        assumed.append(f"weight of a cup {portion.source.split(',')[0]}")
    if reading.fill in ("packed",) and portion.form != "packed":
        assumed.append("packed taken as a quarter more")
        factor *= 1.25
    return _by_portion(term, portion, factor, "leveled measure", assumed)


# What a count of these units may be weighed by, where the food has no row of the unit itself.
LIKE_UNITS = {
    "": ("medium", "piece", "head", "slice"),
    "stalk": ("stalk", "medium"),
    "rib": ("stalk", "medium"),
    "jar": ("package", "can", "block"),
    "package": ("package", "can", "block"),
    "block": ("package", "can", "block"),
    "pot": ("package",),
    "head": ("medium", "piece"),
    "extra large": ("large", "medium", "head", "piece"),
    **dict.fromkeys(("small", "medium", "large"), ("medium", "head", "piece")),
}
PACKED = ("can", "package", "jar", "block", "pot")
# One of these may be small or large.
SIZED = ("medium", "head", "piece", "handful", "bunch", "large")


def _by_count(term: Quantity, reading: Reading, food: Food, assumed: list[str]) -> Line:
    unit = term.unit
    size = unit if unit in SIZE_FACTOR else reading.size
    wanted = [unit, *LIKE_UNITS.get(unit, ())] if unit else list(LIKE_UNITS[""])
    # a baby or a fingerling one may have a weight of its own, whatever size is said of it
    kinds = [*_wanted_forms(reading), *words(reading.phrase)]
    if unit != "piece":
        # two that are halved are two, and no halves
        kinds = [one for one in kinds if one != "halves"]
    found = [(name, portion) for name in wanted if (portion := _find(food, name, kinds))]
    own = [row for row in found if row[1].form and row[1].form in kinds]
    if "halves" in kinds and not own:
        # no half of it was weighed: half of a whole one
        found = []
    if not own and not found:
        return _counted_otherwise(term, size, reading, food, assumed)
    name, portion = (own or found)[0]
    if name == "can" and _is_drained(reading, food):
        usual = Quantity(portion.grams, portion.low, portion.high, "g")
        return _package(term, usual, reading, food)
    _not_of_another_size(food, portion, reading)
    return _counted(term, name, portion, size, assumed)


def _counted(
    term: Quantity,
    name: str,
    portion: HouseholdMeasure,
    size: str,
    assumed: list[str],
) -> Line:
    """So many of one that was weighed, larger or smaller, or halves of it."""
    factor = 1.0
    if size in SIZE_FACTOR and name in SIZED and name != size:
        factor = SIZE_FACTOR[size] / SIZE_FACTOR.get(name, 1.0)
        if portion.form and name == "medium":
            # new potatoes are small already
            factor **= 0.5
        assumed.append(f"a {size} one taken as {factor:.2g} of a usual one")
    if not term.unit:
        article = "a " if name != "medium" else ""
        assumed.append(f"one taken as {article}{name}: {portion.grams:g} g")
    if name in PACKED:
        least, most = ASSUMED_CAN if name == "can" else ASSUMED_PACKAGE
        low, high = min(portion.low, portion.grams * least), max(portion.high, portion.grams * most)
        assumed.append(f"a {name} taken as {portion.grams:g} g: its label says how much it is")
        return _line(term, portion.grams, low, high, "label", assumed)
    basis = "by eye" if term.unit in BY_EYE else "counted"
    return _by_portion(term, portion, factor, basis, assumed)


def _counted_otherwise(
    term: Quantity, size: str, reading: Reading, food: Food, assumed: list[str]
) -> Line:
    """A count of what was never weighed of this food: by the usual of its kind. Raises
    CannotWeigh."""
    unit, whole = term.unit, _find(food, "medium", ())
    beans = food.group == "legume" and food.state == "cooked"
    if unit in ("can", "jar") and (food.state.startswith("canned") or beans):
        usual = Quantity(COMMON_CAN_G, COMMON_CAN_G * 0.9, COMMON_CAN_G, "g")
        line = _package(term, usual, reading, food)
        least, most = ASSUMED_CAN if unit == "can" else ASSUMED_PACKAGE
        said = f"a {unit} taken as 15 oz ({COMMON_CAN_G:.0f} g): its label says how much it is"
        return replace(
            line,
            low=(line.low or 0.0) * least,
            high=(line.high or 0.0) * most,
            assumed=(said, *line.assumed),
        )
    if unit == "piece" and "halves" in reading.forms and whole:
        return _by_portion(term, whole, 0.5, "counted", [*assumed, f"half of {whole.grams:g} g"])
    if unit in PART_OF_ONE and whole and food.group in PARTED:
        best, low, high = (share * whole.grams for share in PART_OF_ONE[unit])
        said = f"a {unit} of one of {whole.grams:g} g taken as {best:.0f} g"
        return _line(term, best, low, high, "by eye", [*assumed, said])
    found = _by_group(unit, food)
    if found is None:
        raise CannotWeigh(f"no weight known for one {unit or 'piece'} of {food.name.lower()}")
    grown = SIZE_FACTOR.get(size, 1.0) if unit == "handful" else 1.0
    best, low, high = (grams * grown for grams in found)
    return _line(term, best, low, high, "by eye", [*assumed, f"a {unit} taken as {best:g} g"])


# Wedges and slices of these are parts of a whole one.
PARTED = ("fruit", "vegetable", "starchy vegetable")


def _by_group(unit: str, food: Food) -> tuple[float, float, float] | None:
    """What one of a unit weighs of such foods: best, least, most. [g] None where nobody can say."""
    if unit == "punnet":
        return PUNNET_GRAMS
    if unit == "pot" and food.group == "plant yogurt":
        return POT_GRAMS
    if unit == "little" and "zest" in food.slug:
        return ZEST_LITTLE
    if unit == "little":
        return next((row for groups, row in LITTLE_GRAMS if food.group in groups), LITTLE_OTHER)
    if unit == "bunch" and food.group in BUNCH_GRAMS:
        return BUNCH_GRAMS[food.group]
    grams = HANDFUL_GRAMS.get(food.group) if unit == "handful" else None
    grams = COMMON_GRAMS.get(unit) if grams is None else grams
    return None if grams is None else (grams, grams, grams)


def _not_of_another_size(food: Food, portion: HouseholdMeasure, reading: Reading) -> None:
    """Raises CannotWeigh where one of an unusual size was counted and only the usual is known."""
    said = UNUSUAL_SIZES.intersection(words(reading.phrase)) - set(words(food.name))
    if said and portion.form not in said:
        raise CannotWeigh(f"no weight known for a {min(said)} one of {food.name.lower()}")


def _is_drained(reading: Reading, food: Food) -> bool:
    """Whether a can of beans is said to be drained, and its row is not."""
    said = set(reading.forms) & {"drained", "rinsed"}
    return bool(said) and food.group == "legume" and food.state == "canned"


def _package(term: Quantity, package: Quantity, reading: Reading, food: Food) -> Line:
    assumed: list[str] = []
    grams = units.grams(package.unit)
    canned = food.share("drained") is not None or food.state.startswith("canned")
    if grams is None and canned and term.unit == "can":
        # a can's milliliters are of all that is in it
        grams = CAN_G_PER_ML * (units.milliliters(package.unit, reading.system) or 0.0)
    if grams is None:
        volume = units.milliliters(package.unit, reading.system) or 0.0
        if food.cup is None:
            said = f"{package.best:g} {package.unit} of {food.name.lower()}"
            raise CannotWeigh(f"no weight known for {said}")
        grams = food.cup.grams * volume / (units.milliliters("cup") or 1.0)
    each = grams * package.best
    share = food.share("drained")
    if share and food.state in CAN_DRAINED_STATES:
        assumed.append(f"{share.share:.0%} of the can's {each:.0f} g is left when drained")
        return _line(
            term, each * share.share, each * share.low, each * share.high, "label", assumed
        )
    if (
        food.group == "legume"
        and food.state in ("cooked", "canned")
        and (
            set(reading.forms) & {"drained", "rinsed"}
            or (food.state == "cooked" and term.unit != "package")
        )
    ):
        best, low, high = CAN_DRAINED_SHARE
        assumed.append(
            f"{best:.0%} of the can's {each:.0f} g is left when drained, as of other beans"
        )
        return _line(term, each * best, each * low, each * high, "label", assumed)
    drained = {"drained", "rinsed"} & set(reading.forms)
    if drained and term.unit in ("can", "jar") and food.group not in ("soy", "legume"):
        best, low, high = DRAINED_SHARE
        assumed.append(f"{best:.0%} of its {each:.0f} g is left when drained, as of others")
        return _line(term, each * best, each * low, each * high, "label", assumed)
    return _line(term, each, each, each, "label", assumed)


def _wanted_forms(reading: Reading) -> list[str]:
    forms = [like for form in reading.forms for like in LIKE_FORM.get(form, (form,))]
    if reading.fill in ("packed",):
        forms.insert(0, "packed")
    return list(dict.fromkeys(forms))


def _find(food: Food, measure: str, forms: list[str] | tuple[str, ...]) -> HouseholdMeasure | None:
    rows = [portion for portion in food.measures if portion.measure == measure]
    for form in (*forms, ""):
        for portion in rows:
            if portion.form == form:
                return portion
    return rows[0] if rows else None


def needs_no_amount(food: Food, reading: Reading) -> bool:
    """What is used without an amount: salt and spices, and what a pan is sprayed with."""
    return food.group in UNMEASURED or SPRAY in words(reading.phrase)
