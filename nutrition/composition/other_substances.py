"""What foods carry that no column of the table holds, from data/other_substances.toml: caffeine,
the vitamin K of natto, the iodine of sea vegetables."""

from __future__ import annotations

import re
import tomllib
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.foods import Food
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.tables import DATA, only

CARRIED = ("caffeine_mg", "vitamin_k2_ug", "iodine_likely_ug")


@dataclass(frozen=True)
class Carried:
    """Foods told by slug, and how much of something 100 g of them carry."""

    slugs: str
    per_100_g: float
    source: str


@lru_cache(maxsize=1)
def carried() -> dict[str, tuple[Carried, ...]]:
    """All rows by what is carried. Raises BadTable for a key that is not known."""
    data = tomllib.loads((DATA / "other_substances.toml").read_text(encoding="utf-8"))
    only(data, CARRIED, "other_substances.toml")
    out = {}
    for key, rows in data.items():
        for row in rows:
            only(row, ("slugs", "per_100_g", "source"), f"other_substances.toml, {key}")
        out[key] = tuple(Carried(**row) for row in rows)
    return out


@lru_cache(maxsize=4096)
def per_100_g(food: Food) -> tuple[tuple[str, float], ...]:
    """What 100 g of a food carry, by key; in the key's unit. Empty for most foods."""
    return tuple(
        (key, row.per_100_g)
        for key, rows in carried().items()
        if (row := next((one for one in rows if re.match(one.slugs, food.kind_slug)), None))
    )


def carried_by(foods: Sequence[Ingredient]) -> dict[str, float]:
    """What these foods carry together, by key; in the key's unit."""
    out = dict.fromkeys(CARRIED, 0.0)
    for part in foods:
        for key, amount in per_100_g(part.food):
            out[key] += amount * part.grams / 100.0
    return out
