"""A few plain foods that most kitchens have: what a hint or a complement may offer besides the
client's own favorites."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

from nutrition.composition.foods import Food, food_table
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.portion import Limits, Portion, food_portion
from nutrition.portions.problem import Problem
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


# What a sweet breakfast takes, and what of the staples is only eaten with one. Common practice, no
# source.
WITH_BREAKFAST = (
    *("hemp-seeds-hulled", "flaxseed-ground", "chia-seeds", "pumpkin-seeds", "sunflower-seeds"),
    *("walnuts", "almonds", "orange-raw", "strawberries-raw", "rolled-oats-cooked"),
    *("soy-milk-unsweetened", "applesauce-unsweetened"),
)
NOT_AT_BREAKFAST = (
    *("soy-mince-rehydrated", "tempeh", "green-peas-cooked", "bok-choy-cooked", "collards-cooked"),
    *("brown-rice-cooked", "white-rice-cooked", "rice-noodles-cooked", "lentils-cooked"),
)
ONLY_WITH_BREAKFAST = ("rolled-oats-cooked", "applesauce-unsweetened", "soy-milk-unsweetened")
# What makes a small plate richer, beside something savory and with a sweet breakfast. Common
# practice, no source.
RICH = ("olive-oil", "tahini", "hemp-seeds-hulled", "walnuts", "sunflower-seeds")
RICH_AND_SWEET = (
    *("almond-butter", "peanut-butter-smooth-unsalted", "hemp-seeds-hulled", "walnuts", "almonds"),
)
# A meal with so much of these by weight is no sweet one. Common practice, no source. [share]
SAVORY_GROUPS = ("legume", "vegetable", "leafy green", "mushroom", "seitan", "starchy vegetable")
SAVORY = 0.3


def is_sweet(parts: Sequence[Portion], meal: str) -> bool:
    """Whether a meal is a sweet breakfast, by its key and by what is in it."""
    foods = [
        (one, part.share(part.grams)) for part in parts if part.grams > 0 for one in part.foods
    ]
    grams = sum(one.grams * share for one, share in foods)
    savory = sum(one.grams * share for one, share in foods if one.food.group in SAVORY_GROUPS)
    return meal == "breakfast" and savory < SAVORY * grams


def that_suit(foods: Sequence[Food], sweet: bool, meal: str) -> tuple[Food, ...]:
    """Those of the staples that somebody would eat with it."""
    if sweet:
        return tuple(food for food in foods if food.slug in WITH_BREAKFAST)
    if meal == "breakfast":
        return tuple(food for food in foods if food.slug not in NOT_AT_BREAKFAST)
    if meal in ("lunch", "dinner"):
        return tuple(food for food in foods if food.slug not in ONLY_WITH_BREAKFAST)
    return tuple(foods)


def staples(gate: Gate = OPEN) -> tuple[Food, ...]:
    """The staples that the table holds; with those of little else for whom the kidneys set the
    limits."""
    kidneys = not KIDNEYS.isdisjoint(gate.situation.conditions)
    slugs = (*STAPLES, *OF_LITTLE_ELSE) if kidneys else STAPLES
    return tuple(food_table()[slug] for slug in slugs if slug in food_table())


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


def added_to(problem: Problem) -> tuple[Portion, ...]:
    """What may be added to a meal: staples that suit it, or what makes it richer; not what is in
    it, nor what the gate holds back."""
    gate, there = problem.gate, {part.key for part in problem.parts}
    there |= {part.food.slug for part in problem.parts if part.food is not None}
    table, sweet = food_table(), is_sweet(problem.parts, problem.meal)
    suits = that_suit(staples(gate), sweet, problem.meal)
    if problem.richer:
        rich = RICH_AND_SWEET if sweet else RICH
        suits = tuple(table[slug] for slug in rich if slug in table)
    may_be = (food for food in suits if food.slug not in there and not gate.why_not(food))
    return tuple(portion_of(food) for food in may_be)
