"""Foods and the table of them: composition per 100 g, household portions, shares that are eaten."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field, replace
from functools import cached_property, lru_cache

import numpy as np

from nutrition.composition.errors import CoreError
from nutrition.composition.food_allergens import held_and_often
from nutrition.composition.nutrients import KEYS
from nutrition.composition.plausible_bounds import Kind, upper_of, uppers_by_kind
from nutrition.composition.profile import INDEX, Profile, Vector
from nutrition.composition.tables import csv_rows
from nutrition.composition.variation import varied

ML_PER_CUP = 236.588
# What is left of the height of raw leaves once they are dressed and weighed down. Common practice,
# no source.
SETTLED_LEAVES = 0.6
ROLES = ("base", "vegetable", "greens", "protein", "sauce", "topping")


class UnknownFood(CoreError, KeyError):
    """No food of that slug is in the table."""


@dataclass(frozen=True, kw_only=True)
class HouseholdMeasure:
    """What one household measure of a food weighs. [g]"""

    measure: str
    form: str
    grams: float
    low: float
    high: float
    source: str


@dataclass(frozen=True, kw_only=True)
class Share:
    """The part of a bought weight that is eaten or left after draining. [0 to 1]"""

    kind: str
    share: float
    low: float
    high: float
    source: str


def nobody_knows() -> Vector:
    """Nothing of any nutrient is known. In the order of KEYS."""
    return np.full(len(KEYS), np.nan)


@dataclass(frozen=True, kw_only=True)
class Food:
    """One row of the table; `values`, `low` and `high` are per 100 g in the order of KEYS, NaN
    where absent; `upper` is the largest plausible of its kind, NaN where nobody can say.

    What it `may_contain` the label must be read for. A food of a practice's own has the food of the
    table that it is most `like`; `own` marks it, `retired` says that nothing new is made with it.
    `overruled` says what the practice put in place of what a row said, and why. `listed` is the
    list of ingredients of a packaged food, as it was copied.
    """

    slug: str
    name: str
    group: str
    role: str
    state: str
    allergens: tuple[str, ...]
    tags: tuple[str, ...]
    source: str
    source_description: str
    notes: str
    values: Vector = field(repr=False, compare=False)
    low: Vector = field(repr=False, compare=False)
    high: Vector = field(repr=False, compare=False)
    measures: tuple[HouseholdMeasure, ...] = field(default=(), repr=False, compare=False)
    shares: tuple[Share, ...] = field(default=(), repr=False, compare=False)
    upper: Vector = field(default_factory=nobody_knows, repr=False, compare=False)
    like: str = ""
    may_contain: tuple[str, ...] = ()
    own: bool = False
    retired: bool = False
    overruled: tuple[str, ...] = ()
    listed: str = field(default="", compare=False)

    @property
    def kind_slug(self) -> str:
        """The slug by which its kind is known: its own, or that of the food it is most like."""
        return self.like or self.slug

    @property
    def comparator(self) -> bool:
        """An animal food, there to compare with: never part of a recipe."""
        return self.group == "comparator"

    def per_100_g(self, key: str) -> float | None:
        value = float(self.values[INDEX[key]])
        return None if np.isnan(value) else value

    def profile(self, grams: float, low: float | None = None, high: float | None = None) -> Profile:
        """Nutrients of `grams` of this food, with the range of the weight. [g]"""
        return Profile.of(
            self.values,
            self.low,
            self.high,
            grams,
            grams if low is None else low,
            grams if high is None else high,
            self.upper,
        )

    @cached_property
    def cup(self) -> HouseholdMeasure | None:
        """The weight of a level cup of it, plain if there is such a row."""
        cups = [portion for portion in self.measures if portion.measure == "cup"]
        plain = [portion for portion in cups if not portion.form]
        return next(iter(plain or cups), None)

    def volume_ml(self, grams: float) -> float | None:
        """Room taken by `grams` of it in a bowl: as in its densest cup; raw leaves settle further.
        [mL]"""
        cups = [portion.grams for portion in self.measures if portion.measure == "cup"]
        if not cups:
            return None
        settled = SETTLED_LEAVES if self.group == "leafy green" and self.state == "raw" else 1.0
        return grams * ML_PER_CUP / max(cups) * settled

    def share(self, kind: str) -> Share | None:
        return next((share for share in self.shares if share.kind == kind), None)


class FoodTable:
    """All foods by slug. Iterates in the order of slugs.

    `key` tells one table from another, `settled` are the words that mean one food here whatever
    they mean elsewhere, by the words, singular and in order; `uppers` the largest plausible values
    by kind.
    """

    def __init__(
        self,
        foods: Iterable[Food],
        key: Hashable = "",
        settled: Mapping[tuple[str, ...], str] | None = None,
        uppers: Mapping[Kind, Vector] | None = None,
    ) -> None:
        self._foods = {food.slug: food for food in foods}
        self.key = key
        self.uppers = uppers or {}
        self._own_like: dict[str, list[Food]] = {}
        for food in self._foods.values():
            if food.own and food.like and not food.retired and not food.comparator:
                self._own_like.setdefault(food.like, []).append(food)
        self.settled = settled or {}

    def __getitem__(self, slug: str) -> Food:
        try:
            return self._foods[slug]
        except KeyError:
            raise UnknownFood(slug) from None

    def usable(self, slug: str) -> Food | None:
        """The food of that slug if a recipe, bowl or day may hold it: it is in the table and no
        comparator."""
        food = self.get(slug)
        return None if food is None or food.comparator else food

    def get(self, slug: str) -> Food | None:
        """The food of that slug, if it is in the table."""
        return self._foods.get(slug)

    def own_like(self, slug: str) -> list[Food]:
        """The practice's own foods that are most like a food, those still offered."""
        return self._own_like.get(slug, [])

    def __contains__(self, slug: object) -> bool:
        return slug in self._foods

    def __iter__(self) -> Iterator[Food]:
        return iter(self._foods.values())

    def __len__(self) -> int:
        return len(self._foods)


def ready_to_eat(food: Food) -> Food:
    """The cooked food in place of a dry one, where the table has it: nobody eats a dry bean."""
    cooked = f"{food.slug.removesuffix('-dry')}-cooked"
    return food_table()[cooked] if food.state == "dry" and cooked in food_table() else food


def _split(text: str) -> tuple[str, ...]:
    return tuple(text.split("|")) if text else ()


def _food(
    row: dict[str, str], measures: tuple[HouseholdMeasure, ...], shares: tuple[Share, ...]
) -> Food:
    values = np.array([float(row[key]) if row[key] else np.nan for key in KEYS])
    low, high = values.copy(), values.copy()
    for part in _split(row["spread"]):
        key, least, most = part.split(":")
        low[INDEX[key]], high[INDEX[key]] = float(least), float(most)
    # a value derived after the spread was taken can lie outside it
    low, high = np.fmin(low, values), np.fmax(high, values)
    low, high = varied(row["group"], values, low, high)
    holds, often = held_and_often(row["slug"], row["group"], _split(row["allergens"]))
    return Food(
        slug=row["slug"],
        name=row["name"],
        group=row["group"],
        role=row["role"],
        state=row["state"],
        allergens=holds,
        tags=_split(row["tags"]),
        source=row["source"],
        source_description=row["source_description"],
        notes=row["notes"],
        values=values,
        low=low,
        high=high,
        measures=measures,
        shares=shares,
        may_contain=often,
    )


FOOD_COLUMNS = (
    *("slug", "name", "group", "role", "state", "allergens", "tags"),
    *("source", "source_description", "notes", "spread"),
    *KEYS,
)
MEASURE_COLUMNS = ("slug", "measure", "form", "grams", "low", "high", "source")
SHARE_COLUMNS = ("slug", "kind", "share", "low", "high", "source")
BY_KIND = "by kind"
# Spoons to a cup.
SPOONS_PER_CUP = {"tsp": 48.0, "tbsp": 16.0}


def _agreeing(rows: list[HouseholdMeasure]) -> list[HouseholdMeasure]:
    """The portions, a cup that was only guessed by kind replaced by what the food's own spoon says:
    both cannot hold."""
    own = [
        row
        for row in rows
        if row.measure in SPOONS_PER_CUP and not row.form and not row.source.startswith(BY_KIND)
    ]
    if not own:
        return rows
    spoon = max(own, key=lambda row: row.grams)
    times, out = SPOONS_PER_CUP[spoon.measure], []
    for row in rows:
        if row.measure == "cup" and row.source.startswith(BY_KIND):
            source = f"{times:g} {spoon.measure}: {spoon.source}"
            row = HouseholdMeasure(
                measure="cup",
                form=row.form,
                grams=spoon.grams * times,
                low=spoon.low * times,
                high=spoon.high * times,
                source=source,
            )
        out.append(row)
    return out


_in_force: ContextVar[Callable[[], FoodTable] | None] = ContextVar("food_table", default=None)


def food_table() -> FoodTable:
    """The foods that hold here: a practice's, where one is in force, or those that ship with the
    application."""
    own = _in_force.get()
    return shipped_foods() if own is None else own()


@contextmanager
def foods_in_force(table: Callable[[], FoodTable]) -> Iterator[None]:
    """Within this the foods are those of `table`, which is asked for when the first is looked
    for."""
    token = _in_force.set(table)
    try:
        yield
    finally:
        _in_force.reset(token)


@lru_cache(maxsize=1)
def shipped_foods() -> FoodTable:
    """The table that ships with the application, read once."""
    measures: dict[str, list[HouseholdMeasure]] = {}
    for row in csv_rows("portions.csv", MEASURE_COLUMNS):
        measures.setdefault(row["slug"], []).append(
            HouseholdMeasure(
                measure=row["measure"],
                form=row["form"],
                grams=float(row["grams"]),
                low=float(row["low"]),
                high=float(row["high"]),
                source=row["source"],
            )
        )
    shares: dict[str, list[Share]] = {}
    for row in csv_rows("shares.csv", SHARE_COLUMNS):
        shares.setdefault(row["slug"], []).append(
            Share(
                kind=row["kind"],
                share=float(row["share"]),
                low=float(row["low"]),
                high=float(row["high"]),
                source=row["source"],
            )
        )
    measures = {slug: _agreeing(rows) for slug, rows in measures.items()}
    foods = [
        _food(row, tuple(measures.get(row["slug"], ())), tuple(shares.get(row["slug"], ())))
        for row in csv_rows("foods.csv", FOOD_COLUMNS)
    ]
    kinds = _uppers(foods)
    whole = (replace(food, upper=upper_of(kinds, food.group, food.state)) for food in foods)
    return FoodTable(whole, uppers=kinds)


def _uppers(foods: Iterable[Food]) -> Mapping[Kind, Vector]:
    return uppers_by_kind(
        (food.group, food.state, food.values)
        for food in foods
        if not food.comparator and food.group != "supplement"
    )
