"""What may be added to a meal as it is proposed: what suits it, no more than a helping, and no
second of what it has."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from nutrition.composition.food_classes import classes_of
from nutrition.composition.foods import Food, food_table
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.portion import Limits, Portion, food_portion
from nutrition.portions.problem import Problem
from nutrition.portions.serving_limits import most_added_g
from nutrition.portions.serving_rules import servable
from nutrition.portions.staples import KIDNEYS, staples

# What a sweet breakfast takes, and what of the staples is only eaten with one. Common practice, no
# source.
WITH_BREAKFAST = (
    *("hemp-seeds-hulled", "flaxseed-ground", "chia-seeds", "pumpkin-seeds", "sunflower-seeds"),
    *("walnuts", "almonds", "orange-raw", "strawberries-raw", "banana-raw", "rolled-oats-cooked"),
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
    *("soy-milk-unsweetened", "soy-protein-powder"),
)
# A meal with so much of these by weight is no sweet one. Common practice, no source. [share]
SAVORY_GROUPS = ("legume", "vegetable", "leafy green", "mushroom", "seitan", "starchy vegetable")
SAVORY = 0.3


def is_sweet(parts: Sequence[Portion], meal: str) -> bool:
    """Whether a meal is a sweet breakfast, by its key and by what is in it."""
    foods = [one for part in parts for one in part.foods_in(part.grams)]
    grams = sum(one.grams for one in foods)
    savory = sum(one.grams for one in foods if one.food.group in SAVORY_GROUPS)
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


# What fills a meal that has its protein. Common practice, no source.
HIGH_POTASSIUM = "high potassium"
FILLS = ("avocado-raw", "banana-raw", "whole-wheat-bread")


# A helping of what is more than sprinkled on, by its group. Common practice, no source. [g]
HELPINGS_G = {"fruit": 100.0, "oil": 14.0, "seed": 12.0, "nut butter": 20.0}
# Where the school lives of greens, beans and seeds no grain is put beside them. Common practice, no
# source.
WITHOUT_A_BASE = ("greens_beans_seeds",)


def helping_of(food: Food) -> Portion:
    """A food as something that may be added: nothing, half a helping, or a whole one. [g]"""
    served = servable(food, food.role)
    helping = max(min(first_helping_g(food), most_added_g(food)), HELPINGS_G.get(food.group, 0.0))
    step = served.step_g * max(round(helping / 2 / served.step_g), 1)
    most = step * max(round(helping / step), 1)
    limits = Limits(least=0.0, most=most, step=step, ceiling=most)
    return replace(food_portion(food, 100.0), grams=0.0, limits=limits)


def added_to(problem: Problem) -> tuple[Portion, ...]:
    """What may be added to a meal: staples that suit it, or what makes it richer; not what is in
    it, nor what the gate holds back."""
    gate, there = problem.gate, {part.key for part in problem.parts}
    there |= {part.food.slug for part in problem.parts if part.food is not None}
    table, sweet = food_table(), is_sweet(problem.parts, problem.meal)
    foods = (*staples(gate), *(table[slug] for slug in FILLS if slug in table))
    suits = that_suit(foods, sweet, problem.meal)
    if gate.situation.school.partition(":")[0] in WITHOUT_A_BASE:
        suits = tuple(food for food in suits if food.role != "base")
    if not KIDNEYS.isdisjoint(gate.situation.conditions):
        suits = tuple(food for food in suits if HIGH_POTASSIUM not in classes_of(food))
    if problem.richer:
        rich = RICH_AND_SWEET if sweet else RICH if problem.meal else (*RICH, *RICH_AND_SWEET)
        suits = tuple(table[slug] for slug in rich if slug in table)
    may_be = (food for food in suits if food.slug not in there and not gate.why_not(food))
    return tuple(helping_of(food) for food in may_be)


def that_fit(
    problem: Problem, grams: dict[str, float], offered: Sequence[Portion], short: bool
) -> list[Portion]:
    """Of what may be added what fits what a meal has now [g]: no second base, no second of a kind
    that was added, and what is there for its protein only where that is `short`. For a whole day
    all of it."""
    there = {part.key for part in problem.parts}
    left = [one for one in offered if one.key not in there]
    if not problem.meal:
        return left
    roles = {part.role for part in problem.parts if grams[part.key] > 0}
    added = {part.food.group for part in problem.parts if part.food is not None and not part.grams}
    return [
        one
        for one in left
        if one.food is not None
        and one.food.group not in added
        and not (one.role == "base" and "base" in roles)
        and (short or one.role != "protein")
    ]
