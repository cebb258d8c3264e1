"""The density ladder: foods and dishes by kcal per gram, and what moving a rung does to the portion
at the same calories."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from nutrition.composition.portion import Dish
from nutrition.insight.comparison import heap_words
from nutrition.insight.indices import density_band, kcal_per_gram, kcal_per_pound

# The portion is looked at for so many calories, where nobody asks for others. Common practice, no
# source. [kcal]
USUAL_KCAL = 300.0


@dataclass(frozen=True, kw_only=True)
class Rung:
    """A food or dish on the ladder, and its portion for the calories that are looked at. [kcal/g],
    [kcal/lb], [g], [mL]"""

    plate: Dish
    density: float
    per_pound: float
    band: str
    grams: float
    volume_ml: float

    @property
    def heap(self) -> str:
        return heap_words(self.volume_ml)


@dataclass(frozen=True)
class RungDown:
    """From one rung to a lower one: how many times the food for the same calories."""

    above: Rung
    below: Rung

    @property
    def times(self) -> float:
        return self.above.density / self.below.density


def ladder(plates: Sequence[Dish], kcal: float = USUAL_KCAL) -> list[Rung]:
    """The plates with calories, the densest on top. Their portions are for `kcal`. [kcal] Raises
    ValueError for none or fewer."""
    if not 0 < kcal < math.inf:
        raise ValueError("the calories must be above zero")
    out = []
    for plate in plates:
        density, pound = kcal_per_gram(plate.profile), kcal_per_pound(plate.profile)
        if not density or pound is None:
            continue
        portion = plate.times(kcal / plate.profile["energy_kcal"].amount)
        out.append(
            Rung(
                plate=plate,
                density=density,
                per_pound=pound,
                band=density_band(density),
                grams=portion.profile.grams,
                volume_ml=portion.volume_ml,
            )
        )
    return sorted(out, key=lambda rung: -rung.density)


# A step down that makes less of a difference is not worth taking. Common practice, no source.
WORTH_A_STEP = 1.1


def steps(rungs: Sequence[Rung]) -> list[RungDown]:
    """From each rung to the one below it, where that makes a difference."""
    return [
        step
        for step in (RungDown(above, below) for above, below in pairwise(rungs))
        if step.times >= WORTH_A_STEP
    ]
