"""A task as the planning sees it: whole minutes, what the hands do when within it, and what is
taken out or off at its end."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from nutrition.prep.steps.task import Task, followers
from nutrition.prep.steps.work_kinds import NONE, Span
from nutrition.prep.timeline.ovens import choices

# Taking a tray out or a pot off. Common practice, no source. [min]
TAKEN_MIN = 1
# What was boiling is not left on for longer than so. Common practice, no source. [min]
HOT_MOST_WAIT = 30.0
TAKEN_OUT, TAKEN_OFF = "taken_out", "taken_off"


@dataclass(frozen=True)
class Shape:
    """How a task runs at one heat of the oven (0 for none): its minutes, and the hands' parts of
    them, each from when and how long. [min], [degrees Celsius]"""

    celsius: int
    minutes: int
    hands: tuple[tuple[int, int], ...]


def with_ends(tasks: Sequence[Task]) -> list[Task]:
    """The tasks, and after each tray that it is taken out, after each last pot that it is taken
    off."""
    out = list(tasks)
    after = followers(tasks)
    for task in tasks:
        next_ones = [out[one] for one in after[task.number]]
        if task.place == "oven" and not any(one.place == "oven" for one in next_ones):
            kind, text = TAKEN_OUT, "Out of the oven"
        elif task.place == "burner" and task.alone.usual > 0 and not next_ones:
            kind, text = TAKEN_OFF, "Off the heat"
        else:
            continue
        end = Task(
            number=len(out),
            text=text,
            kind=kind,
            step=None,
            place="counter",
            hands=Span(TAKEN_MIN, TAKEN_MIN, TAKEN_MIN),
            alone=NONE,
            after=(task.number,),
            gap=0.0,
            waits=task.waits,
            strict=task.strict,
            hot=task.hot,
        )
        for one in next_ones:
            changed = tuple(end.number if at == task.number else at for at in one.after)
            out[one.number] = replace(out[one.number], after=changed)
        out.append(end)
    return out


def whole(minutes: float, least: int = 0) -> int:
    """Whole minutes, never fewer than it takes. [min]"""
    return max(math.ceil(minutes - 1e-9), least)


def hands_of(task: Task) -> int:
    """What the hands do at its beginning. [min]"""
    return whole(round(task.hands.usual), 1 if task.hands.usual > 0 else 0)


def alone_of(task: Task) -> int:
    """How long it then goes on by itself: what stands overnight at the least, for it may stand
    longer. [min]"""
    return whole(task.alone.least if task.overnight else task.alone.usual)


def shapes_of(task: Task) -> list[Shape]:
    """How a task may run: one way, but for a tray that takes several heats; the written one
    first."""
    begins = hands_of(task) + whole(task.boil.usual)
    alone = alone_of(task)
    heats = [(0, alone)]
    if task.heat is not None:
        heats = choices(task.alone.usual, task.heat.celsius, task.heat.spread)
    return [_shape(task, begins, minutes, celsius) for celsius, minutes in heats]


def _shape(task: Task, begins: int, alone: int, celsius: int) -> Shape:
    """A task with its hands at the beginning and at its events, which move with the length."""
    hands = [(0, hands_of(task))] if hands_of(task) else []
    usual = task.alone.usual or 1.0
    # the last minutes stay the last minutes; half time stays half time
    last_end = hands_of(task)
    for event in task.events:
        before = event.before_end if event.before_end <= 10 else event.before_end * alone / usual
        at = max(begins + alone - whole(before), last_end)
        length = whole(event.hands, 1)
        hands.append((at, length))
        last_end = at + length
    return Shape(celsius=celsius, minutes=max(begins + alone, last_end), hands=tuple(hands))


def most_wait(task: Task) -> int:
    """How long what comes of a task may wait before it is used. [min]"""
    if task.strict:
        return whole(task.waits)
    if task.hot:
        return whole(max(task.waits, HOT_MOST_WAIT))
    extra = task.alone.most - task.alone.least if task.overnight else 0.0
    return whole(task.waits + extra)
