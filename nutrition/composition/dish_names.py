"""What a dish is by what it is called, from data/dish_kinds.toml."""

from __future__ import annotations

import re
from collections.abc import Collection
from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.tables import BadTable, toml_rows

# The kinds by their names, in the order of a menu.
KINDS = (
    *("breakfast", "grain", "bread", "soup", "salad", "main", "bowl", "beans"),
    *("vegetable", "greens", "dressing", "topping", "fruit", "milk", "shake", "seeds", "snack"),
)
ROW = ("name", "without", "roles", "kinds")


@dataclass(frozen=True, kw_only=True)
class _Row:
    name: str
    without: str
    roles: Collection[str]
    kinds: frozenset[str]

    def fits(self, said: str, role: str) -> bool:
        if self.roles and role not in self.roles:
            return False
        if self.without and re.search(self.without, said):
            return False
        return re.search(self.name, said) is not None


@lru_cache(maxsize=1)
def dish_kinds() -> tuple[_Row, ...]:
    """The rows of the table, in their order. Raises BadTable."""
    out = []
    for code, row in toml_rows("dish_kinds.toml", ROW, ("name", "kinds")).items():
        if set(row["kinds"]) - set(KINDS):
            raise BadTable(f"dish_kinds.toml, {code}: no such kind", code)
        out.append(
            _Row(
                name=row["name"],
                without=row.get("without", ""),
                roles=row.get("roles", ()),
                kinds=frozenset(row["kinds"]),
            )
        )
    return tuple(out)


def named_by(name: str, role: str) -> frozenset[str] | None:
    """The kinds that a name tells of what has a role; None for a name that tells none."""
    said = name.lower()
    row = next((one for one in dish_kinds() if one.fits(said, role)), None)
    return None if row is None else row.kinds
