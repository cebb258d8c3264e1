"""A recipe as an ingredient of another: by grams, volume or servings, with everything that is known
and unknown of it."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

import numpy as np

from nutrition.bowl import Ingredient
from nutrition.foods import ML_PER_CUP, Food, Portion
from nutrition.nutrients import KEYS
from nutrition.profile import Profile

_PART = re.compile(r"\[\s*recipe\s*:\s*([^\]]+?)\s*\]", re.I)
# How far a measure of a dish strays from its weight. Common practice, no source.
MEASURE_SPREAD = 0.12


@dataclass(frozen=True)
class PartFood(Food):
    """Stands for a food in a line; `whole` is the batch it is taken from, `inside` the foods of it.
    [g]"""

    whole: Profile = field(default_factory=Profile.empty, repr=False, compare=False)
    inside: tuple[Ingredient, ...] = field(default=(), repr=False, compare=False)

    def profile(self, grams: float, low: float | None = None, high: float | None = None) -> Profile:
        """So many grams of the batch. [g] What is unknown of it stays unknown; the range is that of
        the batch."""
        return (
            self.whole * (grams / self.whole.grams) if self.whole.grams > 0 else Profile.unsettled()
        )

    def foods_in(self, grams: float) -> list[Ingredient]:
        """The foods in so many grams of it. [g]"""
        share = grams / self.whole.grams if self.whole.grams > 0 else 0.0
        return [part.times(share) for part in self.inside]


def part_named(text: str) -> str | None:
    """The name in "200 g [recipe: Sunflower and dill sauce]", None for a line without one."""
    match = _PART.search(text)
    return match[1] if match else None


def without_part(text: str) -> str:
    """The line with the part's name in plain words."""
    return _PART.sub(lambda match: match[1], text)


def _portion(measure: str, grams: float) -> Portion:
    return Portion(
        measure,
        "",
        grams,
        grams * (1 - MEASURE_SPREAD),
        grams * (1 + MEASURE_SPREAD),
        "of the recipe itself",
    )


def part_food(
    name: str,
    batch: Profile,
    servings: float,
    volume_ml: float | None,
    inside: tuple[Ingredient, ...],
) -> PartFood:
    """A food made of a recipe's batch. `volume_ml` is what the batch takes up, None where that is
    unknown. [mL]"""
    per_100 = np.full(len(KEYS), np.nan)
    if batch.grams > 0:
        known = batch.known_g > 0
        per_100[known] = batch.amounts[known] * 100.0 / batch.grams
    portions = [_portion("serving", batch.grams / servings)]
    if volume_ml:
        portions.append(_portion("cup", batch.grams * ML_PER_CUP / volume_ml))
    allergens = tuple(dict.fromkeys(one for part in inside for one in part.food.allergens))
    tags = tuple(dict.fromkeys(one for part in inside for one in part.food.tags))
    return PartFood(
        f"recipe:{name.lower()}",
        name,
        "dish",
        "dish",
        "ready",
        allergens,
        tags,
        "a recipe",
        name,
        "",
        per_100,
        per_100,
        per_100,
        tuple(portions),
        (),
        batch,
        inside,
    )
