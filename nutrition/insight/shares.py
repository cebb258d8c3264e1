"""What each food has in a score of a whole dish: its protein and amino acids in the amino-acid
score, its carbohydrate and index in the glycemic load."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from nutrition.composition.foods import Food
from nutrition.insight.glycemic import available_carbohydrate, glycemic_index, index_source
from nutrition.insight.protein_quality import acid_mg_per_g, digestibility


@dataclass(frozen=True, kw_only=True)
class ProteinShare:
    """A food's protein [g], what it holds of the acid that is shortest in the whole [mg per g of
    protein; None where unknown], its digestibility [0 to 1], and the source of its row."""

    food: Food
    grams: float
    protein_g: float
    acid_mg_per_g: float | None
    digestibility: float

    @property
    def source(self) -> str:
        return self.food.source


@dataclass(frozen=True, kw_only=True)
class GlycemicShare:
    """A food's available carbohydrate [g], its index and the load that makes; None where no index
    is noted."""

    food: Food
    grams: float
    carbohydrate_g: float
    index: float | None
    source: str

    @property
    def load(self) -> float | None:
        return None if self.index is None else self.index * self.carbohydrate_g / 100.0


def _together(foods: Iterable[tuple[Food, float]]) -> list[tuple[Food, float]]:
    summed: dict[str, tuple[Food, float]] = {}
    for food, grams in foods:
        summed[food.slug] = (food, summed.get(food.slug, (food, 0.0))[1] + grams)
    return list(summed.values())


def protein_shares(foods: Iterable[tuple[Food, float]], acid: str) -> list[ProteinShare]:
    """The foods of an amino-acid score with their grams [g], the most protein first; those without
    protein are left out. `acid` is the key of the acid that is shortest."""
    out = []
    for food, grams in _together(foods):
        per_100 = food.per_100_g("protein_g")
        if per_100:
            out.append(
                ProteinShare(
                    food=food,
                    grams=grams,
                    protein_g=per_100 * grams / 100.0,
                    acid_mg_per_g=acid_mg_per_g(food, acid, per_100),
                    digestibility=digestibility(food),
                )
            )
    return sorted(out, key=lambda one: -one.protein_g)


def glycemic_shares(foods: Iterable[tuple[Food, float]]) -> list[GlycemicShare]:
    """The foods of a glycemic load with their grams [g], the largest load first, those of unknown
    index after them; those without carbohydrate are left out."""
    out = [
        GlycemicShare(
            food=food,
            grams=grams,
            carbohydrate_g=available_carbohydrate(food, grams),
            index=glycemic_index(food.slug),
            source=index_source(food.slug),
        )
        for food, grams in _together(foods)
    ]
    there = [one for one in out if one.carbohydrate_g > 0]
    return sorted(there, key=lambda one: (one.load is None, -(one.load or one.carbohydrate_g)))
