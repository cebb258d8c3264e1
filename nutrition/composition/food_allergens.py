"""What foods of the table hold, or often hold, besides what their rows say: from
data/food_allergens.toml."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.allergens import ALLERGENS
from nutrition.composition.tables import BadTable, toml_rows


@dataclass(frozen=True, kw_only=True)
class Mark:
    """Foods told by slug, group, or an allergen of their row, and what they hold or often hold."""

    name: str
    slugs: str
    groups: frozenset[str]
    known: frozenset[str]
    without: str
    holds: tuple[str, ...]
    often: tuple[str, ...]

    def is_for(self, slug: str, group: str, allergens: Sequence[str]) -> bool:
        if self.without and re.match(self.without, slug):
            return False
        return (
            group in self.groups
            or not self.known.isdisjoint(allergens)
            or (bool(self.slugs) and re.match(self.slugs, slug) is not None)
        )


@lru_cache(maxsize=1)
def marks() -> tuple[Mark, ...]:
    """All rows. Raises BadTable for one that names an allergen there is not."""
    keys = ("slugs", "groups", "from", "except", "holds", "often")
    out = []
    for name, row in toml_rows("food_allergens.toml", keys, ()).items():
        holds, often = tuple(row.get("holds", ())), tuple(row.get("often", ()))
        for one in (*holds, *often, *row.get("from", ())):
            if one not in ALLERGENS:
                raise BadTable(f"food_allergens.toml, {name}: there is no allergen “{one}”", name)
        out.append(
            Mark(
                name=name,
                slugs=row.get("slugs", ""),
                groups=frozenset(row.get("groups", ())),
                known=frozenset(row.get("from", ())),
                without=row.get("except", ""),
                holds=holds,
                often=often,
            )
        )
    return tuple(out)


def held_and_often(
    slug: str, group: str, allergens: Sequence[str]
) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """What a food of the table holds, and what its label often holds besides: the label must be
    read. `allergens` are those that its row names."""
    mine = [mark for mark in marks() if mark.is_for(slug, group, allergens)]
    holds = set(allergens).union(*(mark.holds for mark in mine))
    often = set().union(*(mark.often for mark in mine)) - holds
    return (
        tuple(name for name in ALLERGENS if name in holds),
        tuple(name for name in ALLERGENS if name in often),
    )
