"""Kinds of food that schools, conditions, habits and cautions speak of, from
data/food_classes.toml."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from nutrition.composition.foods import Food
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.tables import BadTable, toml_rows


@dataclass(frozen=True, kw_only=True)
class FoodClass:
    """A kind of food, told by group, slug, tag and state.

    A food with one of `within` among its tags holds some of the kind, without being it. Where a
    kind is `told_by_list`, the ingredient list of a practice's own food decides, once it is read.
    What `softens` is of the kind as long as it is raw, and no longer once it went through the pot;
    what is `smoothed` no longer once it is mashed, blended or strained.
    """

    name: str
    groups: frozenset[str] = frozenset()
    slugs: str = ""
    tags: frozenset[str] = frozenset()
    states: tuple[str, ...] = ()
    without: str = ""
    within: frozenset[str] = frozenset()
    told_by_list: bool = False
    softens: bool = False
    smoothed: bool = False

    def holds(self, food: Food) -> bool:
        if self.told_by_list and food.own:
            return not self.tags.isdisjoint(food.tags)
        if self.without and re.match(self.without, food.kind_slug):
            return False
        if self.states and not food.state.startswith(self.states):
            return False
        named = bool(self.slugs) and re.match(self.slugs, food.kind_slug) is not None
        tagged = bool(self.tags) and not self.tags.isdisjoint(food.tags)
        return food.group in self.groups or named or tagged


@lru_cache(maxsize=1)
def food_classes() -> dict[str, FoodClass]:
    """All classes by name."""
    rows = toml_rows("food_classes.toml", KIND_KEYS, ())
    return {name: read_kind(name, row) for name, row in rows.items()}


# What tells a kind of food in a table.
KIND_KEYS = (
    *("groups", "slugs", "tags", "states", "except", "within"),
    *("told_by_list", "softens", "smoothed"),
)


def read_kind(name: str, row: Mapping[str, Any]) -> FoodClass:
    """A kind of food from a row of a table. Raises BadTable for one that tells nothing."""
    if not any(row.get(key) for key in ("groups", "slugs", "tags", "within")):
        raise BadTable(f"{name}: is told by no group, slug or tag", name)
    return FoodClass(
        name=name,
        groups=frozenset(row.get("groups", ())),
        slugs=row.get("slugs", ""),
        tags=frozenset(row.get("tags", ())),
        states=tuple(row.get("states", ())),
        without=row.get("except", ""),
        within=frozenset(row.get("within", ())),
        told_by_list=bool(row.get("told_by_list")),
        softens=bool(row.get("softens")),
        smoothed=bool(row.get("smoothed")),
    )


@lru_cache(maxsize=4096)
def classes_of(food: Food) -> frozenset[str]:
    """Names of the classes a food belongs to."""
    return frozenset(name for name, kind in food_classes().items() if kind.holds(food))


# What the pot makes soft.
SOFTENED = ("raw", "fresh", "frozen")


@lru_cache(maxsize=4096)
def kinds_within(food: Food) -> frozenset[str]:
    """Names of the classes that a food belongs to or has some of in it: crackers with oil are no
    oil, and hold some."""
    tags = set(food.tags)
    some = (name for name, kind in food_classes().items() if not kind.within.isdisjoint(tags))
    return classes_of(food) | frozenset(some)


def kinds_of(part: Ingredient) -> frozenset[str]:
    """Names of the classes that a food belongs to or has some of in it, as it is eaten: raw carrots
    are hard, those in a soup are not; mashed potatoes have no pieces."""
    kinds = kinds_within(part.food)
    softened = part.heated and part.food.state.startswith(SOFTENED)
    if not softened and not part.smooth:
        return kinds
    return frozenset(
        name
        for name in kinds
        if not (softened and food_classes()[name].softens)
        and not (part.smooth and food_classes()[name].smoothed)
    )
