"""Kinds of food that schools, conditions, habits and cautions speak of, from
data/food_classes.toml."""

from __future__ import annotations

import re
import tomllib
from dataclasses import dataclass
from functools import lru_cache

from nutrition.foods import DATA, Food


@dataclass(frozen=True)
class FoodClass:
    """A kind of food, told by group, slug, tag and state."""

    name: str
    groups: frozenset[str] = frozenset()
    slugs: str = ""
    tags: frozenset[str] = frozenset()
    states: tuple[str, ...] = ()
    without: str = ""

    def holds(self, food: Food) -> bool:
        if self.without and re.match(self.without, food.slug):
            return False
        if self.states and not food.state.startswith(self.states):
            return False
        named = bool(self.slugs) and re.match(self.slugs, food.slug) is not None
        tagged = bool(self.tags) and not self.tags.isdisjoint(food.tags)
        return food.group in self.groups or named or tagged


@lru_cache(maxsize=1)
def food_classes() -> dict[str, FoodClass]:
    """All classes by name."""
    data = tomllib.loads((DATA / "food_classes.toml").read_text(encoding="utf-8"))
    return {
        name: FoodClass(
            name,
            frozenset(row.get("groups", ())),
            row.get("slugs", ""),
            frozenset(row.get("tags", ())),
            tuple(row.get("states", ())),
            row.get("except", ""),
        )
        for name, row in data.items()
    }


@lru_cache(maxsize=4096)
def classes_of(food: Food) -> frozenset[str]:
    """Names of the classes a food belongs to."""
    return frozenset(name for name, kind in food_classes().items() if kind.holds(food))
