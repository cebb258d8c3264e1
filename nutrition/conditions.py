"""Conditions, medicines, histories and texture limits, from data/conditions.toml."""

from __future__ import annotations

import tomllib
from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache

from nutrition.foods import DATA
from nutrition.shifts import FoodStance, Shift, read_shift, read_stance

KIND_WORDS = {
    "condition": "Conditions",
    "medicine": "Medicines",
    "history": "History",
    "texture": "Texture",
}
OLDER_FROM_YEARS = 65.0
KIDNEY = frozenset({"ckd_3", "ckd_4", "ckd_5", "dialysis"})


@dataclass(frozen=True)
class Condition:
    """What a condition or medicine changes: targets, foods, what is watched; and to whom to
    turn."""

    code: str
    name: str
    kind: str
    refer_to: str
    targets: tuple[Shift, ...]
    foods: tuple[FoodStance, ...]
    watched: tuple[str, ...]


@lru_cache(maxsize=1)
def conditions() -> dict[str, Condition]:
    """All conditions by code, in the order of the data. A row `like` another has its numbers, and
    its own over them."""
    data = tomllib.loads((DATA / "conditions.toml").read_text(encoding="utf-8"))
    out: dict[str, Condition] = {}
    for code, row in data.items():
        base = data.get(row.get("like", ""), {})
        out[code] = Condition(
            code,
            row["name"],
            row.get("kind") or base["kind"],
            row.get("refer_to") or base["refer_to"],
            tuple(
                read_shift(shift) for shift in (*base.get("targets", ()), *row.get("targets", ()))
            ),
            tuple(
                read_stance(stance) for stance in (*base.get("foods", ()), *row.get("foods", ()))
            ),
            tuple(row.get("watched") or base.get("watched", ())),
        )
    return out


def in_play(codes: Iterable[str], age_years: float) -> frozenset[str]:
    """The codes, and "over_65" by age. Unknown codes are left out. [years]"""
    known = {code for code in codes if code in conditions()}
    return frozenset(known | ({"over_65"} if age_years > OLDER_FROM_YEARS else set()))
