"""What a bowl is made of: its star, its vegetables, its kinds of protein."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from nutrition.composition.foods import Food
from nutrition.composition.profile import Profile

STATE_ENDINGS = (", raw", ", cooked", ", dry", ", frozen", ", fresh", ", boiled", ", baked")


LEAST_SHARE, MOST_SHARE = 0.01, 0.95


@dataclass(frozen=True)
class Ingredient:
    """A food and its grams in what is looked at, as they went in. [g] `cooked` is the food with
    what is left of it once it is cooked, per 100 g as it went in; None where it is eaten as it
    is."""

    food: Food
    grams: float
    cooked: Food | None = field(default=None, compare=False)

    @property
    def left(self) -> Food:
        """The food with what is eaten of it: everything that is derived starts from this."""
        return self.cooked or self.food

    def times(self, factor: float) -> Ingredient:
        return Ingredient(self.food, self.grams * factor, self.cooked)


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


def star_of(parts: Sequence[tuple[str, float, bool]]) -> int | None:
    """Which of (role, volume [mL], chosen) is the star: the chosen one, or the largest that is not
    the base."""
    for i, (_role, _volume, chosen) in enumerate(parts):
        if chosen:
            return i
    others = [
        (volume, -i)
        for i, (role, volume, _chosen) in enumerate(parts)
        if role not in ("base", "sauce", "topping")
    ]
    return -max(others)[1] if others else None


def grams_for_share(share: float, grams: float, volume_ml: float, others_ml: float) -> float | None:
    """Grams that give a part this share [0 to 1] of the bowl's volume while the others stay. [g]

    The part now weighs `grams` and takes `volume_ml`, the others take `others_ml`. None for a share
    out of reach.
    """
    if not LEAST_SHARE <= share <= MOST_SHARE or others_ml <= 0:
        return None
    return others_ml * share / (1 - share) * grams / volume_ml
