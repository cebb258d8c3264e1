"""Spans and orders of work in words."""

from django import template

from nutrition.prep.steps.task import Task, Worked
from nutrition.prep.steps.work_kinds import Span

register = template.Library()


@register.filter
def minutes(value: Span) -> str:
    """ "18 min (15 to 20)", "none" """
    if value.most <= 0:
        return "none"
    if value.most - value.least < 0.5:
        return f"{value.usual:.0f} min"
    return f"{value.usual:.0f} min ({value.least:.0f} to {value.most:.0f})"


@register.filter
def waits_for(task: Task, work: Worked) -> str:
    """What a task waits for, in their words."""
    return "; ".join(work.tasks[at].text for at in task.after)
