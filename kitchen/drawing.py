"""The timeline drawn: lanes for hands, burners, oven shelves, the blender and what waits, each step
a bar with its dish's letter. Geometry only; the template draws it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from string import ascii_uppercase

from nutrition.prep.timeline.clock import clock
from nutrition.prep.timeline.schedule import Row, Timeline

# The picture's own measures, in units of its view box.
WIDTH, LEFT, RIGHT, TOP, LANE, GAP = 1060, 84, 26, 28, 32, 5
# A letter of the text in a bar takes so much, and a bar narrower than this has its dish's letter
# alone.
LETTER, LEAST_NAMED, LEAST_LETTERED = 7.4, 62, 14
# Every so many minutes a line; a longer session has them farther apart. [min]
TICKS = (5, 10, 15, 30, 60)
MOST_TICKS = 16
LANE_NAMES = {"burner": "Burner", "oven": "Oven", "blender": "Blender", "waits": "Waits"}


@dataclass(frozen=True, kw_only=True)
class Bar:
    """A step in its lane: where, its dish's letter, the words that fit into it and all of them, and
    what it is moved by: its dish and task, and its start. [min]"""

    x: float
    y: float
    width: float
    letter: str
    words: str
    title: str
    place: str
    key: str
    start: int
    moves: bool

    @property
    def lettered(self) -> bool:
        """Whether a letter fits into it."""
        return self.width > LEAST_LETTERED

    @property
    def letter_x(self) -> float:
        return self.x + min(self.width / 2, 13.0)

    @property
    def words_x(self) -> float:
        return self.x + 27.0

    @property
    def middle(self) -> float:
        return self.y + LANE / 2


@dataclass(frozen=True, kw_only=True)
class Lane:
    """A lane: its name, and where it is."""

    name: str
    y: float

    @property
    def middle(self) -> float:
        return self.y + LANE / 2


@dataclass(frozen=True, kw_only=True)
class Tick:
    """A time on the rail."""

    x: float
    words: str


@dataclass(frozen=True, kw_only=True)
class Picture:
    """The whole drawing."""

    height: float
    per_minute: float
    ticks: tuple[Tick, ...]
    lanes: tuple[Lane, ...]
    lane_width: int
    bars: tuple[Bar, ...]
    heats: tuple[Tick, ...]
    width: int = WIDTH
    left: int = LEFT
    top: int = TOP
    lane: int = LANE


def letters_of(keys: Sequence[str]) -> dict[str, str]:
    """A letter for each dish."""
    return {key: ascii_uppercase[at % 26] for at, key in enumerate(keys)}


@dataclass
class _Lanes:
    """The lanes of the picture as they come to be, by kind and number."""

    rows: list[tuple[str, int]] = field(default_factory=list)

    def y(self, kind: str, at: int) -> float:
        return TOP + self.rows.index((kind, at)) * (LANE + GAP)


def picture_of(found: Timeline, letters: Mapping[str, str], names: Mapping[str, str]) -> Picture:
    """A timeline's day drawn; what is of the evening before stands in words."""
    day = [row for row in found.rows if row.start >= min(found.begins, 0) and row.end > 0]
    day = [row for row in day if row.start >= found.begins - 30]
    begin = min((row.start for row in day), default=0)
    end = max((row.end for row in day), default=begin + 60)
    per_minute = (WIDTH - LEFT - RIGHT) / max(end - begin, 30)

    def x(minute: int) -> float:
        return LEFT + (minute - begin) * per_minute

    lanes = _Lanes()
    waits = _stacked([row for row in day if _waits(row)])
    _count(lanes, "hands", [row.cook for row in day if row.hands])
    for place in ("burner", "oven", "blender"):
        _count(
            lanes, place, [row.lane for row in day if row.place == place and row.kind != "preheat"]
        )
    _count(lanes, "waits", [lane for _row, lane in waits])
    bars = []
    for row in day:
        if row.hands:
            bars.append(
                _bar(row, lanes.y("hands", row.cook), x, per_minute, letters, names, hands=True)
            )
        if row.place in ("burner", "oven", "blender") and row.kind != "preheat":
            bars.append(_bar(row, lanes.y(row.place, row.lane), x, per_minute, letters, names))
    bars += [
        _bar(row, lanes.y("waits", lane), x, per_minute, letters, names) for row, lane in waits
    ]
    heats = [
        Tick(x=x(row.end), words=f"{row.celsius} °C")
        for row in day
        if row.kind == "preheat" and ("oven", 0) in lanes.rows
    ]
    return Picture(
        height=TOP + len(lanes.rows) * (LANE + GAP),
        per_minute=per_minute,
        ticks=_ticks(begin, end, x),
        lanes=tuple(
            Lane(name=_named(kind, at, lanes), y=lanes.y(kind, at)) for kind, at in lanes.rows
        ),
        lane_width=WIDTH - LEFT - RIGHT,
        bars=tuple(bars),
        heats=tuple(heats),
    )


def _waits(row: Row) -> bool:
    """Whether a step goes on by itself beside the stove."""
    return (
        row.place in ("counter", "refrigerator", "freezer") and row.end - row.start - row.hands >= 3
    )


def _stacked(rows: Sequence[Row]) -> list[tuple[Row, int]]:
    """What waits, each in the first row that is free."""
    free: list[int] = []
    out = []
    for row in rows:
        at = next((i for i, until in enumerate(free) if until <= row.start), len(free))
        if at == len(free):
            free.append(0)
        free[at] = row.end
        out.append((row, at))
    return out


def _count(lanes: _Lanes, kind: str, used: Sequence[int]) -> None:
    lanes.rows += [(kind, at) for at in range(max(used, default=-1) + 1)]


def _named(kind: str, at: int, lanes: _Lanes) -> str:
    several = sum(1 for one, _at in lanes.rows if one == kind) > 1
    if kind == "hands":
        return f"Cook {at + 1}" if several else "Hands"
    name = LANE_NAMES[kind]
    if kind == "waits":
        return name if at == 0 else ""
    return f"{name} {at + 1}" if several else name


def _bar(row, y, x, per_minute, letters, names, hands: bool = False) -> Bar:
    minutes = row.hands if hands else row.end - row.start
    width = max(minutes * per_minute - 1.0, 3.0)
    room = int((width - 30) / LETTER)
    heat = f" at {row.celsius} °C" if row.celsius else ""
    words = "" if width < LEAST_NAMED else _cut(f"{row.text}", room)
    name = names.get(row.dish, "")
    return Bar(
        x=x(row.start),
        y=y,
        width=width,
        letter=letters.get(row.dish, ""),
        words=words,
        title=f"{clock(row.start)} to {clock(row.start + minutes)}: {name}: {row.text}{heat}",
        place="hands" if hands else row.place,
        key=f"{row.dish} {row.task}",
        start=row.start,
        moves=row.part == 0
        and row.task >= 0
        and row.kind not in ("wash", "taken_out", "taken_off"),
    )


def _cut(words: str, room: int) -> str:
    if room < 4:
        return ""
    return words if len(words) <= room else f"{words[: room - 1].rstrip()}…"


def _ticks(begin: int, end: int, x) -> tuple[Tick, ...]:
    step = next((one for one in TICKS if (end - begin) / one <= MOST_TICKS), TICKS[-1])
    first = -(-begin // step) * step
    return tuple(Tick(x=x(at), words=clock(at)) for at in range(first, end + 1, step))
