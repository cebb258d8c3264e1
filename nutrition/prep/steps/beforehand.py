"""What the writer of the steps left open and a cook does nevertheless: cuts what the lines say is
cut, and soaks dry beans."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace

from nutrition.composition.foods import Food
from nutrition.prep.soaking import SOAKED
from nutrition.prep.steps.cutting import cut_waits, cutting_minutes
from nutrition.prep.steps.durations import stated_in
from nutrition.prep.steps.line_names import says_soaked
from nutrition.prep.steps.task import Task, filled_in
from nutrition.prep.steps.work_kinds import NONE, Span, kind_named, usual_alone
from nutrition.written.line import Line


def _shifted(tasks: Sequence[Task], by: int) -> list[Task]:
    """The same tasks with other numbers, so that some may stand before them."""
    return [
        replace(one, number=one.number + by, after=tuple(other + by for other in one.after))
        for one in tasks
    ]


def soaked_first(tasks: Sequence[Task], lines: Sequence[Line]) -> list[Task]:
    """Dry beans that no step soaks are soaked the evening before."""
    said = " ".join(task.text for task in tasks)
    if re.search(r"\bsoak|\bpressure|\bsprout|\bquick[- ]soak", said, re.I):
        return list(tasks)
    told = [at for at, line in enumerate(lines) if says_soaked(line.text)]
    dry = told or [at for at, line in enumerate(lines) if _is_dry_bean(line)]
    foods = [food for at in dry if (food := lines[at].food) is not None]
    if not foods:
        return list(tasks)
    alone, _source = usual_alone(kind_named()["soak"], foods)
    times = [time for at in told if (time := stated_in(lines[at].text)) is not None]
    if times:
        longest = max(times, key=lambda one: one.usual)
        alone = Span(longest.least, longest.usual, longest.most)
    why = "the line says so" if told else "dry beans, and no step soaks them"
    text = f"Soak {', '.join(_plain(food) for food in foods)} in plenty of water"
    said_why = f"{why}: filled in. Common practice, no source"
    soak = replace(filled_in("soak", text, "counter", dry, said_why), alone=alone)
    rest = [
        replace(one, after=tuple(dict.fromkeys((*one.after, 0))))
        if set(one.lines) & set(dry) and (told or one.place == "burner")
        else one
        for one in _shifted(tasks, 1)
    ]
    if rest and not any(0 in one.after for one in rest):
        rest[0] = replace(rest[0], after=(*rest[0].after, 0))
    return [soak, *rest]


def _is_dry_bean(line: Line) -> bool:
    food = line.food
    return (
        food is not None
        and food.state == "dry"
        and food.group in ("legume", "soy")
        and SOAKED.match(food.kind_slug) is not None
    )


def _plain(food: Food) -> str:
    """What is put into the water: beans of a line that is reckoned cooked are dry."""
    return re.sub(r", (?:cooked|canned|boiled).*", "", food.name.lower())


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
        total = NONE
        for at in own:
            total = total.plus(cutting_minutes(lines[at]) or NONE)
        text = "Get ready: " + "; ".join(lines[at].text for at in own)
        why = "from the lines; the time is a usual one: common practice, no source"
        waits = cut_waits([lines[at] for at in own])
        cut = filled_in("cut", text, "counter", own, why)
        cuts.append(replace(cut, number=number, hands=total, alone=NONE, waits=waits))
        at = user_number + len(firsts)
        index = next(i for i, one in enumerate(out) if one.number == at)
        out[index] = replace(out[index], after=(*out[index].after, number))
    return [*cuts, *out]
