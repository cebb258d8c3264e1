"""How little, how much and in what steps a cook serves a part of a meal, from
data/servable.toml."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from functools import lru_cache

from nutrition.composition.food_mosts import most_of
from nutrition.composition.foods import Food
from nutrition.composition.tables import BadTable, toml_rows

KEYS = (
    "slugs",
    "groups",
    "roles",
    "states",
    "least_g",
    "most_g",
    "step_g",
    "keeps",
    "last",
    "first",
    "goes",
    "piece",
)
PIECES = ("slice", "piece", "medium", "sheet")
# A piece that is no more than so many usual steps is one step.
MOST_STEPS_A_PIECE = 8.0


@dataclass(frozen=True, kw_only=True)
class Servable:
    """The least and the most that is served, and the step it is changed by. [g]

    What `keeps` is not made smaller unless a most requires it; what comes `last` is not made larger
    first. What is `first` is made smaller before anything else that brings too much, and what
    `goes` down to nothing.
    """

    least_g: float
    most_g: float
    step_g: float
    keeps: bool = False
    last: bool = False
    first: bool = False
    goes: bool = False


@dataclass(frozen=True, kw_only=True)
class _Row:
    slugs: str
    groups: tuple[str, ...]
    roles: tuple[str, ...]
    states: tuple[str, ...]
    piece: bool
    served: Servable

    def holds(self, slug: str, group: str, role: str, state: str) -> bool:
        if self.states and not state.startswith(self.states):
            return False
        if self.slugs and slug and re.match(self.slugs, slug):
            return True
        anything = not (self.slugs or self.groups or self.roles)
        return anything or group in self.groups or role in self.roles


@lru_cache(maxsize=1)
def _rows() -> tuple[_Row, ...]:
    out = []
    for name, row in toml_rows("servable.toml", KEYS, ("least_g", "most_g", "step_g")).items():
        least, most, step = (float(row[key]) for key in ("least_g", "most_g", "step_g"))
        if not 0 < least < most or not 0 < step <= most:
            raise BadTable(
                f"servable.toml, {name}: the least, the most and the step do not fit", name
            )
        served = Servable(
            least_g=least,
            most_g=most,
            step_g=step,
            keeps=bool(row.get("keeps")),
            last=bool(row.get("last")),
            first=bool(row.get("first")),
            goes=bool(row.get("goes")),
        )
        out.append(
            _Row(
                slugs=row.get("slugs", ""),
                groups=tuple(row.get("groups", ())),
                roles=tuple(row.get("roles", ())),
                states=tuple(row.get("states", ())),
                piece=bool(row.get("piece")),
                served=served,
            )
        )
    return tuple(out)


@lru_cache(maxsize=4096)
def servable(food: Food | None, role: str) -> Servable:
    """How a food, or a dish of that role for which `food` is None, is served. [g]"""
    slug, group, state = (food.kind_slug, food.group, food.state) if food else ("", "", "")
    row = next(row for row in _rows() if row.holds(slug, group, role, state))
    step, most = row.served.step_g, row.served.most_g
    if food is not None and row.piece:
        pieces = [one.grams for one in food.measures if one.measure in PIECES]
        step = next((one for one in pieces if 2 <= one <= MOST_STEPS_A_PIECE * step), step)
    if food is not None:
        own = most_of(food)
        most = most if own is None else min(most, own.most_g)
    return replace(row.served, least_g=min(row.served.least_g, most), most_g=most, step_g=step)
