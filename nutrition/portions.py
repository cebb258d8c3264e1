"""How small, how large, and in what steps a part of a meal can sensibly be served."""

from __future__ import annotations

import math
from dataclasses import dataclass

from nutrition.bowl import FIRST_HELPING_G
from nutrition.food_mosts import most_of
from nutrition.foods import Food

# The least and the most of one part of a bowl, by its role. Common practice, no source. [g]
SENSIBLE_G: dict[str, tuple[float, float]] = {
    "base": (60.0, 400.0),
    "vegetable": (30.0, 350.0),
    "greens": (10.0, 150.0),
    "protein": (30.0, 300.0),
    "sauce": (8.0, 90.0),
    "topping": (3.0, 40.0),
    "dish": (80.0, 700.0),
    "fruit": (30.0, 300.0),
}
OTHER_G = (10.0, 300.0)
# So many first helpings of a food may be added to a meal, and what a helping is of what has no
# role. Common practice, no source.
MOST_HELPINGS, OTHER_HELPING_G = 1.5, 100.0
# Kinds of food of which there is much less, or a usual handful, whatever their role. Common
# practice, no source. [g]
SENSIBLE_GROUP_G: dict[str, tuple[float, float]] = {
    "oil": (2.0, 28.0),
    "sweetener": (2.0, 30.0),
    "salt": (0.2, 3.0),
    "spice": (0.2, 6.0),
    "dried herb": (0.2, 6.0),
    "fresh herb": (2.0, 40.0),
    "nut": (5.0, 60.0),
    "seed": (3.0, 45.0),
    "nut butter": (5.0, 50.0),
    "dried fruit": (10.0, 60.0),
    "bread": (20.0, 120.0),
    "condiment": (2.0, 60.0),
    "sea vegetable": (1.0, 10.0),
}
LEAST_STEP_G = 0.5
# What a first helping is by kind of food: a teaspoon of oil, a pinch of salt, a spoon of seeds, a
# handful of nuts. Common practice, no source. [g]
HELPING_GROUP_G: dict[str, float] = {
    "oil": 4.5,
    "sweetener": 7.0,
    "salt": 0.3,
    "spice": 0.5,
    "dried herb": 0.5,
    "fresh herb": 4.0,
    "nut": 30.0,
    "seed": 10.0,
    "nut butter": 16.0,
    "dried fruit": 30.0,
    "bread": 40.0,
    "condiment": 15.0,
    "sea vegetable": 2.0,
    "leavener": 1.0,
    "cocoa": 5.0,
    "yeast": 5.0,
    "vinegar": 15.0,
    "fermented vegetable": 30.0,
    "flour": 30.0,
    "mushroom": 70.0,
    "vegetable": 80.0,
    "starchy vegetable": 150.0,
    "legume": 90.0,
    "soy": 100.0,
    "seitan": 80.0,
    "grain": 150.0,
    "pasta": 140.0,
    "fruit": 120.0,
    "fruit juice": 120.0,
    "plant milk": 240.0,
    "plant yogurt": 170.0,
    "drink": 240.0,
    "broth": 240.0,
    "leafy green": 80.0,
    "supplement": 1.0,
    "protein powder": 25.0,
}
# What is weighed dry is much less of a helping; raw leaves are a cup. Common practice, no source.
# [g]
HELPING_DRY_G: dict[str, float] = {
    "grain": 45.0,
    "pasta": 60.0,
    "legume": 45.0,
    "soy": 30.0,
    "seitan": 25.0,
    "mushroom": 5.0,
    "vegetable": 10.0,
    "fruit": 10.0,
    "fresh herb": 0.5,
    "nut": 15.0,
    "broth": 5.0,
    "drink": 2.0,
}
HELPING_CUP_LEAVES_G = 30.0
# Used by the pinch or the spoon, whatever their kind, told by how the slug begins. Common practice,
# no source. [g]
HELPING_OF_G: dict[str, float] = {
    "lemon-zest": 2.0,
    "orange-zest": 2.0,
    "lemon-juice": 15.0,
    "lime-juice": 15.0,
    "garlic": 3.0,
    "ginger": 3.0,
    "psyllium": 5.0,
    "kelp": 0.5,
    "chili-pepper": 5.0,
    "hot-chili": 5.0,
    "horseradish": 5.0,
    "wasabi": 3.0,
    "sun-dried": 15.0,
    "tomatoes-sun-dried": 15.0,
    "tomato-paste": 15.0,
    "coconut-cream": 30.0,
    "coconut-milk-canned": 60.0,
    "wheat-bran": 10.0,
    "oat-bran": 20.0,
    "rice-bran": 10.0,
    "corn-bran": 10.0,
    "popcorn": 24.0,
    "puffed": 15.0,
}
# One whole piece is a helping of these, where its weight is known and is no more than so many of
# the usual helping.
BY_PIECE, MOST_OF_USUAL = {"fruit": ("medium",), "bread": ("slice", "piece", "medium")}, 2.5


@dataclass(frozen=True)
class Limits:
    """What a part may weigh: from `least` to `most` in steps. [g]"""

    least: float
    most: float
    step: float


def sensible_g(role: str, group: str = "") -> tuple[float, float]:
    """The usual least and most of a part by its kind of food, or else by its role. [g]"""
    return SENSIBLE_GROUP_G.get(group) or SENSIBLE_G.get(role, OTHER_G)


def first_helping_g(food: Food) -> float:
    """What a food enters a bowl or a meal with, by its kind: one piece or slice, a cup of leaves, a
    spoon, a pinch. [g]

    Never more than the food's own most, where it has one above nothing.
    """
    usual = HELPING_GROUP_G.get(food.group, FIRST_HELPING_G.get(food.role, OTHER_HELPING_G))
    if food.state == "dry":
        usual = HELPING_DRY_G.get(food.group, usual)
    elif food.group == "leafy green" and food.state == "raw":
        usual = min(food.cup.grams, HELPING_CUP_LEAVES_G) if food.cup else HELPING_CUP_LEAVES_G
    for measure in BY_PIECE.get(food.group, ()):
        piece = next((row.grams for row in food.portions if row.measure == measure), None)
        if piece is not None and piece <= MOST_OF_USUAL * usual:
            usual = piece
            break
    usual = next(
        (grams for begins, grams in HELPING_OF_G.items() if food.slug.startswith(begins)), usual
    )
    own = most_of(food)
    return min(usual, own.most_g) if own is not None and own.most_g > 0 else usual


def most_added_g(food: Food) -> float:
    """The most of a food that may be added to a meal: one and a half first helpings, and no more
    than is sensible. [g]"""
    own = most_of(food)
    limit = (
        sensible_g(food.role, food.group)[1]
        if own is None
        else min(own.most_g, sensible_g(food.role, food.group)[1])
    )
    return min(
        max(first_helping_g(food), FIRST_HELPING_G.get(food.role, 0.0)) * MOST_HELPINGS, limit
    )


def limits_around(
    role: str,
    grams: float,
    step: float,
    least: float | None = None,
    most: float | None = None,
    group: str = "",
) -> Limits:
    """Limits for a part that now weighs `grams`, so that its own portion is one of the choices. [g]

    `least` and `most` are the practitioner's own where there are any; without them the usual for
    the role, widened to take in what is there. The steps are counted from what is there. Raises
    ValueError for a step that is not above zero.
    """
    if not step > 0:
        raise ValueError("a step must be above zero")
    usual_least, usual_most = sensible_g(role, group)
    low = min(usual_least, grams) if least is None else least
    high = max(usual_most, grams) if most is None else most
    # a quarter cup is no step for what is used by the spoon
    step = max(min(step, usual_most / 4) if group else step, LEAST_STEP_G)
    down = (
        math.floor((grams - low) / step + 1e-9)
        if grams >= low
        else -math.ceil((low - grams) / step - 1e-9)
    )
    first = grams - down * step
    if first <= 0:
        first += step
    return Limits(first, max(high, first), step)


# A bowl is eaten whole, three quarters, or one and a half; a dish by the half serving up to two and
# a half. Common practice, no source.
BOWL_COUNTS, SERVING_COUNTS = (0.5, 1.5, 0.25), (0.5, 2.5, 0.5)


def limits_by_count(counts: tuple[float, float, float], amount: float, unit_g: float) -> Limits:
    """Limits in grams for something counted: least, most and step of `counts`, widened to what is
    there, times a unit's weight. [g]

    Raises ValueError for a unit that weighs nothing.
    """
    least, most, step = counts
    return limits_around(
        "", amount * unit_g, step * unit_g, min(least, amount) * unit_g, max(most, amount) * unit_g
    )
