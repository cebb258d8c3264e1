"""A few plain foods that most kitchens have: what a hint or a complement may offer besides the
client's own favorites."""

from __future__ import annotations

import math
from functools import lru_cache

from nutrition.composition.foods import Food, food_table
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.plausible import unknown_at_most
from nutrition.composition.portion import Ingredient
from nutrition.portions.problem import Part
from nutrition.portions.sensible import most_added_g
from nutrition.safety.gate import OPEN, Gate
from nutrition.written import household

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


@lru_cache(maxsize=1)
def staples() -> tuple[Food, ...]:
    """The staples that the table holds."""
    return tuple(food_table()[slug] for slug in STAPLES if slug in food_table())


def part_of(food: Food) -> Part:
    """A food as something that may be added: from nothing to one and a half first helpings, in
    kitchen-sized steps. [g]"""
    added = most_added_g(food)
    step = min(household.step_g(food), first_helping_g(food) / 2)
    most = max(math.floor(added / step + 1e-9), 1) * step
    volume = food.volume_ml(100.0)
    unknown = {
        key: value / 100.0 for key, value in unknown_at_most([Ingredient(food, 100.0)]).items()
    }
    return Part(
        food.slug,
        food.name,
        food.profile(100.0),
        0.0,
        0.0,
        most,
        step,
        role=food.role,
        ml_per_gram=(volume or 100.0) / 100.0,
        unknown=unknown,
        ceiling=added,
    )


def staple_parts(gate: Gate = OPEN) -> tuple[Part, ...]:
    """The staples as parts that may be added, but for those that the gate holds back."""
    return tuple(part_of(food) for food in staples() if not gate.why_not(food))
