"""Foods with a most of their own, from data/food_mosts.toml: no proposal passes it, whatever the
targets say."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.food_classes import KIND_KEYS, FoodClass, read_kind
from nutrition.composition.foods import Food
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.tables import toml_rows


@dataclass(frozen=True)
class FoodMost:
    """The most of a kind of food in a meal or a day [g], 0 for never as it is, and why."""

    kind: FoodClass
    most_g: float
    why: str
    source: str


@lru_cache(maxsize=1)
def food_mosts() -> tuple[FoodMost, ...]:
    """All of them. Raises BadTable for a row that cannot be read."""
    needed = ("most_g", "why", "source")
    rows = toml_rows("food_mosts.toml", (*KIND_KEYS, *needed), needed)
    return tuple(
        FoodMost(read_kind(name, row), float(row["most_g"]), row["why"], row["source"])
        for name, row in rows.items()
    )


@lru_cache(maxsize=4096)
def most_of(food: Food) -> FoodMost | None:
    """The strictest most that holds for a food; None for most foods."""
    return min(
        (row for row in food_mosts() if row.kind.holds(food)),
        key=lambda row: row.most_g,
        default=None,
    )


def ceiling_g(
    ingredients: Sequence[Ingredient], grams: float, cooked: bool = False
) -> tuple[float, str]:
    """How much of something with these ingredients in `grams` of it may be served at most, and why;
    infinite without a limit. [g]

    In a dish that is `cooked`, what is not eaten raw or dry is no longer so.
    """
    found = float("inf"), ""
    for part in ingredients:
        row = most_of(part.food)
        if (
            row is None
            or part.grams <= 0
            or grams <= 0
            or (cooked and row.most_g == 0 and part.food.state in ("dry", "raw"))
        ):
            continue
        found = min(found, (grams * row.most_g / part.grams, f"{part.food.name}: {row.why}"))
    return found
