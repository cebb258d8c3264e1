"""A few plain foods that most kitchens have: what a hint or a complement may offer besides the
client's own favorites."""

from __future__ import annotations

import math
from dataclasses import replace

from nutrition.composition.foods import Food, food_table
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.portion import Limits, Portion, food_portion
from nutrition.portions.serving_limits import most_added_g
from nutrition.portions.serving_rules import servable
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


def portion_of(food: Food) -> Portion:
    """A food as something that may be added: from nothing to one and a half first helpings, in
    kitchen-sized steps. [g]"""
    added = most_added_g(food)
    step = min(servable(food, food.role).step_g, first_helping_g(food) / 2)
    most = max(math.floor(added / step + 1e-9), 1) * step
    limits = Limits(least=0.0, most=most, step=step, ceiling=added)
    return replace(food_portion(food, 100.0), grams=0.0, limits=limits)


def staple_portions(gate: Gate = OPEN) -> tuple[Portion, ...]:
    """The staples as parts that may be added, but for those that the gate holds back."""
    return tuple(portion_of(food) for food in staples(gate) if not gate.why_not(food))
