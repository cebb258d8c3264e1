"""What counts as fluid where fluid is limited: what is liquid at room temperature."""

from __future__ import annotations

from collections.abc import Sequence

from nutrition.composition.food_classes import classes_of
from nutrition.composition.ingredient import Ingredient

FLUID = "fluid"


def fluid_ml(parts: Sequence[Ingredient]) -> float:
    """Drinks, soup, ice and jelly in these, without what dry goods took up in the pot. [mL], a gram
    for a milliliter. Water in solid food is not in it."""
    return sum(part.grams * part.loose for part in parts if FLUID in classes_of(part.food))
