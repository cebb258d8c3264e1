"""A dish read from its lines and steps, for the tests of the kitchen."""

from nutrition.prep.steps.reading import read_work
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon


def lines_of(*texts):
    return reckon(Recipe(tuple(texts), title="A dish", servings=4)).lines


def work_of(lines, steps, name="A dish", **more):
    return read_work(steps, lines_of(*lines), name, **more)


def by_text(work, start):
    """The one task whose words begin so."""
    found = [task for task in work.tasks if task.text.startswith(start)]
    if len(found) != 1:
        raise AssertionError(f"{start}: {[task.text for task in work.tasks]}")
    return found[0]


def comes_before(work, first, then):
    """Whether one task is done before another, by what waits for what."""
    first, waiting = by_text(work, first).number, [by_text(work, then).number]
    seen = set()
    while waiting:
        at = waiting.pop()
        for before in work.tasks[at].after:
            if before not in seen:
                seen.add(before)
                waiting.append(before)
    return first in seen
