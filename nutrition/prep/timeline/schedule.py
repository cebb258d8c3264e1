"""A timeline that was found: every step with its times, what is washed and heated in between, and
when each dish is ready."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field


@dataclass(frozen=True, kw_only=True)
class Row:
    """One step of the timeline, in minutes from the midnight before the dishes are ready. `dish`
    and `task` are where it comes from, the dish empty for what is of the whole kitchen. `hands` are
    its minutes of work, at its beginning. `part`: 0 for the task itself, more for what is done
    within it. [min], [degrees Celsius]"""

    dish: str
    name: str
    task: int
    part: int
    text: str
    start: int
    end: int
    hands: int
    place: str
    celsius: int | None = None
    washed_before: bool = False
    kind: str = ""
    notes: tuple[str, ...] = ()
    lines: tuple[int, ...] = ()
    cook: int = 0
    lane: int = 0


@dataclass(frozen=True, kw_only=True)
class Missing:
    """A dish that does not fit, and why."""

    dish: str
    name: str
    why: str


@dataclass(frozen=True, kw_only=True)
class Help:
    """A change with which what does not fit would; `kind` is its short name, `minutes` how much
    earlier or later, where it is that. [min]"""

    kind: str
    text: str
    minutes: int = 0
    dish: str = ""


@dataclass(frozen=True, kw_only=True)
class Timeline:
    """What was found: the steps by time, when each dish is ready, what does not fit and what would
    make it. `proved` where nothing is better by what counts; else `within` says by how much it
    could be. `late` is by how much all is later than wanted. [min]"""

    rows: tuple[Row, ...]
    ready: dict[str, int]
    missing: tuple[Missing, ...] = ()
    helps: tuple[Help, ...] = ()
    proved: bool = False
    within: dict[str, float] = field(default_factory=dict)
    late: int = 0

    def of(self, dish: str) -> list[Row]:
        """The steps of one dish."""
        return [row for row in self.rows if row.dish == dish]

    @property
    def begins(self) -> int:
        """When the first work of the day begins. [min]"""
        day = [row.start for row in self.rows if row.start >= 0 and row.kind != "preheat"]
        return min(day, default=0)

    @property
    def hands(self) -> int:
        """The work of hands in all. [min]"""
        return sum(row.hands for row in self.rows)


def by_time(rows: Sequence[Row]) -> tuple[Row, ...]:
    """Steps in the order of their times."""
    return tuple(sorted(rows, key=lambda row: (row.start, row.end, row.dish, row.task, row.part)))
