"""What foods bring of an amount, and which of them bring most of it."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from nutrition.composition.ingredient import Ingredient
from nutrition.composition.profile import INDEX

# What brings so much of an amount that is too much is named for it. Common practice, no source.
BRINGS = 0.15


def brought_by(part: Ingredient, key: str) -> float:
    """What one food brings of a nutrient, as far as it is known. [the key's unit]"""
    value = part.left.values[INDEX[key]]
    return 0.0 if np.isnan(value) else float(value) * part.grams / 100.0


def named_for(foods: Sequence[Ingredient], amounts: Sequence[float]) -> list[str]:
    """The names of the foods that bring most of what comes to these amounts."""
    total = sum(amounts)
    return list(
        dict.fromkeys(
            part.food.name
            for part, amount in zip(foods, amounts, strict=True)
            if amount > 0 and amount >= BRINGS * total
        )
    )


def most_of_it(key: str, foods: Sequence[Ingredient]) -> list[str]:
    """The names of the foods that bring most of a nutrient in these together."""
    return named_for(foods, [brought_by(part, key) for part in foods])
