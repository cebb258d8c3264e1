"""How small, how large, and in what steps a part of a meal can sensibly be served."""

from __future__ import annotations

import math

from nutrition.composition.foods import Food
from nutrition.composition.helpings import FIRST_HELPING_G, first_helping_g
from nutrition.composition.portion import Limits
from nutrition.portions.serving_rules import Servable, servable

# So many first helpings of a food may be added to a meal. Common practice, no source.
MOST_HELPINGS = 1.5
# A part stays recognizable between half and twice what it is; the star is not made smaller than
# this share of it. Common practice, no source.
HALF, TWICE, STAR = 0.5, 2.0, 0.75
LEAST_STEP_G = 0.2
# Less than this is nothing. [g]
NOTHING_G = 0.05
# A bowl may be heaped a little over its brim. Common practice, no source. [share]
HEAPED = 1.05
# What is worn by bowls is judged in them; where there is none, by so much of what a meal may have,
# and a meal by so much of the day. Common practice, no source. [share]
WORN, OF_A_MEAL, MEAL_OF_DAY = ("sauce", "topping"), 0.25, 1 / 3


def most_added_g(food: Food) -> float:
    """The most of a food that may be added to a meal: one and a half first helpings, and no more
    than is served of it. [g]"""
    helpings = max(first_helping_g(food), FIRST_HELPING_G.get(food.role, 0.0)) * MOST_HELPINGS
    return min(helpings, servable(food, food.role).most_g)


def limits_around(
    served: Servable,
    grams: float,
    least: float | None = None,
    most: float | None = None,
    star: bool = False,
) -> Limits:
    """Limits for a part that now weighs `grams`, so that its own portion is one of the choices. [g]

    `least` and `most` are the practitioner's own where there are any; without them what is served
    of it, and the dish stays recognizable; what goes may shrink to nothing. The steps are counted
    from what is there.
    """
    usual_least = min(max(served.least_g, grams * (STAR if star else HALF)), grams)
    if served.goes and not star:
        usual_least = 0.0
    usual_most = max(min(served.most_g, max(grams * TWICE, served.least_g)), grams)
    low = usual_least if least is None else least
    high = usual_most if most is None else most
    step = max(served.step_g, LEAST_STEP_G)
    if low == 0 and served.goes and grams > 0:
        # so that nothing is one of the steps
        step = grams / max(round(grams / step), 1)
    down = (
        math.floor((grams - low) / step + 1e-9)
        if grams >= low
        else -math.ceil((low - grams) / step - 1e-9)
    )
    first = grams - down * step
    if low == 0 and served.goes and first < NOTHING_G:
        first = 0.0
    elif first <= 0:
        first += step
    return Limits(
        least=first,
        most=max(high, first),
        step=step,
        ceiling=max(served.most_g, high, grams),
        keeps=served.keeps and least is None,
        last=served.last and most is None,
        first=served.first and least is None,
        stated=least is not None or most is not None,
    )


# A bowl is eaten whole, three quarters, or one and a half; a dish by the half serving up to two and
# a half. Nothing that is counted is made larger than one can eat at once. Common practice, no
# source. [mL]
BOWL_COUNTS, SERVING_COUNTS, MOST_AT_ONCE_ML = (0.5, 1.5, 0.25), (0.5, 2.5, 0.5), 1200.0


def limits_by_count(
    counts: tuple[float, float, float],
    amount: float,
    unit_g: float,
    unit_ml: float = 0.0,
    last: bool = False,
) -> Limits:
    """Limits in grams for something counted: least, most and step of `counts`, widened to what is
    there, times a unit's weight and room. [g], [mL]

    Raises ValueError for a unit that weighs nothing.
    """
    if not unit_g > 0:
        raise ValueError("a step must be above zero")
    least, most, step = counts
    # what is there stays recognizable
    least, most = max(least, amount * HALF), min(most, max(amount * TWICE, least))
    if unit_ml > 0:
        most = min(most, MOST_AT_ONCE_ML / unit_ml)
    served = Servable(least_g=least * unit_g, most_g=most * unit_g, step_g=step * unit_g)
    limits = limits_around(
        served, amount * unit_g, min(least, amount) * unit_g, max(most, amount) * unit_g
    )
    return Limits(least=limits.least, most=limits.most, step=limits.step, last=last)
