"""A few plain foods that most kitchens have: what a hint or a complement may offer besides the
client's own favorites."""

from __future__ import annotations

from nutrition.composition.foods import Food, food_table
from nutrition.safety.gate import OPEN, Gate

# Chosen so that each nutrient that runs short on plants has a food or two that brings much of it.
# Common practice, no source.
STAPLES = (
    "lentils-cooked",
    "white-beans-cooked",
    "tofu-firm",
    "tempeh",
    "edamame-cooked",
    "soy-mince-rehydrated",
    "green-peas-cooked",
    "hemp-seeds-hulled",
    "flaxseed-ground",
    "chia-seeds",
    "pumpkin-seeds",
    "sunflower-seeds",
    "walnuts",
    "almonds",
    "sesame-seeds",
    "kale-raw",
    "spinach-cooked",
    "broccoli-cooked",
    "bok-choy-cooked",
    "collards-cooked",
    "bell-pepper-red-raw",
    "carrots-cooked",
    "orange-raw",
    "strawberries-raw",
    "rolled-oats-cooked",
    "brown-rice-cooked",
    "potato-boiled",
    "soy-milk-unsweetened",
    "nutritional-yeast-fortified",
)


# Where the kidneys set the limits, energy must come with little protein, potassium and phosphorus.
# Common practice, no source.
OF_LITTLE_ELSE = (
    "white-rice-cooked",
    "rice-noodles-cooked",
    "olive-oil",
    "applesauce-unsweetened",
)
KIDNEYS = frozenset({"ckd_3", "ckd_4", "ckd_5", "dialysis", "high_potassium_blood"})
# On warfarin what brings so much vitamin K is neither offered nor made larger, since the dose is
# set to what is eaten; of oil and seeds there is too little on a plate. Common practice, no source.
# [µg/g]
WARFARIN, MUCH_VITAMIN_K_UG, LITTLE_OF_IT = "warfarin", 0.4, ("sauce", "topping")


def moves_the_dose(vitamin_k_ug: float, role: str) -> bool:
    """Whether a plate's change of this moves a dose of warfarin, by its vitamin K [µg/g] and its
    role."""
    return vitamin_k_ug >= MUCH_VITAMIN_K_UG and role not in LITTLE_OF_IT


def staples(gate: Gate = OPEN) -> tuple[Food, ...]:
    """The staples that the table holds; with those of little else for whom the kidneys set the
    limits, and on warfarin without the greens."""
    kidneys = not KIDNEYS.isdisjoint(gate.situation.conditions)
    slugs = (*STAPLES, *OF_LITTLE_ELSE) if kidneys else STAPLES
    foods = (food_table()[slug] for slug in slugs if slug in food_table())
    if WARFARIN not in gate.situation.conditions:
        return tuple(foods)
    return tuple(food for food in foods if not moves_the_dose(_vitamin_k(food), food.role))


def _vitamin_k(food: Food) -> float:
    return (food.per_100_g("vitamin_k_ug") or 0.0) / 100.0
