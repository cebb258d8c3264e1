"""What food is made of: nutrients and the amounts of them with ranges and what is unknown,
foods and how they are found, classified and cooked, and what is eaten: a portion, a dish."""

from nutrition.composition.derived import amount_of
from nutrition.composition.errors import CoreError
from nutrition.composition.food_search import food_index
from nutrition.composition.foods import Food, food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.portion import Dish, Limits, Portion, food_portion
from nutrition.composition.profile import Amount, Profile

__all__ = [
    "Amount",
    "CoreError",
    "Dish",
    "Food",
    "Ingredient",
    "Limits",
    "NUTRIENT",
    "Portion",
    "Profile",
    "amount_of",
    "food_index",
    "food_portion",
    "food_table",
]
