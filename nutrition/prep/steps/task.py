"""A piece of kitchen work as it was read, and a dish as all of its pieces."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nutrition.prep.steps.heat import Heat
from nutrition.prep.steps.work_kinds import NONE, Place, Span, kind_named

# What takes so long by itself is begun the evening before. Common practice, no source. [min]
OVERNIGHT_MIN = 300.0
DAY_MIN = 1440.0


@dataclass(frozen=True, kw_only=True)
class Event:
    """What is done within something that goes on by itself: so long before its end, how long it
    takes the hands [min], and its words."""

    before_end: float
    hands: float
    text: str


@dataclass(frozen=True, kw_only=True)
class Task:
    """A piece of work of a dish. [min], [h]

    `step` is the place of the written step, None where it was filled in; `lines` are the places of
    the lines it is about. The hands are there for `hands`, then it comes to the boil, then goes on
    `alone`. It begins after the tasks in `after`, and within `gap` of their ends where that is
    given. What comes of it may `waits` so long; past that it is spoiled where it is `strict`.
    `sweet` is how it leaves a
    blender, `trays` how many shelves it takes. `notes` say what was filled in or put right.
    """

    number: int
    text: str
    kind: str
    step: int | None
    place: Place
    hands: Span
    alone: Span
    lines: tuple[int, ...] = ()
    boil: Span = NONE
    heat: Heat | None = None
    after: tuple[int, ...] = ()
    gap: float | None = None
    waits: float = 60.0
    strict: bool = False
    hot: bool = False
    ahead: float = 0.0
    events: tuple[Event, ...] = ()
    sweet: bool = False
    trays: int = 1
    stated: bool = False
    sure: bool = True
    notes: tuple[str, ...] = ()

    @property
    def overnight(self) -> bool:
        """Whether it goes on through a night."""
        return self.alone.least >= OVERNIGHT_MIN

    @property
    def minutes(self) -> Span:
        """All of it. [min]"""
        return self.hands.plus(self.boil).plus(self.alone)


@dataclass(frozen=True, kw_only=True)
class Worked:
    """The work of a dish, in an order in which it can be done; `hot`: it is eaten hot. `waits` is
    how long it may then stand, past which it is spoiled where `strict`. [min] `ends` are the tasks
    that nothing follows, `unread` the pieces in which no work was seen, `remarks` what is told and
    no work."""

    tasks: tuple[Task, ...]
    hot: bool
    waits: float
    strict: bool
    unread: tuple[str, ...] = ()
    remarks: tuple[str, ...] = ()

    @property
    def ends(self) -> tuple[int, ...]:
        return ends_of(self.tasks)

    @property
    def hands(self) -> Span:
        """What the hands do, together. [min]"""
        total = NONE
        for task in self.tasks:
            total = total.plus(task.hands)
        return total


def ends_of(tasks: Sequence[Task]) -> tuple[int, ...]:
    """The tasks that nothing follows."""
    before = {one for task in tasks for one in task.after}
    return tuple(task.number for task in tasks if task.number not in before)


def filled_in(kind_name: str, text: str, place: Place, lines: Sequence[int], why: str) -> Task:
    """Work that no step says, of its kind's usual times, and why it is there."""
    kind = kind_named()[kind_name]
    return Task(
        number=0,
        text=text,
        kind=kind_name,
        step=None,
        place=place,
        hands=kind.hands,
        alone=kind.alone,
        lines=tuple(lines),
        waits=kind.waits,
        ahead=kind.ahead,
        notes=(why,),
    )


def followers(tasks: Sequence[Task]) -> dict[int, list[int]]:
    """For each task those that come right after it."""
    out: dict[int, list[int]] = {task.number: [] for task in tasks}
    for task in tasks:
        for before in task.after:
            out[before].append(task.number)
    return out
