"""A school's daily habits: which of them a day meets."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nutrition.composition.food_classes import classes_of
from nutrition.composition.ingredient import Ingredient
from nutrition.targets.schools import Habit

# What is dry grows: grams of dry food that stand for one gram cooked. Common practice, no source.
DRY_GROWS = {"legume": 2.5, "soy": 2.0, "grain": 2.7, "mushroom": 6.0}


@dataclass(frozen=True)
class Ticked:
    """A habit, the grams there are of its foods as eaten [g], and whether that meets it."""

    habit: Habit
    grams: float
    met: bool


def as_eaten_g(part: Ingredient) -> float:
    """Grams of a food as it is eaten: dry legumes, grains and mushrooms grow. [g]"""
    return (
        part.grams * DRY_GROWS.get(part.food.group, 1.0) if part.food.state == "dry" else part.grams
    )


def tick(habits: Sequence[Habit], ingredients: Sequence[Ingredient]) -> list[Ticked]:
    """Each habit with what the day has of it."""
    out = []
    for habit in habits:
        grams = sum(
            as_eaten_g(part)
            for part in ingredients
            if not classes_of(part.food).isdisjoint(habit.classes)
        )
        met = (
            grams >= habit.least_g if habit.least_g is not None else grams <= (habit.most_g or 0.0)
        )
        out.append(Ticked(habit, grams, met))
    return out
