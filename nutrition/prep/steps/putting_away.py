"""What is done with a dish that is not eaten at once: cooled fast and divided into containers."""

from __future__ import annotations

from dataclasses import replace

from nutrition.prep.steps.task import Task, Worked
from nutrition.prep.steps.work_kinds import NONE, Span

# Dividing takes so long to begin with, and so long a container; at the least and the most half and
# twice of it. Common practice, no source. [min]
BEGINS, EACH = 1.0, 0.75


def put_away(work: Worked, containers: int) -> Worked:
    """The work with dividing it into so many containers at its end; the same for none."""
    if containers < 1 or not work.tasks:
        return work
    usual = BEGINS + EACH * containers
    many = f"{containers} container{'s' if containers > 1 else ''}"
    text = f"Weigh it, divide it into {many}{', lids ajar until cold' if work.hot else ''}"
    last = Task(
        number=len(work.tasks),
        text=text,
        kind="add",
        step=None,
        place="counter",
        hands=Span(usual * 0.5, usual, usual * 2.0),
        alone=NONE,
        after=work.ends,
        waits=120.0,
    )
    return replace(work, tasks=(*work.tasks, last))
