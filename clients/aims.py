"""A client's targets as aims for portions and swaps, and what may not be offered to them."""

from clients.in_force import Plan
from nutrition.balance import Aim
from nutrition.meal_aims import aims_for, firm_keys
from nutrition.meals import MealTarget
from nutrition.substitutions import Refusals
from nutrition.targets import DayTargets

WHOLE_DAY = "day"


def meal_of(day: DayTargets, key: str) -> MealTarget | None:
    """The meal of that key; None for the whole day."""
    return next((meal for meal in day.meals if meal.key == key), None)


def meal_options(day: DayTargets) -> list[tuple[str, str]]:
    """The meals and the whole day, to choose from."""
    rows = [(meal.key, f"{meal.name.lower()}, {meal.share * 100:.0f} % of the day") for meal in day.meals]
    return [*rows, (WHOLE_DAY, "the whole day")]


def plan_aims(plan: Plan, meal: MealTarget | None, share: float | None = None) -> tuple[Aim, ...]:
    """The aims for a meal, for a share of the day [0 to 1], or for the whole day. Nothing where the formulas do not cover the client."""
    if plan.day is None:
        return ()
    watched = {row.target.key for row in plan.watched}
    part = share if share is not None else meal.share if meal else 1.0
    return aims_for(plan.day.targets, watched, firm_keys(plan.day, plan.orders), part, meal)


def refusals_of(plan: Plan) -> Refusals:
    """Allergens and disliked foods of the client, and the kinds of food that the school avoids."""
    school = plan.day.school if plan.day else None
    avoided = [row.food_class for row in school.foods if row.stance == "avoid"] if school else []
    return Refusals(plan.client.allergies, plan.client.disliked_words, avoided)
