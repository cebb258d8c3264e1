"""Foods with a most of their own, from data/food_mosts.toml: no proposal passes it, whatever the
targets say."""

from __future__ import annotations

import tomllib
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from nutrition.bowl import Ingredient
from nutrition.food_classes import FoodClass
from nutrition.foods import DATA, Food


@dataclass(frozen=True)
class FoodMost:
    """The most of a kind of food in a meal or a day [g], 0 for never as it is, and why."""

    kind: FoodClass
    most_g: float
    why: str
    source: str


@lru_cache(maxsize=1)
def food_mosts() -> tuple[FoodMost, ...]:
    """All of them. Raises KeyError or TypeError for a row that cannot be read."""
    data = tomllib.loads((DATA / "food_mosts.toml").read_text(encoding="utf-8"))
    out = []
    for name, row in data.items():
        unknown = set(row) - {"slugs", "groups", "states", "except", "most_g", "why", "source"}
        if unknown:
            raise KeyError(f"{name}: {', '.join(sorted(unknown))}")
        kind = FoodClass(
            name,
            frozenset(row.get("groups", ())),
            row.get("slugs", ""),
            states=tuple(row.get("states", ())),
            without=row.get("except", ""),
        )
        out.append(FoodMost(kind, float(row["most_g"]), row["why"], row["source"]))
    return tuple(out)


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
