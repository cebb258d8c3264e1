"""From what goes into the pot to what is bought: dry for cooked, whole for trimmed, in the units
that the shop sells. From data/sold.toml and the foods' own measures."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.cooking_methods import before_cooking
from nutrition.composition.foods import Food, food_table
from nutrition.composition.tables import BadTable, toml_rows

# Sold as these, in this order, where the food says what one weighs.
UNITS = ("can", "block", "package", "bunch", "head", "bulb", "ear")
PIECES = ("medium", "large", "small", "piece")
PLURALS = {"box": "boxes", "bunch": "bunches", "loaf": "loaves", "piece": "pieces"}
# What is bought whole and trimmed of clean ends goes into the stock. Common practice, no source.
FOR_STOCK = re.compile(
    r"onion|leek|carrot|celery|celeriac|fennel|mushroom|parsley|dill|kale|chard|parsnip|scallion"
    r"|thyme|shallot|crimini"
)
# The sections of a shop, in the order in which one walks through it. Common practice, no source.
SECTIONS = (
    *("Vegetables and herbs", "Fruit", "Bread", "Refrigerated", "Dry goods", "Cans and jars"),
    *("Spices", "Drinks", "Pharmacy", "Other", "Frozen"),
)
ROW = (
    *("groups", "slugs", "states", "section", "package", "grams", "pieces"),
    *("fresh_days", "opened_days", "rest"),
)
NOWHERE = "none"
# Less is a helping and no package that anybody shops for. [g]
LEAST_PACKAGE_G = 100.0
# What is pressed or grated at home is bought as the fruit.
OF_ONE = ("juice of 1", "zest of 1")


@dataclass(frozen=True, kw_only=True)
class Sold:
    """How a food is sold: its unit and what one weighs as bought, where it stands, how long it
    keeps whole and opened [days], where what remains goes. `by_weight`: any amount can be asked
    for. [g]"""

    unit: str
    grams: float
    section: str
    fresh_days: int
    opened_days: int
    rest: str
    by_weight: bool = False
    source: str = "common practice, no source"

    def words(self, count: float) -> str:
        """ "2 cans", "1 bunch", "3" """
        number = f"{count:g}"
        if not self.unit:
            return number
        plural = PLURALS.get(self.unit, f"{self.unit}s")
        return f"{number} {self.unit if count == 1 else plural}"


@dataclass(frozen=True, kw_only=True)
class _Row:
    groups: frozenset[str]
    slugs: str
    states: frozenset[str]
    section: str
    package: str
    grams: float
    pieces: bool
    fresh_days: int
    opened_days: int
    rest: str

    def fits(self, food: Food) -> bool:
        if self.states and food.state not in self.states:
            return False
        if not self.groups and not self.slugs:
            return True
        named = bool(self.slugs) and re.match(self.slugs, food.kind_slug) is not None
        return named or food.group in self.groups


@lru_cache(maxsize=1)
def _rows() -> tuple[_Row, ...]:
    out = []
    needed = ("section", "fresh_days", "opened_days", "rest")
    for name, row in toml_rows("sold.toml", ROW, needed).items():
        if not row.get("pieces") and not row.get("grams") and row["section"] != NOWHERE:
            raise BadTable(f"sold.toml, {name}: says no package", name)
        if row["section"] not in (*SECTIONS, NOWHERE):
            raise BadTable(f"sold.toml, {name}: there is no section {row['section']}", name)
        out.append(
            _Row(
                groups=frozenset(row.get("groups", ())),
                slugs=row.get("slugs", ""),
                states=frozenset(row.get("states", ())),
                section=row["section"],
                package=row.get("package", ""),
                grams=float(row.get("grams", 0.0)),
                pieces=bool(row.get("pieces")),
                fresh_days=row["fresh_days"],
                opened_days=row["opened_days"],
                rest=row["rest"],
            )
        )
    return tuple(out)


def sold(food: Food, own: Mapping[str, tuple[str, float]] | None = None) -> Sold | None:
    """How a food is sold, by the practice's `own` packages (unit and grams by slug), the food's own
    measures, or its kind; None for what nobody buys, as water. [g]"""
    row = next((row for row in _rows() if row.fits(food)), None)
    if row is None or row.section == NOWHERE:
        return None
    base = {
        "section": row.section,
        "fresh_days": row.fresh_days,
        "opened_days": row.opened_days,
        "rest": row.rest,
    }
    if own and food.slug in own:
        unit, grams = own[food.slug]
        return Sold(unit=unit, grams=grams, source="as the practice set it", **base)  # type: ignore[arg-type]
    measures = {one.measure: one for one in food.measures if not one.form}
    for measure in OF_ONE:
        if measure in measures and food.state in ("raw", "fresh"):
            one = measures[measure]
            fruit = {**base, "section": "Fruit", "rest": "in the bowl", "opened_days": 3}
            unit = food.kind_slug.partition("-")[0]
            return Sold(unit=unit, grams=one.grams, source=one.source, **fruit)  # type: ignore[arg-type]
    for unit in UNITS:
        if unit in measures and _is_sold_as(food, unit, measures[unit].grams):
            one = measures[unit]
            return Sold(unit=unit, grams=one.grams, source=one.source, **base)  # type: ignore[arg-type]
    if row.pieces:
        for unit in PIECES:
            if unit in measures and measures[unit].grams >= 20.0:
                one = measures[unit]
                return Sold(unit="", grams=one.grams, source=one.source, **base)  # type: ignore[arg-type]
        return Sold(unit="g", grams=50.0, by_weight=True, **base)  # type: ignore[arg-type]
    return Sold(unit=row.package, grams=row.grams, **base)  # type: ignore[arg-type]


def _is_sold_as(food: Food, unit: str, grams: float) -> bool:
    """Whether a food's measure is a unit that it is sold in. [g]"""
    if unit == "can":
        return food.state.startswith("canned")
    return unit != "package" or grams >= LEAST_PACKAGE_G


@dataclass(frozen=True, kw_only=True)
class Bought:
    """What is bought for so much of a food: the food as it is sold, how much of it goes into the
    pot [g], its weight before it is trimmed [g], and what it weighs cooked where it was written
    cooked [g]."""

    food: Food
    grams: float
    whole_g: float
    cooked_g: float = 0.0

    @property
    def trimmed_g(self) -> float:
        """What is cut off. [g]"""
        return max(self.whole_g - self.grams, 0.0)

    @property
    def for_stock_g(self) -> float:
        """What is cut off and goes into the stock. [g]"""
        fits = FOR_STOCK.match(self.food.kind_slug) is not None
        return self.trimmed_g if fits else 0.0


def as_bought(food: Food, grams: float) -> Bought:
    """A food as it is bought for so many grams as they go into a dish: the dry or raw food that a
    cooked one comes from, the whole one that a trimmed one comes from, the can that a drained one
    comes from. [g]"""
    cooked_g = 0.0
    before = before_cooking(food, grams)
    if before is not None:
        cooked_g = grams
        food, grams = before
    food = food_table()[plain_slug(food)]
    edible = food.share("edible")
    whole = grams / edible.share if edible and food.state in ("raw", "fresh") else grams
    return Bought(food=food, grams=grams, whole_g=whole, cooked_g=cooked_g)


def units_for(sold_as: Sold, grams: float) -> float:
    """How many units hold so much, whole ones. [g]"""
    return float(math.ceil(grams / sold_as.grams - 1e-3)) if grams > 0 else 0.0


def plain_slug(food: Food) -> str:
    """What a rinsed or drained can is bought as: the can."""
    slug = food.slug
    for ending in ("-and-rinsed", "-drained", "-undrained"):
        slug = slug.removesuffix(ending)
    drained = f"{slug}-drained"
    return drained if food.state.startswith("canned") and drained in food_table() else food.slug


def check_sold() -> None:
    """Reads the table of how food is sold. Raises BadTable."""
    _rows()
