"""A row of the table with what a practice puts in place of what it says; what it was stays with
it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from nutrition.composition.errors import CoreError
from nutrition.composition.foods import Food, HouseholdMeasure
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import INDEX

MEASURE = "measure:"
# How far a weight that a practice gives for a household measure may be off. Common practice, no
# source. [share]
MEASURE_SPREAD = 0.05


class CannotOverrule(CoreError):
    """What a row cannot be given; the message says why."""


@dataclass(frozen=True, kw_only=True)
class Overruling:
    """One value put in place of the table's: `key` is a nutrient [its unit per 100 g], or
    "measure:cup" for what a cup weighs [g]. `said` says by whom, when and why."""

    key: str
    value: float
    low: float
    high: float
    said: str


def label_of(key: str) -> str:
    """What is overruled, in words with its unit."""
    if key.startswith(MEASURE):
        return f"a {key.removeprefix(MEASURE)} [g]"
    return f"{NUTRIENT[key].name} [{NUTRIENT[key].unit} per 100 g]"


def value_in(food: Food, key: str) -> float | None:
    """What a row says now of what is to be overruled; None where it says nothing."""
    if key.startswith(MEASURE):
        return next(
            (
                row.grams
                for row in food.measures
                if row.measure == key.removeprefix(MEASURE) and not row.form
            ),
            None,
        )
    return food.per_100_g(key)


def check(key: str, value: float, low: float, high: float) -> None:
    """Raises CannotOverrule for what no food can have."""
    if not low <= value <= high or low < 0:
        raise CannotOverrule("The value lies between its least and its most, none below zero.")
    if key.startswith(MEASURE):
        if not 0 < value <= 5000:
            raise CannotOverrule("A measure weighs more than nothing, and up to 5000 g.")
    elif key not in INDEX:
        raise CannotOverrule("Choose what to overrule.")
    elif high > {"kcal": 905.0, "g": 100.0, "mg": 100_000.0, "µg": 1e8}[NUTRIENT[key].unit]:
        raise CannotOverrule("That is more than 100 g of anything can hold.")


def overruled(food: Food, rows: Sequence[Overruling]) -> Food:
    """The food with these values in place of its own, and what was said with each."""
    values, low, high = food.values.copy(), food.low.copy(), food.high.copy()
    measures, said = list(food.measures), []
    for row in rows:
        before = value_in(food, row.key)
        was = "unknown" if before is None else f"{before:.4g}"
        said.append(f"{label_of(row.key)}: {row.value:.4g} in place of {was}; {row.said}")
        if row.key.startswith(MEASURE):
            name = row.key.removeprefix(MEASURE)
            measures = [one for one in measures if one.measure != name or one.form]
            measures.append(
                HouseholdMeasure(
                    measure=name,
                    form="",
                    grams=row.value,
                    low=row.low,
                    high=row.high,
                    source="overruled here",
                )
            )
        else:
            at = INDEX[row.key]
            values[at], low[at], high[at] = row.value, row.low, row.high
    return replace(
        food,
        values=values,
        low=low,
        high=high,
        measures=tuple(measures),
        overruled=tuple(said),
    )
