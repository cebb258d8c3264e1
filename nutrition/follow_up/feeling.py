"""Hunger beside what was eaten."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from nutrition.composition.amounts import DENSITY, amount_of
from nutrition.composition.food_classes import classes_of
from nutrition.follow_up.intake import LoggedDay

# From here on somebody is hungry between meals. [0 to 10] Common practice, no source.
HUNGRY = 6.0
LEAST_DAYS = 4
STARCHES = frozenset({"any grain", "starchy vegetables", "legumes"})
# A difference under this share is none. Common practice, no source.
WORTH_SAYING = 0.15


def starch_g(day: LoggedDay) -> float:
    """What of grains, starchy vegetables and legumes was eaten on a day. [g]"""
    return float(
        sum(
            part.grams
            for bite in day.eaten
            for part in bite.portion.foods
            if not STARCHES.isdisjoint(classes_of(part.food))
        )
    )


def hunger_words(rows: Sequence[tuple[float, LoggedDay]]) -> list[str]:
    """What parts the hungry days [hunger 0 to 10] from the others in what was eaten, in words;
    empty where there are too few of either to say. It may be chance: it is a question to ask."""
    hungry = [day for hunger, day in rows if hunger >= HUNGRY]
    others = [day for hunger, day in rows if hunger < HUNGRY]
    if len(hungry) < 2 or len(others) < 2 or len(rows) < LEAST_DAYS:
        return []
    out = []
    looked = (
        ("starch (grain, roots, beans)", "g", 0, starch_g),
        ("fiber", "g", 0, lambda day: day.profile["fiber_g"].amount),
        ("protein", "g", 0, lambda day: day.profile["protein_g"].amount),
        ("energy density", "kcal/g", 2, lambda day: amount_of(day.profile, DENSITY).amount),
        ("food by weight", "g", 0, lambda day: day.profile.grams),
    )
    for name, unit, decimals, measure in looked:
        one = float(np.mean([measure(day) for day in hungry]))
        other = float(np.mean([measure(day) for day in others]))
        if other > 0 and abs(one - other) >= WORTH_SAYING * other:
            out.append(
                f"On {len(hungry)} hungry days {one:,.{decimals}f} {unit} {name}, on {len(others)} "
                f"others {other:,.{decimals}f} {unit}."
            )
    return out
