"""What an amount that nobody knows could come to at most: the largest plausible of its kind of
food."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from nutrition.composition.foods import Food, food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import KEYS, SUMS
from nutrition.composition.profile import INDEX, Vector

# The upper end of a kind is where all but so many of its foods lie below; a kind with fewer known
# values than this has none of its own, and the whole table's stands in, if the nutrient is known
# for so much of it. Common practice, no source. [%], [1], [share]
UPPER_PERCENT, LEAST_KNOWN, KNOWN_ENOUGH = 95.0, 4, 0.5


@lru_cache(maxsize=1)
def _by_kind() -> dict[tuple[str, str], Vector]:
    rows: dict[tuple[str, str], list[Vector]] = {}
    for food in food_table():
        if not food.comparator and food.group != "supplement":
            for kind in ((food.group, food.state), (food.group, ""), ("", "")):
                rows.setdefault(kind, []).append(food.values)
    out = {kind: _upper(np.array(found)) for kind, found in rows.items()}
    every = np.array(rows[("", "")])
    out[("", "")] = np.where((~np.isnan(every)).mean(axis=0) >= KNOWN_ENOUGH, out[("", "")], np.nan)
    return out


def _upper(values: Vector) -> Vector:
    """The upper end by nutrient, NaN where too few are known."""
    known = (~np.isnan(values)).sum(axis=0)
    out = np.full(values.shape[1], np.nan)
    for at in np.flatnonzero(known >= LEAST_KNOWN):
        column = values[:, at]
        out[at] = np.percentile(column[~np.isnan(column)], UPPER_PERCENT)
    return out


@lru_cache(maxsize=4096)
def upper_per_100_g(food: Food) -> Vector:
    """The largest plausible value of each nutrient for foods of this kind: of its group and state,
    its group, or all. Per 100 g.

    Nothing where too little is known of a nutrient to say: iodine, for instance, which only the
    foods' own mosts hold back.
    """
    kinds = _by_kind()
    out = kinds[("", "")]
    for kind in ((food.group, ""), (food.group, food.state)):
        found = kinds.get(kind)
        if found is not None:
            out = np.where(np.isnan(found), out, found)
    return np.nan_to_num(out, nan=0.0)


def unknown_at_most(foods: Sequence[Ingredient]) -> Mapping[str, float]:
    """By nutrient, what the foods whose value is not known could bring at most. In each key's unit;
    keys with nothing unknown are left out."""
    total = np.zeros(len(KEYS))
    for part in foods:
        missing = np.isnan(part.food.values)
        total += np.where(missing, upper_per_100_g(part.food), 0.0) * part.grams / 100.0
    out = {key: float(total[INDEX[key]]) for key in KEYS if total[INDEX[key]] > 0}
    for key, parts in SUMS.items():
        if any(part in out for part in parts):
            out[key] = sum(out.get(part, 0.0) for part in parts)
    return out


def names_unknown(foods: Sequence[Ingredient], key: str) -> list[str]:
    """Names of the foods whose value of a nutrient, or of a part of a sum, is not known."""
    keys = SUMS.get(key, (key,))
    return list(
        dict.fromkeys(
            part.food.name
            for part in foods
            if any(one in INDEX and np.isnan(part.food.values[INDEX[one]]) for one in keys)
        )
    )


# What moves an amount by less than this share of its aim is not worth a word. [share]
WORTH_SAYING = 0.01


@dataclass(frozen=True)
class Unknown:
    """Foods of which a nutrient with a most is not known: between what its total then lies, or None
    where the difference is not worth saying. In the key's unit."""

    key: str
    names: tuple[str, ...]
    between: tuple[float, float] | None
