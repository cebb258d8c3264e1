"""Cooked beans that are bought dry: soaked the evening before, and cooked before what takes
them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from nutrition.composition.ingredient import Ingredient
from nutrition.prep.soaking import KIDNEY_BOIL_MIN, FromDry, from_dry
from nutrition.prep.steps.boiling import to_the_boil
from nutrition.prep.steps.task import Task, Worked
from nutrition.prep.steps.work_kinds import NONE, Span, kind_named
from nutrition.written.line import Line


def beans_first(work: Worked, lines: Sequence[Line]) -> Worked:
    """The work with the soaking and cooking of every line of cooked beans that the list buys
    dry."""
    out = list(work.tasks)
    for at, line in enumerate(lines):
        beans = _dry(line)
        if beans is None:
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
    """Soaking where they are soaked, and boiling; kidney beans as long as they must."""
    name = beans.dry.name.split(",")[0].lower()
    out = []
    if beans.soaked:
        soak = kind_named()["soak"]
        out.append(
            Task(
                number=number,
                text=f"Soak {beans.dry_g:.0f} g {name}, dry, in plenty of water",
                kind="soak",
                step=None,
                place="counter",
                hands=soak.hands,
                alone=soak.alone,
                lines=(at,),
                waits=soak.waits,
                ahead=soak.ahead,
                notes=("bought dry, eaten cooked; common practice, no source",),
            )
        )
    least, most = beans.minutes
    simmer = kind_named()["simmer"]
    hard = f": {KIDNEY_BOIL_MIN:g} minutes hard first" if beans.boiled_hard else ""
    more = KIDNEY_BOIL_MIN if beans.boiled_hard else 0.0
    dry_line = replace(line, food=beans.dry, grams=beans.dry_g)
    out.append(
        Task(
            number=number + len(out),
            text=f"Boil the {name} in fresh water until tender{hard}",
            kind="simmer",
            step=None,
            place="burner",
            hands=simmer.hands,
            alone=Span(least + more, (least + most) / 2 + more, most + more),
            lines=(at,),
            boil=to_the_boil([dry_line]),
            after=(number,) if out else (),
            waits=120.0,
            ahead=simmer.ahead,
            notes=(
                "bought dry, eaten cooked; the time is a usual one: common practice, no source",
            ),
        )
    )
    drain = kind_named()["drain"]
    out.append(
        Task(
            number=number + len(out),
            text=f"Drain the {name}",
            kind="drain",
            step=None,
            place="counter",
            hands=drain.hands,
            alone=NONE,
            lines=(at,),
            after=(number + len(out) - 1,),
            waits=120.0,
            ahead=drain.ahead,
            notes=(),
        )
    )
    return out


def _before(tasks: Sequence[Task], user: int, more: Sequence[Task]) -> list[Task]:
    """The tasks with more of them, the last of which comes before the one that uses it."""
    out = [
        replace(task, after=(*task.after, more[-1].number)) if task.number == user else task
        for task in tasks
    ]
    return [*out, *more]
