"""Cooked beans that are bought dry: soaked the evening before, and cooked before what takes
them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from nutrition.composition.ingredient import Ingredient
from nutrition.prep.soaking import KIDNEY_BOIL_MIN, FromDry, from_dry
from nutrition.prep.steps.boiling import to_the_boil
from nutrition.prep.steps.task import Task, Worked, filled_in
from nutrition.prep.steps.work_kinds import NONE, Span
from nutrition.written.line import Line

# Cooked beans wait so long until they go in. Common practice, no source. [min]
COOKED_WAIT = 120.0
WHY = "the time is a usual one: bought dry, eaten cooked; common practice, no source"


def beans_first(work: Worked, lines: Sequence[Line]) -> Worked:
    """The work with the soaking and cooking of every line of cooked beans that the list buys
    dry."""
    out = list(work.tasks)
    for at, line in enumerate(lines):
        beans = _dry(line)
        if beans is None or any(one.kind == "soak" and at in one.lines for one in out):
            continue
        user = next((task for task in out if at in task.lines), None)
        user = user or next((task for task in out if not task.overnight), None)
        if user is not None:
            out = _before(out, user.number, _cooked(beans, line, at, len(out)))
    return replace(work, tasks=tuple(out))


def _dry(line: Line) -> FromDry | None:
    """The dry beans of a line of cooked ones; None for any other."""
    if line.food is None or not line.grams:
        return None
    found = from_dry([Ingredient(line.food, line.grams)])
    return found[0] if found and found[0].cooked_g else None


def _cooked(beans: FromDry, line: Line, at: int, number: int) -> list[Task]:
    """Soaking where they are soaked, boiling, draining; kidney beans boil as long as they must."""
    name = beans.dry.name.split(",")[0].lower()
    least, most = beans.minutes
    more = KIDNEY_BOIL_MIN if beans.boiled_hard else 0.0
    hard = f": {KIDNEY_BOIL_MIN:g} minutes hard first" if beans.boiled_hard else ""
    soaking = f"Soak {beans.dry_g:.0f} g {name}, dry, in plenty of water"
    soak = filled_in("soak", soaking, "counter", [at], WHY)
    boiling = f"Boil the {name} in fresh water until tender{hard}"
    boil = filled_in("simmer", boiling, "burner", [at], WHY)
    boil = replace(
        boil,
        alone=Span(least + more, (least + most) / 2 + more, most + more),
        boil=to_the_boil([replace(line, food=beans.dry, grams=beans.dry_g)]),
        waits=COOKED_WAIT,
    )
    drain = replace(
        filled_in("drain", f"Drain the {name}", "counter", [at], WHY), alone=NONE, waits=COOKED_WAIT
    )
    some = [soak, boil, drain] if beans.soaked else [boil, drain]
    return [
        replace(task, number=number + i, after=(number + i - 1,) if i else ())
        for i, task in enumerate(some)
    ]


def _before(tasks: Sequence[Task], user: int, more: Sequence[Task]) -> list[Task]:
    """The tasks with more of them, the last of which comes before the one that uses it."""
    out = [
        replace(task, after=(*task.after, more[-1].number)) if task.number == user else task
        for task in tasks
    ]
    return [*out, *more]
