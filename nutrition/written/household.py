"""Say grams in a measure a cook can use: "1¼ cups", "2 tbsp", "3 medium"."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

from nutrition.composition.foods import BY_KIND, Food, HouseholdMeasure
from nutrition.composition.portion import Portion
from nutrition.written.units import milliliters

FRACTIONS = (
    (0.0, ""),
    (0.25, "¼"),
    (1 / 3, "⅓"),
    (0.5, "½"),
    (2 / 3, "⅔"),
    (0.75, "¾"),
    (1.0, ""),
)
SPOON_FRACTIONS = ((0.0, ""), (0.25, "¼"), (0.5, "½"), (0.75, "¾"), (1.0, ""))
# Between an amount and its unit: no line ends there.
BOUND = "\u00a0"
COUNTED = ("medium", "slice", "clove", "sheet", "leaf", "piece", "block")
TBSP_PER_CUP = 16.0
# What was only guessed by kind comes after every form that was weighed.
BY_KIND_LAST = 1000
# Less than this is said in the next smaller measure.
LEAST_CUPS, LEAST_TBSP, LEAST_TSP = 0.22, 0.9, 0.12
MOST_SAID = 1e6
# A piece is said where it is this near. [share], and so many at most
COUNT_FIT, MOST_COUNTED = 0.12, 6
# Smaller fruit is measured by the cup, and smaller pieces are not halved. Common practice, no
# source. [g]
LEAST_COUNTED_FRUIT_G, LEAST_HALVED_G = 20.0, 13.0
GROUND = re.compile(r"\b(?:ground|powder|powdered|flakes|flour|meal)\b", re.I)


@dataclass(frozen=True)
class Spoken:
    """An amount in words, and the grams those words stand for. [g]"""

    words: str
    grams: float


def fraction(value: float, steps: tuple[tuple[float, str], ...] = FRACTIONS) -> tuple[float, str]:
    """The nearest amount a measuring set can give, as number and words: 1.3 is (1.333, "1⅓")."""
    if not 0 <= value < MOST_SAID:
        # nobody measures that out
        return value, f"{value:.2g}"
    whole = int(value)
    part, words = min(steps, key=lambda step: abs(step[0] - (value - whole)))
    if part == 1.0:
        whole, part, words = whole + 1, 0.0, ""
    return whole + part, f"{whole if whole or not words else ''}{words}"


def volume_row(food: Food, unit: str, forms: Sequence[str] = ()) -> HouseholdMeasure | None:
    """The portion that a measure of volume of a food is weighed by: in the form that is meant, in
    its own unit if there is such a row. None where no volume of it was ever weighed. What is read
    and what is said go through the same row."""
    rows = [portion for portion in food.measures if milliliters(portion.measure) is not None]

    def fitness(portion: HouseholdMeasure) -> tuple[int, int]:
        fits = (
            forms.index(portion.form)
            if portion.form in forms
            else (len(forms) + 5 if not portion.form else len(forms) + 9)
        )
        # what was weighed in any form before what is guessed by kind
        guessed = BY_KIND_LAST if portion.source.startswith(BY_KIND) else 0
        return fits + guessed, 0 if portion.measure == unit else 1

    return min(rows, key=fitness, default=None)


def _unit_g(food: Food, unit: str, system: str) -> float | None:
    """What a level spoon or cup of a system weighs of a food. [g]"""
    row = volume_row(food, unit)
    return (
        None
        if row is None
        else row.grams * (milliliters(unit, system) or 0.0) / (milliliters(row.measure) or 1.0)
    )


def _by_spoon_and_cup(food: Food, most: float, system: str) -> list[Spoken]:
    """The measures of volume a kitchen has, the smallest first, up to something above `most`: each
    weighs more than the one before, though spoons and cups of a food were not weighed by the same
    hand. [g]"""
    out: list[Spoken] = []
    for unit, first, last, steps in (
        ("tsp", 0.25, 3.0, SPOON_FRACTIONS),
        ("tbsp", 1.0, 4.0, SPOON_FRACTIONS),
        ("cup", 0.25, None, FRACTIONS),
    ):
        each = _unit_g(food, unit, system)
        if not each:
            continue
        if unit == "tsp":
            out.append(Spoken(f"⅛{BOUND}tsp", each / 8.0))
        end = last if last is not None else max(most / each + 1.0, 1.0)
        for whole in range(int(end) + 1):
            for part, words in steps[:-1]:
                value = whole + part
                if not first <= value < end or value * each <= (out[-1].grams if out else 0.0):
                    continue
                plural = "s" if unit == "cup" and value > 1 else ""
                out.append(Spoken(f"{whole or ''}{words}{BOUND}{unit}{plural}", value * each))
    return out


def _counts(food: Food, portion: HouseholdMeasure) -> bool:
    """Whether people count such pieces of it: not berries, of which a cup is eaten, nor what is
    ground, nor a leaf of what comes by the cup."""
    if GROUND.search(food.name) or (portion.measure == "leaf" and food.group == "leafy green"):
        return False
    small = food.group in ("fruit", "dried fruit") and portion.grams < LEAST_COUNTED_FRUIT_G
    return not (small and food.cup is not None)


def _by_count(food: Food, most: float) -> list[Spoken]:
    """Pieces, and halves of those large enough, the smallest first, up to something above `most`.
    [g]"""
    for measure in COUNTED:
        rows = sorted(
            (row for row in food.measures if row.measure == measure), key=lambda row: row.form != ""
        )
        portion = rows[0] if rows else None
        if portion is None or not _counts(food, portion):
            continue
        out = []
        parts = 2 if portion.grams >= LEAST_HALVED_G else 1
        for at in range(1, parts * MOST_COUNTED + 1):
            count = at / parts
            words = f"{int(count) or ''}{'½' if count % 1 else ''}"
            plural = "s" if count > 1 and measure not in ("medium", "leaf") else ""
            name = "leaves" if measure == "leaf" and count > 1 else f"{measure}{plural}"
            out.append(Spoken(f"{words}{BOUND}{name}", count * portion.grams))
            if count * portion.grams > most:
                break
        return sorted([*out, *_sized(food, measure)], key=lambda one: one.grams)
    return []


def _sized(food: Food, measure: str) -> list[Spoken]:
    """One small and one large of what comes in sizes: an apple is eaten, not a cup and a third of
    it. [g]"""
    if measure != "medium":
        return []
    return [
        Spoken(f"1{BOUND}{row.measure}", row.grams)
        for row in food.measures
        if row.measure in ("small", "large") and not row.form
    ]


def spoken(food: Food, grams: float, system: str = "us") -> Spoken | None:
    """The household measure nearest to `grams` of a food, cups and spoons those of `system`; None
    when no measure of it is known. [g]

    More grams are never said as less, and what is said is read back as the grams that stand beside
    it.
    """
    if not 0 < grams < MOST_SAID:
        return None
    counted, poured = _by_count(food, grams), _by_spoon_and_cup(food, grams, system)
    if (
        poured
        and grams < poured[0].grams / 2
        and (not counted or counted[0].grams > poured[0].grams)
    ):
        return Spoken("a pinch", grams)
    # where pieces fit, they are said
    poured = [
        one
        for one in poured
        if not any(abs(one.grams - other.grams) <= COUNT_FIT * one.grams for other in counted)
    ]
    found = min(
        (*counted, *poured), key=lambda one: (abs(one.grams - grams), one.grams), default=None
    )
    if found is None or (not poured and abs(found.grams - grams) > COUNT_FIT * grams):
        return None
    return found


def by_volume(volume_ml: float, grams: float, system: str = "us") -> Spoken | None:
    """A volume in cups, tablespoons or teaspoons of `system`, with the grams of that rounded
    measure. [mL], [g]"""
    cups, spoons, small = (
        volume_ml / (milliliters(unit, system) or 1.0) for unit in ("cup", "tbsp", "tsp")
    )
    if cups >= LEAST_CUPS:
        value, words = fraction(cups)
        unit = "cup" if value <= 1 else "cups"
        return Spoken(f"{words}{BOUND}{unit}", grams * value / cups)
    if spoons >= LEAST_TBSP:
        value, words = fraction(spoons, SPOON_FRACTIONS)
        return Spoken(f"{words}{BOUND}tbsp", grams * value / spoons)
    if small >= LEAST_TSP:
        value, words = fraction(max(small, 0.25), SPOON_FRACTIONS)
        return Spoken(f"{words}{BOUND}tsp", grams * value / small)
    return Spoken("a pinch", grams) if small > 0 else None


def count_words(amount: float, one: str) -> str:
    """So many bowls or servings in words: "1½ servings"."""
    _value, words = fraction(amount)
    return f"{words}{BOUND}{one if amount <= 1 else f'{one}s'}"


def measure_of(portion: Portion, grams: float, system: str = "us") -> Spoken | None:
    """So many grams of something to eat in a household measure: the one place that says it, for
    whatever page, at any multiple. [g]

    What is counted is said in its unit, a food in a measure of it, a dish by what a milliliter of
    it weighs as it is eaten. None where nothing is known to say.
    """
    if grams <= 0:
        return None
    if portion.unit:
        return Spoken(count_words(grams / portion.unit_g, portion.unit), grams)
    if portion.food is not None:
        return spoken(portion.food, grams, system)
    return by_volume(portion.ml_per_gram * grams, grams, system) if portion.poured else None


def say(portion: Portion, grams: float, system: str = "us") -> str:
    """The words of `measure_of`; empty where there are none. [g]"""
    said = measure_of(portion, grams, system)
    return said.words if said else ""


def step_g(food: Food) -> float:
    """The kitchen-sized step for changing a portion of it: a piece, a quarter cup, or a tablespoon.
    [g]"""
    for measure in ("slice", "sheet", "piece"):
        portion = next((row for row in food.measures if row.measure == measure), None)
        if portion is not None and portion.grams >= 2:
            return portion.grams
    if food.cup is None:
        return 5.0
    spoon = food.role in ("sauce", "topping")
    return food.cup.grams / (TBSP_PER_CUP if spoon else 4.0)
