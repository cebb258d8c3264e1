"""What the writer of the steps left open and a cook does nevertheless: cuts what the lines say is
cut, soaks dry beans, puts sour in last and garlic late."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace

from nutrition.prep.soaking import SOAKED
from nutrition.prep.steps.cutting import cut_waits, cutting_minutes
from nutrition.prep.steps.line_names import says_all
from nutrition.prep.steps.task import Event, Task
from nutrition.prep.steps.work_kinds import NONE, kind_named, usual_alone
from nutrition.written.line import Line

# Sour in a pot that cooks so long turns bitter or keeps things hard; garlic in a simmer of so long
# goes in for its last minutes. The kitchen notes; common practice, no source. [min]
SOUR_FROM_MIN, GARLIC_FROM_MIN, GARLIC_LAST_MIN = 10.0, 25.0, 10.0
SOUR = re.compile(r".*vinegar|lemon-juice|lime-juice|orange-juice|.*-zest")
GARLIC = re.compile(r"garlic-raw")


def _shifted(tasks: Sequence[Task], by: int) -> list[Task]:
    """The same tasks with other numbers, so that some may stand before them."""
    return [
        replace(one, number=one.number + by, after=tuple(other + by for other in one.after))
        for one in tasks
    ]


def sour_last(tasks: Sequence[Task], lines: Sequence[Line]) -> list[Task]:
    """Where everything goes into one long-cooking pot, what is sour goes in last, and garlic late.
    Only where the writer did not say it otherwise."""
    out = list(tasks)
    for task in tasks:
        if not says_all(task.text) or task.alone.usual < SOUR_FROM_MIN or task.place == "blender":
            continue
        sour = [at for at in task.lines if _is(lines[at], SOUR)]
        garlic = [at for at in task.lines if _is(lines[at], GARLIC)]
        if task.alone.usual >= GARLIC_FROM_MIN and garlic:
            event = Event(before_end=GARLIC_LAST_MIN, hands=1.0, text="Garlic in")
            out[task.number] = replace(
                out[task.number],
                events=(*out[task.number].events, event),
                notes=(*task.notes, "garlic late: its scent boils away"),
            )
        if sour:
            kept = tuple(at for at in task.lines if at not in sour)
            out[task.number] = replace(out[task.number], lines=kept)
            out = _with_sour(out, task, tuple(sour), lines)
    return out


def _is(line: Line, pattern: re.Pattern[str]) -> bool:
    return line.food is not None and pattern.match(line.food.slug) is not None


def _with_sour(
    tasks: Sequence[Task], task: Task, sour: tuple[int, ...], lines: Sequence[Line]
) -> list[Task]:
    """The sour lines in a task of their own, after everything that follows the long one."""
    names = ", ".join(lines[at].text for at in sour)
    before = {one for other in tasks for one in other.after}
    ends = tuple(one.number for one in tasks if one.number not in before)
    add = kind_named()["add"]
    last = Task(
        number=len(tasks),
        text=f"Last, off the heat: {names}",
        kind="add",
        step=None,
        place="counter",
        hands=add.hands,
        alone=NONE,
        lines=sour,
        after=ends,
        waits=add.waits,
        hot=task.hot,
        notes=("sour last: in a long simmer it turns bitter",),
    )
    return [*tasks, last]


def soaked_first(tasks: Sequence[Task], lines: Sequence[Line]) -> list[Task]:
    """Dry beans that no step soaks are soaked the evening before."""
    said = " ".join(task.text for task in tasks)
    if re.search(r"\bsoak|\bpressure|\bsprout|\bquick[- ]soak", said, re.I):
        return list(tasks)
    dry = [
        at
        for at, line in enumerate(lines)
        if line.food is not None
        and line.food.state == "dry"
        and line.food.group in ("legume", "soy")
        and SOAKED.match(line.food.kind_slug)
    ]
    if not dry:
        return list(tasks)
    kind = kind_named()["soak"]
    foods = [food for at in dry if (food := lines[at].food) is not None]
    alone, _source = usual_alone(kind, foods)
    soak = Task(
        number=0,
        text=f"Soak {', '.join(food.name.lower() for food in foods)} in plenty of water",
        kind="soak",
        step=None,
        place="counter",
        hands=kind.hands,
        alone=alone,
        lines=tuple(dry),
        waits=kind.waits,
        ahead=kind.ahead,
        notes=("dry beans, and no step soaks them: filled in. Common practice, no source",),
    )
    rest = [
        replace(one, after=tuple(dict.fromkeys((*one.after, 0))))
        if set(one.lines) & set(dry) and one.place == "burner"
        else one
        for one in _shifted(tasks, 1)
    ]
    if rest and not any(0 in one.after for one in rest):
        rest[0] = replace(rest[0], after=(*rest[0].after, 0))
    return [soak, *rest]


def cut_first(tasks: Sequence[Task], lines: Sequence[Line]) -> list[Task]:
    """What the lines say is cut, before the step that takes it; where no step says so."""
    said = {at for task in tasks if task.kind in ("cut", "rinse", "drain") for at in task.lines}
    firsts: dict[int, list[int]] = {}
    for at, line in enumerate(lines):
        if at in said or cutting_minutes(line) is None:
            continue
        user = next((task for task in tasks if at in task.lines), None)
        if user is None:
            user = next((task for task in tasks if task.kind not in ("soak", "sprout")), None)
        if user is not None:
            firsts.setdefault(user.number, []).append(at)
    cuts: list[Task] = []
    out = _shifted(tasks, len(firsts))
    for number, (user_number, own) in enumerate(firsts.items()):
        kind = kind_named()["cut"]
        total = NONE
        for at in own:
            total = total.plus(cutting_minutes(lines[at]) or NONE)
        cuts.append(
            Task(
                number=number,
                text="Get ready: " + "; ".join(lines[at].text for at in own),
                kind="cut",
                step=None,
                place="counter",
                hands=total,
                alone=NONE,
                lines=tuple(own),
                waits=cut_waits([lines[at] for at in own]),
                ahead=kind.ahead,
                notes=("from the lines; the time is a usual one: common practice, no source",),
            )
        )
        at = user_number + len(firsts)
        index = next(i for i, one in enumerate(out) if one.number == at)
        out[index] = replace(out[index], after=(*out[index].after, number))
    return [*cuts, *out]
