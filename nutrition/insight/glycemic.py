"""Glycemic load, over the foods whose glycemic index is known."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.foods import Food
from nutrition.composition.profile import Known
from nutrition.composition.tables import csv_rows

LOAD_BANDS = ((10.0, "low"), (20.0, "medium"))


@dataclass(frozen=True)
class GlycemicLoad(Known):
    """Load of what is known, and the share of the available carbohydrate over which the index is
    known [0 to 1]."""

    load: float
    known: float


@lru_cache(maxsize=1)
def _rows() -> tuple[tuple[re.Pattern[str], float, str], ...]:
    return tuple(
        (re.compile(row["slugs"]), float(row["index"]), row["source"])
        for row in csv_rows("glycemic_index.csv", ("slugs", "index", "source"))
    )


@lru_cache(maxsize=4096)
def _noted(slug: str) -> tuple[float, str] | None:
    """The index of a food and its source, by the longest pattern that fits."""
    matches = [
        (len(found[0]), index, source)
        for pattern, index, source in _rows()
        if (found := pattern.match(slug))
    ]
    return max(matches)[1:] if matches else None


def index_source(slug: str) -> str:
    """Where the index of a food is from, empty where none is noted."""
    noted = _noted(slug)
    return noted[1] if noted else ""


def available_carbohydrate(food: Food, grams: float) -> float:
    """Carbohydrate without fiber in so many grams. [g]"""
    per_100 = (food.per_100_g("carbohydrate_g") or 0.0) - (food.per_100_g("fiber_g") or 0.0)
    return max(per_100, 0.0) * grams / 100.0


def glycemic_index(slug: str) -> float | None:
    """Glycemic index of a food, glucose being 100. None where none is noted.

    References: Atkinson, Foster-Powell and Brand-Miller, Diabetes Care 31:2281 (2008); values from
    memory. The index of one variety, ripeness or cooking time can lie 15 away.
    """
    noted = _noted(slug)
    return noted[0] if noted else None


def glycemic_load(foods: Iterable[tuple[Food, float]]) -> GlycemicLoad | None:
    """Glycemic index times available carbohydrate [g] over 100, summed over foods and their grams
    [g]. None without carbohydrate.

    References: Salmerón et al., JAMA 277:472 (1997), for the load; bands under 10 and 20 for one
    meal: common practice.
    """
    load = known = total = 0.0
    for food, grams in foods:
        available = available_carbohydrate(food, grams)
        total += available
        index = glycemic_index(food.slug)
        if index is not None:
            known += available
            load += index * available / 100.0
    return GlycemicLoad(load, known / total) if total > 0 else None


def load_band(load: float) -> str:
    """ "low", "medium" or "high", for one meal."""
    return next((name for edge, name in LOAD_BANDS if load < edge), "high")
