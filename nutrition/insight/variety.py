"""Variety of what is eaten: distinct plants, colors, and how the plate divides by volume."""

from __future__ import annotations

import re
import tomllib
from collections.abc import Sequence
from functools import lru_cache

from nutrition.composition.food_classes import classes_of
from nutrition.composition.foods import Food
from nutrition.composition.ingredient import Ingredient, plain_name
from nutrition.composition.tables import DATA, BadTable
from nutrition.targets.schools import PlatePart

# Less of it is seasoning; herbs, spices and seeds count from a pinch. Common practice, no source.
# [g]
PLANT_MIN_G, PINCH_G = 5.0, 0.5
PINCH_GROUPS = {"fresh herb", "dried herb", "spice", "seed", "nut", "cocoa"}
NOT_PLANTS = {
    "comparator",
    "salt",
    "supplement",
    "leavener",
    "sweetener",
    "oil",
    "drink",
    "vinegar",
    "broth",
}
HALF_PLATE_CLASS = "non-starchy vegetables"


@lru_cache(maxsize=1)
def _colors() -> dict[str, str]:
    rows = tomllib.loads((DATA / "colors.toml").read_text(encoding="utf-8"))
    for color, pattern in rows.items():
        if not isinstance(pattern, str):
            raise BadTable(f"colors.toml, {color}: is no pattern of slugs", color)
    return rows


def color_of(food: Food) -> str | None:
    """The color a food brings to the plate, None where none is noted."""
    return next(
        (color for color, pattern in _colors().items() if re.match(pattern, food.kind_slug)), None
    )


def distinct_plants(ingredients: Sequence[Ingredient]) -> list[str]:
    """Names of the distinct plants there is enough of to count."""
    grams: dict[str, tuple[float, float]] = {}
    for ingredient in ingredients:
        food = ingredient.food
        if food.group in NOT_PLANTS:
            continue
        # "Onions, red" and "Onions, cooked" are one plant
        name = plain_name(food).split(",")[0]
        least = PINCH_G if food.group in PINCH_GROUPS else PLANT_MIN_G
        had, _least = grams.get(name, (0.0, least))
        grams[name] = (had + ingredient.grams, least)
    return sorted(name for name, (amount, least) in grams.items() if amount >= least)


def colors_in(ingredients: Sequence[Ingredient]) -> list[str]:
    """The distinct colors of vegetables, fruit and legumes there is enough of to see."""
    found = {
        color_of(part.food)
        for part in ingredients
        if part.grams >= PLANT_MIN_G and part.food.group not in NOT_PLANTS
    }
    return [color for color in _colors() if color in found]


def _volume_ml(part: Ingredient) -> float:
    return part.food.volume_ml(part.grams) or part.grams


def vegetable_half(ingredients: Sequence[Ingredient]) -> float | None:
    """Share of the plate's volume that is non-starchy vegetables [0 to 1]; None for an empty
    plate."""
    total = sum(_volume_ml(part) for part in ingredients)
    green = sum(
        _volume_ml(part) for part in ingredients if HALF_PLATE_CLASS in classes_of(part.food)
    )
    return green / total if total > 0 else None


def plate_shares(
    ingredients: Sequence[Ingredient], plate: Sequence[PlatePart]
) -> list[tuple[PlatePart, float]]:
    """Each part of a school's plate with its share of the volume of all of them [0 to 1]; a food
    counts in the first that has it."""
    volumes = [0.0] * len(plate)
    for part in ingredients:
        kinds = classes_of(part.food)
        for i, wanted in enumerate(plate):
            if not kinds.isdisjoint(wanted.classes):
                volumes[i] += _volume_ml(part)
                break
    total = sum(volumes)
    return [
        (part, volume / total if total else 0.0)
        for part, volume in zip(plate, volumes, strict=True)
    ]
