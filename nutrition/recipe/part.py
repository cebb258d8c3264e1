"""A recipe as an ingredient of another: by grams, volume or servings, with everything that is known
and unknown of it."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np

from nutrition.composition.foods import ML_PER_CUP, Food, HouseholdMeasure
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import KEYS
from nutrition.composition.profile import Profile
from nutrition.written.basis import DISH_MEASURE, basis_range


@dataclass(frozen=True, kw_only=True)
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


def _measure(measure: str, grams: float) -> HouseholdMeasure:
    low, high = basis_range(grams, DISH_MEASURE)
    return HouseholdMeasure(
        measure=measure, form="", grams=grams, low=low, high=high, source="of the recipe itself"
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
    measures = [_measure("serving", batch.grams / servings)]
    if volume_ml:
        measures.append(_measure("cup", batch.grams * ML_PER_CUP / volume_ml))
    allergens = tuple(dict.fromkeys(one for part in inside for one in part.food.allergens))
    tags = tuple(dict.fromkeys(one for part in inside for one in part.food.tags))
    return PartFood(
        slug=f"recipe:{name.lower()}",
        name=name,
        group="dish",
        role="dish",
        state="ready",
        allergens=allergens,
        tags=tags,
        source="a recipe",
        source_description=name,
        notes="",
        values=per_100,
        low=per_100,
        high=per_100,
        measures=tuple(measures),
        shares=(),
        whole=batch,
        inside=inside,
    )
