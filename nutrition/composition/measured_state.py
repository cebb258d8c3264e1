"""The state in which a food is measured when a line does not say which."""

from __future__ import annotations

import re

from nutrition.composition.foods import Food

# In a recipe an unqualified name means this form of it. Common practice, no source.
PLAIN_STATE = {
    "vegetable": "raw",
    "leafy green": "raw",
    "starchy vegetable": "raw",
    "mushroom": "raw",
    "fruit": "raw",
    "fresh herb": "raw",
    "grain": "dry",
    "pasta": "dry",
    "legume": "cooked",
}
# Small and quick-cooking legumes are measured dry, beans after cooking.
MEASURED_DRY = re.compile(r"lentil|split|dal\b|gram\b")


def plain_state(food: Food) -> str | None:
    """The state an unqualified name of this food means; None where its kind has no usual one."""
    if food.group == "legume" and MEASURED_DRY.search(food.name.lower()):
        return "dry"
    return PLAIN_STATE.get(food.group)
