"""Kinds of food that schools, conditions, habits and cautions speak of, from
data/food_classes.toml."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from nutrition.composition.foods import Food
from nutrition.composition.tables import BadTable, toml_rows


@dataclass(frozen=True, kw_only=True)
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
    rows = toml_rows("food_classes.toml", KIND_KEYS, ())
    return {name: read_kind(name, row) for name, row in rows.items()}


# What tells a kind of food in a table.
KIND_KEYS = ("groups", "slugs", "tags", "states", "except")


def read_kind(name: str, row: Mapping[str, Any]) -> FoodClass:
    """A kind of food from a row of a table. Raises BadTable for one that tells nothing."""
    if not any(row.get(key) for key in ("groups", "slugs", "tags")):
        raise BadTable(f"{name}: is told by no group, slug or tag", name)
    return FoodClass(
        name=name,
        groups=frozenset(row.get("groups", ())),
        slugs=row.get("slugs", ""),
        tags=frozenset(row.get("tags", ())),
        states=tuple(row.get("states", ())),
        without=row.get("except", ""),
    )


@lru_cache(maxsize=4096)
def classes_of(food: Food) -> frozenset[str]:
    """Names of the classes a food belongs to."""
    return frozenset(name for name, kind in food_classes().items() if kind.holds(food))
