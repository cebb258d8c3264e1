"""What an amount that nobody knows could come to at most: the largest plausible of its kind of
food."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from nutrition.composition.foods import Food
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import KEYS, SUMS
from nutrition.composition.profile import INDEX, Vector


def upper_per_100_g(food: Food) -> Vector:
    """The largest plausible value of each nutrient for foods of this kind: of its group and state,
    its group, or all. Per 100 g.

    Nothing where too little is known of a nutrient to say: iodine, for instance, which only the
    foods' own mosts hold back.
    """
    return np.nan_to_num(food.upper, nan=0.0)


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
