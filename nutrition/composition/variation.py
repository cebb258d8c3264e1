"""How far a row of the table may be off where its source gives no spread: as far as two tables'
rows of one plant lie apart, by kind of food and nutrient."""

from __future__ import annotations

import math
from functools import lru_cache

import numpy as np

from nutrition.composition.nutrients import AMINO_ACIDS, KEYS
from nutrition.composition.profile import INDEX, Vector
from nutrition.composition.tables import csv_rows

ANY = "any"
KINDS = {
    "produce": frozenset(
        {
            *("vegetable", "leafy green", "starchy vegetable", "mushroom", "fruit", "fruit juice"),
            *("fresh herb", "fermented vegetable", "sea vegetable"),
        }
    ),
    "grain": frozenset({"grain", "pasta", "flour", "bread"}),
    "nut": frozenset({"nut", "seed", "nut butter"}),
    "legume": frozenset({"legume", "soy"}),
}
# What is one substance, or is made to a weight, does not vary.
MADE_ALIKE = frozenset({"salt", "supplement", "leavener", "oil", "sweetener"})
# Neither table measures these in both: as far as protein, of which they are shares, and water as
# far as a tenth of the dry matter. Common practice, no source.
ACIDS_APART = 0.15
# Of what there is hardly any, so much more or less says nothing. Common practice, no source. [in
# the key's unit, per 100 g]
FLOOR = {"sodium_mg": 3.0, "selenium_ug": 0.3, "vitamin_c_mg": 0.5, "calcium_mg": 1.0}
SAID = (
    "as far as SR Legacy and Foundation Foods lie apart on foods of the kind (half the pairs less)"
)


@lru_cache(maxsize=1)
def _apart() -> dict[str, Vector]:
    """The logarithm of the ratio of two rows of one food, by kind; of what no pair tells of a kind
    as of any."""
    table = {name: np.full(len(KEYS), np.nan) for name in (*KINDS, ANY)}
    for row in csv_rows("variation.csv", ("kind", "key", "apart", "pairs")):
        table[row["kind"]][INDEX[row["key"]]] = float(row["apart"])
    for key in AMINO_ACIDS:
        table[ANY][INDEX[key]] = ACIDS_APART
    return {name: np.where(np.isnan(own), table[ANY], own) for name, own in table.items()}


@lru_cache(maxsize=1)
def _floor() -> Vector:
    out = np.zeros(len(KEYS))
    for key, least in FLOOR.items():
        out[INDEX[key]] = least
    return out


def _ends(group: str, values: Vector) -> tuple[Vector, Vector]:
    """The least and the most of each value by the kind of food."""
    kind = next((name for name, groups in KINDS.items() if group in groups), ANY)
    apart, floor = np.nan_to_num(_apart()[kind]), _floor()
    down = np.maximum(np.minimum(values * np.exp(-apart), values - floor), 0.0)
    return down, np.maximum(values * np.exp(apart), values + floor)


def varied(group: str, values: Vector, low: Vector, high: Vector) -> tuple[Vector, Vector]:
    """The least and the most of each value, where a row says none of its own. In the units of the
    nutrients, per 100 g.

    References: variation.csv, made by tools/variation.py from US government composition data.
    """
    if group in MADE_ALIKE:
        return low, high
    bare = (low == values) & (high == values) & (values > 0)
    down, up = _ends(group, values)
    return np.where(bare, down, low), np.where(bare, up, high)


def spread_said(group: str, key: str, values: Vector, high: Vector) -> str:
    """Where the range of a row's value is from, where it is that of its kind; empty where the row
    has its own, or none. In the units of the nutrients, per 100 g."""
    at = INDEX[key]
    if group in MADE_ALIKE or not values[at] > 0:
        return ""
    most = _ends(group, values)[1][at]
    of_kind = most > values[at] and math.isclose(high[at], most, rel_tol=1e-6)
    return f"range: {SAID}" if of_kind else ""
