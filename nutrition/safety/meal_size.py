"""How large the meals of a day are, where a stomach is small: the room of what is eaten, and the
sugar that comes without fiber."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TypedDict

from nutrition.composition.fluid import FLUID
from nutrition.composition.food_classes import classes_of
from nutrition.composition.ingredient import Ingredient
from nutrition.safety.fast_sugar import fast_sugar_g


class MealSizes(TypedDict):
    """As a planned day has them."""

    most_meal_ml: float | None
    most_meal_fast_sugar_g: float | None


def meal_ml(parts: Sequence[Ingredient]) -> float:
    """The room that a meal takes in the stomach, without what is drunk beside it: its weight, a
    gram for a milliliter. Soup is eaten, and counts. [mL] Common practice, no source."""
    return sum(part.grams for part in parts if FLUID not in classes_of(part.food) or _is_soup(part))


def _is_soup(part: Ingredient) -> bool:
    return part.food.group == "broth" or "soup" in part.food.kind_slug


def meal_sizes(meals: Sequence[Sequence[Ingredient]]) -> MealSizes:
    """The largest meal, and the most sugar without fiber in one. [mL], [g]"""
    filled = [meal for meal in meals if meal]
    return {
        "most_meal_ml": max(map(meal_ml, filled), default=None),
        "most_meal_fast_sugar_g": max(
            (sum(map(fast_sugar_g, meal)) for meal in filled), default=None
        ),
    }
