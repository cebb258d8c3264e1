"""A client's targets as aims for portions and swaps."""

from collections.abc import Collection

from clients.plan.in_force import Plan
from nutrition.composition.amounts import amount_of
from nutrition.composition.profile import Profile
from nutrition.targets.aim import Aim
from nutrition.targets.aims import UNPLANNED, aims_for, less_rest
from nutrition.targets.day import DayTargets
from nutrition.targets.meals import MealTarget

WHOLE_DAY = "day"


def meal_of(day: DayTargets, key: str) -> MealTarget | None:
    """The meal of that key; None for the whole day."""
    return next((meal for meal in day.meals if meal.key == key), None)


def meal_options(day: DayTargets) -> list[tuple[str, str]]:
    """The meals and the whole day, to choose from."""
    rows = [
        (meal.key, f"{meal.name.lower()}, {meal.share * 100:.0f} % of the day")
        for meal in day.meals
    ]
    return [*rows, (WHOLE_DAY, "the whole day")]


def plan_aims(
    plan: Plan,
    meal: MealTarget | None,
    share: float | None = None,
    also: Collection[str] = (),
    rest: str = UNPLANNED,
    there: Profile | None = None,
) -> tuple[Aim, ...]:
    """The aims for a meal, for a share of the day [0 to 1], or for the whole day: of the watched
    targets, and
    of `also`. How much of the `rest` of the day is planned decides what a meal answers for, and
    what is `there` already is taken off.

    Nothing where the formulas do not cover the client.
    """
    if plan.day is None:
        return ()
    watched = {row.target.key for row in plan.watched}.union(also)
    part = share if share is not None else meal.share if meal else 1.0
    aims = aims_for(plan.day, watched, part, meal, rest)
    if there is None:
        return aims
    return less_rest(aims, {aim.key: amount_of(there, aim.key).amount for aim in aims})
