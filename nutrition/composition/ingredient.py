"""A food and its grams in what is looked at."""

from __future__ import annotations

import re
from dataclasses import KW_ONLY, dataclass, field, replace

import numpy as np

from nutrition.composition.foods import Food
from nutrition.composition.profile import Profile

GLUTEN_FREE = re.compile(r"\bgluten[- ]?free\b", re.I)
# The states of foods that heat has been through.
COOKED = ("cooked", "boiled", "canned", "baked", "roasted", "stewed")
STATE_ENDINGS = (", raw", ", cooked", ", dry", ", frozen", ", fresh", ", boiled", ", baked")


@dataclass(frozen=True)
class Ingredient:
    """A food and its grams in what is looked at, as they went in. [g] `cooked` is the food with
    what is left of it once it is cooked, per 100 g as it went in; None where it is eaten as it
    is. `heated`: it went through the pot, the oven or the pan. `said` is the line it stood in, as
    it was typed; `smooth`: that line has it mashed, blended or strained. Of a liquid so large a
    share is still `loose` [0 to 1]: dry goods have not taken it up in the pot."""

    food: Food
    grams: float
    cooked: Food | None = field(default=None, compare=False)
    heated: bool = field(default=False, compare=False)
    _: KW_ONLY
    said: str = field(default="", compare=False)
    smooth: bool = field(default=False, compare=False)
    loose: float = field(default=1.0, compare=False)

    @property
    def left(self) -> Food:
        """The food with what is eaten of it: everything that is derived starts from this."""
        return self.cooked or self.food

    @property
    def is_cooked(self) -> bool:
        """Whether heat has been through it: here, or before it was bought."""
        return self.heated or self.food.state.startswith(COOKED)

    @property
    def allergens(self) -> tuple[str, ...]:
        """What it holds of what labels must name; "gluten-free" in its line is taken at its
        word."""
        return self._as_said(self.food.allergens)

    @property
    def may_contain(self) -> tuple[str, ...]:
        """What its label must be read for; none of what its line says it is free of."""
        return self._as_said(self.food.may_contain)

    def _as_said(self, names: tuple[str, ...]) -> tuple[str, ...]:
        if not GLUTEN_FREE.search(self.said):
            return names
        return tuple(name for name in names if name not in ("gluten", "wheat"))

    @property
    def told_apart(self) -> tuple[object, ...]:
        """What tells it from every other, while its foods are there: a food is the object that it
        is, since a label that is corrected keeps its name."""
        how = (self.heated, self.said, self.smooth, self.loose)
        return (id(self.food), id(self.cooked), self.grams, *how)

    def times(self, factor: float) -> Ingredient:
        return Ingredient(
            self.food,
            self.grams * factor,
            self.cooked,
            self.heated,
            said=self.said,
            smooth=self.smooth,
            loose=self.loose,
        )


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
