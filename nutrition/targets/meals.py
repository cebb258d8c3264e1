"""The day shared out over its meals: two, three, or three and snacks."""

from __future__ import annotations

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

from nutrition.targets.conditions import limits_protein, those
from nutrition.targets.person import OutOfRange, Person
from nutrition.targets.schools import School

MEAL_NAMES = {
    "breakfast": "Breakfast",
    "lunch": "Lunch",
    "dinner": "Dinner",
    "snack": "Between meals",
}
MAIN_MEALS = ("breakfast", "lunch", "dinner")
# The usual share of the day [0 to 1], editable. Common practice, no source.
PATTERN_SHARES: dict[str, dict[str, float]] = {
    "2": {"lunch": 0.5, "dinner": 0.5},
    "3": {"breakfast": 0.30, "lunch": 0.35, "dinner": 0.35},
    "3_snacks": {"breakfast": 0.25, "lunch": 0.30, "dinner": 0.30, "snack": 0.15},
}


# When an ordinary day has its meals [minutes of the day], until somebody's own are set; when in
# the evening beans go into water and what is frozen into the refrigerator, when a pot is begun, and
# when somebody steps on the scale. Common practice, no source.
USUAL_TIMES = {"breakfast": 450, "lunch": 750, "snack": 930, "dinner": 1110}
EVENING, MORNING, COOKING = 1200, 420, 1020


@dataclass(frozen=True, kw_only=True)
class MealTarget:
    """A meal's share of the day [0 to 1] and what it comes to; the least protein stands apart from
    the share. [kcal], [g]"""

    key: str
    name: str
    share: float
    energy_kcal: float
    protein_g: float
    protein_min_g: float | None
    reason: str


def check_shares(pattern: str, shares: Mapping[str, float]) -> None:
    """Raises OutOfRange, naming "meals", for shares of other meals than the pattern's, or that do
    not add up to 1."""
    if set(shares) != set(PATTERN_SHARES[pattern]):
        names = ", ".join(MEAL_NAMES[key].lower() for key in PATTERN_SHARES[pattern])
        raise OutOfRange("meals", f"Give a share for {names}.")
    if (
        any(not 0 <= share <= 1 for share in shares.values())
        or abs(sum(shares.values()) - 1.0) > 0.005
    ):
        raise OutOfRange(
            "meals", f"The shares add up to {sum(shares.values()) * 100:.0f} %, not 100 %."
        )


def protein_minimum(
    person: Person, school: School | None, kg: float, day_low_g: float | None
) -> tuple[float | None, str]:
    """The least protein of a main meal, and why. [g] None where protein is limited. From weight
    used [kg], day's least [g]

    References: ISSN position stand (2017) for the strength school; PROT-AGE (2013) and Moore et al.
    (2015), from memory, over 65; otherwise the day's least spread over the main meals, common
    practice.
    """
    if limits_protein(person.conditions):
        return None, "No least at a meal: protein is limited by the kidney disease."
    if school is not None and school.each_meal:
        return None, school.meal_protein_reason
    if school is not None and school.meal_protein_g_per_kg > 0:
        least = max(school.meal_protein_g_per_kg * kg, school.meal_protein_least_g)
        if school.meal_protein_most_g is not None:
            least = min(least, school.meal_protein_most_g)
        return least, school.meal_protein_reason
    for one in those(person.conditions):
        if one.meal_protein_g_per_kg is not None:
            least = min(one.meal_protein_g_per_kg * kg, one.meal_protein_most_g or math.inf)
            return least, one.meal_protein_reason.format(least=least)
    mains = sum(1 for key in PATTERN_SHARES[person.meals] if key in MAIN_MEALS)
    if day_low_g is None:
        return None, "No least at a meal."
    return (
        day_low_g / mains,
        "The day's least spread evenly over the main meals: common practice, no source.",
    )


def meal_targets(
    person: Person,
    school: School | None,
    kg: float,
    kcal: float,
    protein_g: tuple[float | None, float],
    shares: Mapping[str, float] | None = None,
) -> tuple[MealTarget, ...]:
    """The meals of the person's pattern. [kg], [kcal/day], the day's least and aim of protein [g].
    Raises OutOfRange."""
    pattern = PATTERN_SHARES[person.meals]
    if shares is not None:
        check_shares(person.meals, shares)
    chosen = shares or pattern
    least, why = protein_minimum(person, school, kg, protein_g[0])
    words = (
        "as set"
        if shares is not None and dict(shares) != pattern
        else "the usual share: common practice, no source"
    )
    return tuple(
        MealTarget(
            key=key,
            name=MEAL_NAMES[key],
            share=chosen[key],
            energy_kcal=kcal * chosen[key],
            protein_g=protein_g[1] * chosen[key],
            protein_min_g=least if key in MAIN_MEALS else None,
            reason=f"{chosen[key] * 100:.0f} % of the day, {words}."
            + (f" {why}" if key in MAIN_MEALS else ""),
        )
        for key in pattern
    )


@dataclass(frozen=True)
class Filled:
    """How much of the day has something in it: its share [0 to 1], and the names of the meals that
    are still empty."""

    share: float
    empty: list[str]


def filled_share(meals: Sequence[MealTarget], full: Collection[str]) -> Filled:
    """The share of the day that the meals with something in them, `full` by key, are. Meals that
    are not of the client's pattern add nothing."""
    share = sum(meal.share for meal in meals if meal.key in full)
    empty = [meal.name for meal in meals if meal.key not in full and meal.share > 0]
    # what is eaten only outside the pattern is held against the whole day: nothing says how much of
    # it that is
    return Filled(share, empty) if share > 0 and empty else Filled(1.0, empty if share > 0 else [])


def usual_meal(meals: Sequence[MealTarget]) -> MealTarget | None:
    """Which meal a bowl is taken for until somebody says: lunch, or else the largest main meal.
    Common practice, no source. None where the day has no meals."""
    mains = [one for one in meals if one.key in MAIN_MEALS] or list(meals)
    lunch = next((one for one in mains if one.key == "lunch"), None)
    return lunch or max(mains, key=lambda one: one.share, default=None)


def likely_meal(meals: Sequence[MealTarget], kcal: float) -> MealTarget | None:
    """Which main meal a bowl of so much energy is: the one whose own it comes nearest to. [kcal]
    Common practice, no source. None where the day has no meals."""
    mains = [one for one in meals if one.key in MAIN_MEALS] or list(meals)
    return min(mains, key=lambda one: abs(one.energy_kcal - kcal), default=None)


# The hours from which a meal is the one that is meant. Common practice, no source.
MEAL_FROM = ((17, "dinner"), (11, "lunch"), (0, "breakfast"))


def meal_at(hour: int) -> str:
    """The key of the meal that is eaten at an hour of the day. [0 to 23]"""
    return next(meal for since, meal in MEAL_FROM if hour >= since)
