"""An own food as plain data, so that it need not be made of its label each time."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping
from dataclasses import asdict
from functools import lru_cache
from typing import Any

import numpy as np

from nutrition.composition.foods import Food, HouseholdMeasure
from nutrition.composition.nutrients import KEYS
from nutrition.composition.profile import Vector
from nutrition.composition.tables import DATA

# Raised when what is kept of a food, or how it is made of its label, changes.
FORMAT = 4
# What an own food is made of besides its label.
_MADE_WITH = (
    "foods.csv",
    "portions.csv",
    "label_terms.csv",
    "label_values.csv",
    "aliases.csv",
    "words.csv",
)
_VECTORS = ("values", "low", "high", "upper")
_PLAIN = (
    *("slug", "name", "group", "role", "state", "source", "source_description", "notes", "like"),
    *("own", "listed"),
)
_LISTS = ("allergens", "tags", "may_contain")


@lru_cache(maxsize=1)
def made_with() -> str:
    """Tells whether a kept food was made with the tables as they are."""
    digest = hashlib.sha256(str(FORMAT).encode())
    for name in _MADE_WITH:
        digest.update((DATA / name).read_bytes())
    return digest.hexdigest()[:16]


def to_plain(food: Food) -> dict[str, Any]:
    """The food as numbers, strings and lists; None where a value is unknown."""
    out: dict[str, Any] = {name: getattr(food, name) for name in _PLAIN}
    out |= {name: list(getattr(food, name)) for name in _LISTS}
    for name in _VECTORS:
        pairs = zip(KEYS, getattr(food, name), strict=True)
        out[name] = {key: float(value) for key, value in pairs if not np.isnan(value)}
    out["measures"] = [asdict(row) for row in food.measures]
    return out


def from_plain(kept: Mapping[str, Any], retired: bool = False) -> Food:
    """The food that `to_plain` gave."""
    fields: dict[str, Any] = {name: kept[name] for name in _PLAIN}
    fields |= {name: tuple(kept[name]) for name in _LISTS}
    fields |= {name: _vector(kept[name]) for name in _VECTORS}
    fields["measures"] = tuple(HouseholdMeasure(**row) for row in kept["measures"])
    return Food(**fields, retired=retired)


def _vector(values: Mapping[str, float]) -> Vector:
    return np.array([values.get(key, np.nan) for key in KEYS])
