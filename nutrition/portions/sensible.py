"""How small, how large, and in what steps a part of a meal can sensibly be served."""

from __future__ import annotations

import math

from nutrition.composition.food_mosts import most_of
from nutrition.composition.foods import Food
from nutrition.composition.helpings import FIRST_HELPING_G, first_helping_g
from nutrition.composition.portion import Limits

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
# So many first helpings of a food may be added to a meal. Common practice, no source.
MOST_HELPINGS = 1.5
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


def sensible_g(role: str, group: str = "") -> tuple[float, float]:
    """The usual least and most of a part by its kind of food, or else by its role. [g]"""
    return SENSIBLE_GROUP_G.get(group) or SENSIBLE_G.get(role, OTHER_G)


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
    return Limits(least=first, most=max(high, first), step=step)


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
