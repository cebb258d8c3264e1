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


def varied(group: str, values: Vector, low: Vector, high: Vector) -> tuple[Vector, Vector]:
    """The least and the most of each value, where a row says none of its own. In the units of the
    nutrients, per 100 g.

    References: variation.csv, made by tools/variation.py from US government composition data.
    """
    if group in MADE_ALIKE:
        return low, high
    kind = next((name for name, groups in KINDS.items() if group in groups), ANY)
    apart = np.nan_to_num(_apart()[kind])
    bare = (low == values) & (high == values) & (values > 0)
    floor = np.zeros(len(KEYS))
    for key, least in FLOOR.items():
        floor[INDEX[key]] = least
    down = np.maximum(np.minimum(values * np.exp(-apart), values - floor), 0.0)
    up = np.maximum(values * np.exp(apart), values + floor)
    return np.where(bare, down, low), np.where(bare, up, high)


def spread_said(group: str, key: str, value: float | None, high: float | None) -> str:
    """Where the range of a row's value is from, where it is that of its kind; empty where the row
    has its own, or none. In the key's unit, per 100 g."""
    if group in MADE_ALIKE or not value or high is None:
        return ""
    kind = next((name for name, groups in KINDS.items() if group in groups), ANY)
    apart = float(np.nan_to_num(_apart()[kind])[INDEX[key]])
    most = max(value * math.exp(apart), value + FLOOR.get(key, 0.0))
    return f"range: {SAID}" if apart and math.isclose(high, most, rel_tol=1e-6) else ""
