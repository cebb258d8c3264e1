"""Dry kidney beans are soaked and boiled as long as they must, whatever is written: raw they
poison."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from nutrition.prep.soaking import KIDNEY, KIDNEY_BOIL_MIN, KIDNEY_SOAK_MIN
from nutrition.prep.steps.line_names import says_soaked
from nutrition.prep.steps.task import Task, filled_in
from nutrition.prep.steps.work_kinds import Span
from nutrition.written.line import Line

# What boils them; what may be done with them before that.
BOILED = "simmer"
BEFORE_BOILING = frozenset({"soak", "sprout", "cut", "rinse", "drain"})
# A pot of beans and water comes to the boil in so long. Common practice, no source. [min]
BOIL_UP = Span(6.0, 10.0, 15.0)


def kept_safe(tasks: Sequence[Task], lines: Sequence[Line]) -> list[Task]:
    """Dry kidney beans soak and boil as long as they must, whatever is written."""
    kidney = [
        at
        for at, line in enumerate(lines)
        if line.food is not None
        # soaked ones are reckoned as cooked and are raw
        and (line.food.state == "dry" or says_soaked(line.text))
        and KIDNEY.match(line.food.kind_slug)
    ]
    if not kidney:
        return list(tasks)
    out = []
    boiled = any(task.kind == "pressure_cook" and _has(task, tasks, kidney) for task in tasks)
    for task in tasks:
        mended = task
        if task.kind == "soak" and task.alone.least < KIDNEY_SOAK_MIN:
            mended = replace(
                task,
                alone=_at_least(task.alone, KIDNEY_SOAK_MIN),
                notes=(*task.notes, "kidney beans soak at least five hours: FDA, Bad Bug Book"),
            )
        elif task.kind == BOILED and not boiled and _has(task, tasks, kidney):
            boiled = True
            if task.alone.least < KIDNEY_BOIL_MIN:
                mended = replace(
                    task,
                    text=f"{task.text}: thirty minutes, in fresh water",
                    alone=_at_least(task.alone, KIDNEY_BOIL_MIN),
                    notes=(
                        *task.notes,
                        "kidney beans boil thirty minutes in fresh water, whatever is written: "
                        "undercooked they poison. FDA, Bad Bug Book",
                    ),
                )
        out.append(mended)
    return out if boiled else _boiled_first(out, kidney)


def _at_least(span: Span, least: float) -> Span:
    return Span(max(span.least, least), max(span.usual, least), max(span.most, least))


def _has(task: Task, tasks: Sequence[Task], lines: Sequence[int]) -> bool:
    """Whether a task is about some lines, or comes right after one that is."""
    seen = [task]
    while seen:
        one = seen.pop()
        if set(one.lines) & set(lines):
            return True
        seen += [tasks[at] for at in one.after]
    return False


def _boiled_first(tasks: Sequence[Task], kidney: Sequence[int]) -> list[Task]:
    """Where they would only be slow cooked, baked, steamed or eaten as sprouts, they are boiled
    before that."""
    user = next(
        (one for one in tasks if one.kind not in BEFORE_BOILING and _has(one, tasks, kidney)), None
    )
    before = tuple(
        one.number for one in tasks if one.kind in ("soak", "sprout") and _has(one, tasks, kidney)
    )
    why = (
        "no step boils them, and a slow cooker, an oven or steam leave their poison: "
        "FDA, Bad Bug Book"
    )
    text = "Boil the kidney beans hard for thirty minutes, in fresh water, and drain them"
    boil = replace(
        filled_in("simmer", text, "burner", kidney, why),
        number=len(tasks),
        alone=Span(KIDNEY_BOIL_MIN, KIDNEY_BOIL_MIN, KIDNEY_BOIL_MIN),
        boil=BOIL_UP,
        after=before,
        ahead=0.0,
    )
    return [
        *(
            replace(one, after=(*one.after, boil.number))
            if user is not None and one.number == user.number
            else one
            for one in tasks
        ),
        boil,
    ]
