"""The kinds of kitchen work and the times they take, from data/kitchen_work.toml and
data/kitchen_times.toml."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Literal

from nutrition.composition.foods import Food
from nutrition.composition.tables import BadTable, toml_rows

Place = Literal["burner", "oven", "blender", "refrigerator", "freezer", "counter"]
PLACES = ("burner", "oven", "blender", "refrigerator", "freezer", "counter")
COMMON_PRACTICE = "common practice, no source"


@dataclass(frozen=True)
class Span:
    """Minutes at the least, usually, and at the most. [min]"""

    least: float
    usual: float
    most: float

    def times(self, factor: float) -> Span:
        return Span(self.least * factor, self.usual * factor, self.most * factor)

    def less(self, minutes: float, least: float) -> Span:
        """So much shorter, but never shorter than the least. [min]"""
        return Span(
            max(self.least - minutes, least),
            max(self.usual - minutes, least),
            max(self.most - minutes, least),
        )

    def plus(self, other: Span) -> Span:
        return Span(self.least + other.least, self.usual + other.usual, self.most + other.most)


NONE = Span(0.0, 0.0, 0.0)


@dataclass(frozen=True, kw_only=True)
class Kind:
    """A kind of work; see the head of the table for what its fields say. [min], [h], [degrees
    Celsius]"""

    name: str
    place: Place
    hands: Span
    alone: Span
    attended: bool
    celsius: int
    spread: int
    joins: bool
    waits: float
    strict: bool
    hot: bool
    cools: bool
    ahead: float
    pattern: re.Pattern[str]
    leading: re.Pattern[str]


@dataclass(frozen=True, kw_only=True)
class _FoodTime:
    kind: str
    food: re.Pattern[str]
    minutes: Span
    source: str


ROW = (
    *("verbs", "place", "hands", "alone", "attended", "celsius", "spread", "joins", "waits"),
    *("strict", "hot", "cools", "ahead"),
)
# A step may be told as well as ordered: "everything simmers", "the peas go in".
_FORMS = r"(?:s|es)?"
# What may stand before the verb of an order.
_LEADS = (
    r"(?:(?:and|then|now|next|again|also|finally|meanwhile|first|gently|slowly|carefully|quickly"
    r"|thinly|finely|roughly|coarsely|lightly|well|slow|let(?: \w+){0,4}?"
    r"|leave(?: \w+){0,4}? to|allow(?: \w+){0,4}? to|keep)[, ]+)*"
)


def _span(row: dict[str, Any], name: str, where: str) -> Span:
    values = row[name]
    if len(values) != 3 or not 0 <= values[0] <= values[1] <= values[2]:
        raise BadTable(f"{where}: {name} is no span", name)
    return Span(*(float(one) for one in values))


@lru_cache(maxsize=1)
def kinds() -> tuple[Kind, ...]:
    """All kinds of work, the surest first. Raises BadTable."""
    out = []
    needed = ("verbs", "place", "hands", "alone", "waits", "ahead")
    for name, row in toml_rows("kitchen_work.toml", ROW, needed).items():
        where = f"kitchen_work.toml, {name}"
        if row["place"] not in PLACES:
            raise BadTable(f"{where}: there is no place “{row['place']}”", name)
        verbs = rf"(?:{row['verbs']}){_FORMS}"
        out.append(
            Kind(
                name=name,
                place=row["place"],
                hands=_span(row, "hands", where),
                alone=_span(row, "alone", where),
                attended=row.get("attended", False),
                celsius=row.get("celsius", 0),
                spread=row.get("spread", 0),
                joins=row.get("joins", False),
                waits=float(row["waits"]),
                strict=row.get("strict", False),
                hot=row.get("hot", False),
                cools=row.get("cools", False),
                ahead=float(row["ahead"]),
                pattern=re.compile(rf"\b{verbs}(?![\w])", re.I),
                leading=re.compile(rf"^\W*{_LEADS}{verbs}(?![\w])", re.I),
            )
        )
    return tuple(out)


@lru_cache(maxsize=1)
def kind_named() -> dict[str, Kind]:
    """The kinds by their names."""
    return {one.name: one for one in kinds()}


@lru_cache(maxsize=1)
def _food_times() -> tuple[_FoodTime, ...]:
    out = []
    rows = toml_rows(
        "kitchen_times.toml", ("kind", "food", "minutes", "source"), ("kind", "food", "minutes")
    )
    for name, row in rows.items():
        where = f"kitchen_times.toml, {name}"
        if row["kind"] not in kind_named():
            raise BadTable(f"{where}: there is no work “{row['kind']}”", name)
        out.append(
            _FoodTime(
                kind=row["kind"],
                food=re.compile(row["food"]),
                minutes=_span(row, "minutes", where),
                source=row.get("source", COMMON_PRACTICE),
            )
        )
    return tuple(out)


def usual_alone(kind: Kind, foods: Sequence[Food]) -> tuple[Span, str]:
    """How long a kind of work goes on by itself for these foods, and whence that is known: the
    longest of theirs, the kind's own where none is known. [min]"""
    found = [
        next(
            (row for row in _food_times() if row.kind == kind.name and row.food.match(food.slug)),
            None,
        )
        for food in foods
    ]
    known = [row for row in found if row is not None]
    if not known:
        return kind.alone, COMMON_PRACTICE
    longest = max(known, key=lambda row: row.minutes.usual)
    return longest.minutes, longest.source
