"""After gastric surgery: the tablets for life by the kind of operation, and the room that a meal
may take by the months since."""

from __future__ import annotations

import tomllib
from collections.abc import Collection
from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.tables import DATA, only

SURGERY = "gastric_surgery"
KINDS = ("gastric_band", "gastric_sleeve", "gastric_bypass", "duodenal_switch")


@dataclass(frozen=True)
class Gastric:
    """The tables of data/gastric_surgery.toml: tablets by kind and nutrient, and (months, mL)."""

    tablets: dict[str, dict[str, str]]
    stomach: tuple[tuple[float, float], ...]


@lru_cache(maxsize=1)
def _tables() -> Gastric:
    data = tomllib.loads((DATA / "gastric_surgery.toml").read_text(encoding="utf-8"))
    only(data, ("tablets", "stomach_ml"), "gastric_surgery.toml")
    only(data["tablets"], (SURGERY, *KINDS), "gastric_surgery.toml, tablets")
    stomach = tuple((float(months), float(ml)) for months, ml in data["stomach_ml"])
    return Gastric(data["tablets"], stomach)


def tablets_to_take(conditions: Collection[str]) -> tuple[str, ...]:
    """What is taken every day for life after the operation, in words; none without one."""
    if SURGERY not in conditions:
        return ()
    rows = dict(_tables().tablets[SURGERY])
    for kind in KINDS:
        if kind in conditions:
            rows |= _tables().tablets[kind]
    return tuple(rows.values())


def stomach_ml(conditions: Collection[str], months: float | None) -> float | None:
    """What a meal may take so many months after the operation, drinks apart. [mL] None where there
    was none. Common practice, no source."""
    if SURGERY not in conditions:
        return None
    rows = _tables().stomach
    if months is None:
        return rows[-1][1]
    return next((ml for since, ml in reversed(rows) if months >= since), rows[0][1])
