"""Whether a target is a matter of a meal, a day or a week, and which side of it counts: from
data/target_scope.toml."""

from __future__ import annotations

import tomllib
from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.tables import DATA, BadTable, only

MEAL, DAY, WEEK = "meal", "day", "week"
LEAST, MOST, BOTH = "least", "most", "both"


@dataclass(frozen=True)
class Scope:
    """`of` is a meal, a day or a week; `side` is what of it counts: its least, its most, or
    both."""

    of: str
    side: str


def _scope(row: dict[str, str], where: str) -> Scope:
    only(row, ("of", "side"), where)
    if row.get("of") not in (MEAL, DAY, WEEK) or row.get("side") not in (LEAST, MOST, BOTH):
        raise BadTable(f"{where}: needs `of` and `side`", where)
    return Scope(row["of"], row["side"])


@lru_cache(maxsize=1)
def scopes() -> dict[str, Scope]:
    """The scope of every target, by key. Raises BadTable for a row that cannot be read, or a target
    without one."""
    data = tomllib.loads((DATA / "target_scope.toml").read_text(encoding="utf-8"))
    groups = {name: _scope(row, f"groups.{name}") for name, row in data.pop("groups").items()}
    out = {key: _scope(row, key) for key, row in data.items()}
    for key, nutrient in NUTRIENT.items():
        if key not in out:
            if nutrient.group not in groups:
                raise BadTable(f"target_scope.toml says nothing of {key}", key)
            out[key] = groups[nutrient.group]
    return out
