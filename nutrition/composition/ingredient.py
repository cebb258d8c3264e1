"""A food and its grams in what is looked at."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

import numpy as np

from nutrition.composition.foods import Food
from nutrition.composition.profile import Profile

STATE_ENDINGS = (", raw", ", cooked", ", dry", ", frozen", ", fresh", ", boiled", ", baked")


@dataclass(frozen=True)
class Ingredient:
    """A food and its grams in what is looked at, as they went in. [g] `cooked` is the food with
    what is left of it once it is cooked, per 100 g as it went in; None where it is eaten as it
    is. `heated`: it went through the pot, the oven or the pan."""

    food: Food
    grams: float
    cooked: Food | None = field(default=None, compare=False)
    heated: bool = field(default=False, compare=False)

    @property
    def left(self) -> Food:
        """The food with what is eaten of it: everything that is derived starts from this."""
        return self.cooked or self.food

    def times(self, factor: float) -> Ingredient:
        return Ingredient(self.food, self.grams * factor, self.cooked, self.heated)


def cooked_food(food: Food, grams: float, eaten: Profile) -> Food:
    """The food with the nutrients that are left of `grams` of it after cooking, per 100 g as it
    went in. [g]"""
    if grams <= 0:
        return food
    values = np.where(np.isnan(food.values), np.nan, eaten.amounts / grams * 100.0)
    return replace(food, values=values, low=values, high=values)


def plain_name(food: Food) -> str:
    """The food's name without the state it is in: raw and cooked carrots are one vegetable."""
    name = food.name
    for ending in STATE_ENDINGS:
        name = name.removesuffix(ending)
    return name
