"""Sugar that comes without its fiber."""

from __future__ import annotations

from nutrition.composition.food_classes import classes_of
from nutrition.composition.ingredient import Ingredient


def fast_sugar_g(part: Ingredient) -> float:
    """The sugar of something that holds it without fiber; its carbohydrate where the sugar is not
    known. [g]"""
    if "fast sugar" not in classes_of(part.food):
        return 0.0
    known = (part.food.per_100_g(key) for key in ("sugars_g", "carbohydrate_g"))
    return next((one for one in known if one is not None), 0.0) * part.grams / 100.0
