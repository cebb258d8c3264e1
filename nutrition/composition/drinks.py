"""What is drunk beside a meal: a calorie density is said without it. A milk in a porridge, a juice
in a smoothie and a soup are food; a glass of either is not."""

from __future__ import annotations

from dataclasses import replace

from nutrition.composition.food_classes import classes_of
from nutrition.composition.foods import Food
from nutrition.composition.portion import Portion


def is_drink(food: Food) -> bool:
    """Whether a food that is taken by itself is drunk: water, juice, soda, milk, coffee, tea."""
    return "drinks" in classes_of(food)


def beside_the_food(portion: Portion) -> Portion:
    """A portion as it counts beside others on a table: drunk, where it is a drink by itself."""
    if portion.food is None or not is_drink(portion.food):
        return portion
    return replace(portion, profile=portion.profile.as_drunk())
