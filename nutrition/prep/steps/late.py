"""What goes in late where everything goes into one pot or pan and the writer left its order open:
sour and sulfur salt off the heat, garlic for the last minutes, salt once mushrooms are brown.

The order is that of kitchens; common practice, no source."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace

from nutrition.prep.steps.line_names import says_all
from nutrition.prep.steps.task import Event, Task, ends_of, filled_in
from nutrition.prep.steps.work_kinds import Place
from nutrition.written.line import Line

# Sour in a pot that cooks so long turns bitter or keeps things hard; garlic in a simmer of so long
# goes in for its last minutes. [min]
SOUR_FROM_MIN, GARLIC_FROM_MIN, GARLIC_LAST_MIN = 10.0, 25.0, 10.0
SOUR = re.compile(r".*vinegar|lemon-juice|lime-juice|orange-juice|.*-zest")
GARLIC = re.compile(r"garlic-raw")
SULFUR = re.compile(r"black-salt")
# What draws water out of mushrooms before they are brown.
SALTY = re.compile(r"(?:.*-)?salt(?:-iodized)?$|.*soy-sauce|tamari(?:-|$)")
MUSHROOM = re.compile(r".*mushrooms?-(?:.*-)?raw")
BROWNING = frozenset({"fry", "crisp"})
COUNTER: Place = "counter"
COLD = frozenset({"blender", "counter", "refrigerator", "freezer"})


@dataclass(frozen=True, kw_only=True)
class Later:
    """Lines that leave a task for one of their own after it, with its words and its reason: off the
    heat after everything else, or where the task is done."""

    lines: tuple[int, ...]
    words: str
    why: str
    off_the_heat: bool = True


def late_last(tasks: Sequence[Task], lines: Sequence[Line]) -> list[Task]:
    """The tasks, with what goes in late in its place. Only where the writer did not say it
    otherwise."""
    out = list(tasks)
    for task in tasks:
        if not says_all(task.text) or task.place in COLD:
            continue
        garlic = _of(task, lines, GARLIC)
        if task.alone.usual >= GARLIC_FROM_MIN and garlic:
            event = Event(before_end=GARLIC_LAST_MIN, hands=1.0, text="Garlic in")
            out[task.number] = replace(
                out[task.number],
                events=(*out[task.number].events, event),
                notes=(*task.notes, "garlic late: its scent boils away"),
            )
        for later in _laters(task, lines):
            kept = tuple(at for at in out[task.number].lines if at not in later.lines)
            out[task.number] = replace(out[task.number], lines=kept)
            out = _with(out, task, later, lines)
    return out


def _of(task: Task, lines: Sequence[Line], pattern: re.Pattern[str]) -> tuple[int, ...]:
    return tuple(at for at in task.lines if _is(lines[at], pattern))


def _is(line: Line, pattern: re.Pattern[str]) -> bool:
    return line.food is not None and pattern.match(line.food.slug) is not None


def _laters(task: Task, lines: Sequence[Line]) -> list[Later]:
    out = []
    salt = _of(task, lines, SALTY)
    sulfur = _of(task, lines, SULFUR)
    if task.kind in BROWNING and salt and _of(task, lines, MUSHROOM):
        why = "salt after browning: before it, mushrooms weep and stew"
        out.append(Later(lines=salt, words="Once brown", why=why, off_the_heat=False))
    if task.alone.usual >= SOUR_FROM_MIN and (sour := _of(task, lines, SOUR)):
        why = "sour last: in a long simmer it turns bitter"
        out.append(Later(lines=sour, words="Last, off the heat", why=why))
    if sulfur:
        why = "sulfur salt after the heat: its smell boils away"
        out.append(Later(lines=sulfur, words="Last, off the heat", why=why))
    return out


def _with(tasks: Sequence[Task], task: Task, later: Later, lines: Sequence[Line]) -> list[Task]:
    """The late lines in a task of their own: off the heat after everything that follows, else
    right after the task and before what follows it."""
    number = len(tasks)
    if later.off_the_heat:
        place, after, out = COUNTER, ends_of(tasks), list(tasks)
    else:
        place, after = task.place, (task.number,)
        out = [
            replace(one, after=tuple(number if at == task.number else at for at in one.after))
            for one in tasks
        ]
    text = f"{later.words}: {', '.join(lines[at].text for at in later.lines)}"
    last = filled_in("add", text, place, later.lines, later.why)
    return [*out, replace(last, number=number, after=after, hot=task.hot, ahead=0.0)]
