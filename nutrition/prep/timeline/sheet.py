"""The prep sheet of a timeline: the evening before, the morning, then one list in the order of
work, with what waits for what, and what to put into the sink in between."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from nutrition.prep.steps.task import Worked
from nutrition.prep.timeline.clock import DAY
from nutrition.prep.timeline.schedule import Row

# A pause of so long is worth washing up in. Common practice, no source. [min]
PAUSE_MIN = 4
# What is free to be washed after a kind of work.
_BY_KIND = {"cut": "board and knife", "taken_out": "tray", "drain": "colander", "mash": "masher"}
LONGEST_WORDS = 60


@dataclass(frozen=True, kw_only=True)
class SheetLine:
    """A step of the sheet: what it waits for, and what is washed up after it until the next."""

    row: Row
    waits_for: str
    sink: str


@dataclass(frozen=True, kw_only=True)
class SheetPart:
    """A stretch of work on one day: how many days before the last, in the evening or the morning
    where it is before the day itself, and its steps."""

    days_before: int
    when: str
    lines: tuple[SheetLine, ...]


def sheet_of(rows: Sequence[Row], works: Mapping[str, Worked]) -> list[SheetPart]:
    """The steps in stretches, each in the order of work."""
    parts: dict[tuple[int, str], list[Row]] = {}
    for row in rows:
        parts.setdefault(_part(row), []).append(row)
    return [
        SheetPart(days_before=-day, when=when, lines=tuple(_lines(own, works)))
        for (day, when), own in sorted(parts.items(), key=lambda one: one[1][0].start)
    ]


def _part(row: Row) -> tuple[int, str]:
    """The day of a step, and the part of it where it is before the day of the session."""
    day = row.start // DAY
    if day >= 0:
        return 0, ""
    return day, "evening" if row.start % DAY >= DAY // 2 else "morning"


def _lines(rows: Sequence[Row], works: Mapping[str, Worked]) -> list[SheetLine]:
    out: list[SheetLine] = []
    free_at = sorted(
        (row.end, name) for row in rows if (name := _washed(row, rows, works)) is not None
    )
    busy = sorted((row.start, row.start + row.hands) for row in rows if row.hands)
    for row in rows:
        sink: list[str] = []
        if row.hands and _free_after(row, busy) >= PAUSE_MIN:
            now = row.start + row.hands
            sink = list(dict.fromkeys(name for at, name in free_at if at <= now))
            free_at = [one for one in free_at if one[0] > now]
        out.append(SheetLine(row=row, waits_for=_waits_for(row, works), sink=", ".join(sink)))
    return out


def _free_after(row: Row, busy: Sequence[tuple[int, int]]) -> int:
    """How long the hands are free after a step. [min]"""
    end = row.start + row.hands
    if any(start < end < until for start, until in busy):
        return 0
    return next((start - end for start, _until in busy if start >= end), 0)


def _washed(row: Row, rows: Sequence[Row], works: Mapping[str, Worked]) -> str | None:
    """What a step leaves to be washed once it is over: a pan only when nothing more is done in
    it."""
    if row.kind in _BY_KIND:
        return _BY_KIND[row.kind]
    if row.place == "blender":
        again = any(one.washed_before and one.start >= row.end for one in rows)
        return None if again else "blender"
    work = works.get(row.dish)
    if row.place != "burner" or work is None or not 0 <= row.task < len(work.tasks):
        return None
    last = all(one.end <= row.end for one in rows if (one.dish, one.task) == (row.dish, row.task))
    goes_on = any(row.task in task.after and task.place == "burner" for task in work.tasks)
    return "pan" if last and not goes_on else None


def _waits_for(row: Row, works: Mapping[str, Worked]) -> str:
    """What a step waits for besides the one right before it, in its words."""
    work = works.get(row.dish)
    if work is None or row.part > 0 or not 0 <= row.task < len(work.tasks):
        return ""
    names = [work.tasks[at].text for at in work.tasks[row.task].after if at < len(work.tasks)]
    return "; ".join(_short(name) for name in names) if len(names) > 1 else ""


def _short(words: str) -> str:
    return words if len(words) <= LONGEST_WORDS else f"{words[: LONGEST_WORDS - 1].rstrip()}…"
