"""Two foods with one amount, "1/2 cup walnuts and chia": a line is one food, so it asks."""

from __future__ import annotations

import re

from nutrition.composition.food_names import FoodNames
from nutrition.written.grammar import Quantity, Reading
from nutrition.written.naming import NamedFood, name_food
from nutrition.written.units import grams, milliliters

TWO_FOODS = "two foods with one amount: write a line for each"
_AND = re.compile(r"\s+(?:and|&|\+|n\'?)\s+", re.I)


def _words(term: Quantity) -> str:
    unit = term.unit if grams(term.unit) or milliliters(term.unit) else ""
    return f"{term.best / 2:.3g} {unit}".strip()


def two_foods(reading: Reading, named: NamedFood, names: FoodNames) -> tuple[str, ...]:
    """The lines to write where one amount was given for two foods, half of it each; none where the
    phrase is one food, "peas and carrots"."""
    phrase = reading.counted or reading.phrase
    parts = _AND.split(phrase)
    food = named.food
    one_food = food is not None and named.sure and " and " in food.name.lower()
    if len(parts) != 2 or reading.several or one_food:
        return ()
    one, other = (name_food(part, names) for part in parts)
    if one.food is None or other.food is None or one.food.slug == other.food.slug:
        return ()
    many = _words(reading.terms[0]) if len(reading.terms) == 1 else ""
    return tuple(f"{many} {part}".strip() for part in parts)
