"""The work of a recipe: read from its method, as somebody put it right, with the times it took."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from kitchen.models import StepReading, StepTime
from nutrition.composition.ingredient import plain_name
from nutrition.prep.pot_weighed import learned
from nutrition.prep.steps.corrections import Correction, correction_in
from nutrition.prep.steps.dry_beans import beans_first
from nutrition.prep.steps.putting_away import put_away
from nutrition.prep.steps.reading import read_work
from nutrition.prep.steps.task import Worked
from nutrition.recipe.method_steps import split
from nutrition.recipe.scaling import ScaledLine, scale
from nutrition.written.line import Line
from recipes.facts import facts_of
from recipes.models import Recipe


def corrections_of(recipe: Recipe) -> dict[str, Correction]:
    """What was put right of a recipe's steps, by their words."""
    return {
        row.words.lower(): correction_in(row.data)
        for row in StepReading.objects.filter(recipe=recipe)
    }


def times_of(recipe: Recipe) -> dict[str, list[float]]:
    """How long the pieces of a recipe's work took, each time they were timed. [min]"""
    out: dict[str, list[float]] = {}
    for row in StepTime.objects.filter(recipe=recipe):
        out.setdefault(row.words.lower(), []).append(row.minutes)
    return out


def as_learned(
    right: Mapping[str, Correction], times: Mapping[str, list[float]]
) -> dict[str, Correction]:
    """What was put right, and the median of the measured times where nobody set one. [min]"""
    out = dict(right)
    for words, minutes in times.items():
        own = out.get(words, Correction())
        if own.alone is None:
            out[words] = replace(own, alone=learned(minutes))
    return out


def lines_for(recipe: Recipe, factor: float) -> list[Line]:
    """The lines of a recipe made so many times larger: more takes longer to cut and to boil."""
    return [
        replace(line, grams=None if line.grams is None else line.grams * factor)
        for line in facts_of(recipe).lines
    ]


def work_of(recipe: Recipe, factor: float = 1.0, containers: int = 0) -> Worked:
    """The work of a recipe made so many times larger, beans from dry, and what comes of it put into
    so many containers."""
    lines = lines_for(recipe, factor)
    right = as_learned(corrections_of(recipe), times_of(recipe))
    work = read_work(split(recipe.method), lines, recipe.title, recipe.role, right)
    if factor != 1.0:
        work = _with_amounts(work, recipe, factor)
    return put_away(beans_first(work, lines), containers)


def _with_amounts(work: Worked, recipe: Recipe, factor: float) -> Worked:
    """What is got ready in the amounts of this pot, in place of the recipe's."""
    facts = facts_of(recipe)
    try:
        scaled = {one.line.text: one for one in scale(facts, factor, facts.recipe.servings).lines}
    except ValueError:
        return work
    tasks = []
    for task in work.tasks:
        if task.kind == "cut" and task.step is None:
            names = [
                _amount(facts.lines[at], scaled.get(facts.lines[at].text)) for at in task.lines
            ]
            task = replace(task, text="Get ready: " + "; ".join(names))
        tasks.append(task)
    return replace(work, tasks=tuple(tasks))


def _amount(line: Line, scaled: ScaledLine | None) -> str:
    """ "1 ¾ medium carrots, diced" of a line that says "2 medium carrots, diced"."""
    if scaled is None or line.food is None:
        return line.text
    how = line.text.partition(",")[2].strip()
    words = scaled.words or f"{scaled.used_g:.0f} g"
    return f"{words} {plain_name(line.food).lower()}{f', {how}' if how else ''}"
