"""What a day is to be warned of: by itself, and beside the days planned around it."""

from __future__ import annotations

from datetime import date, timedelta

from clients.plan.cautions import Told, of_foods
from clients.plan.in_force import Plan
from nutrition.safety.situations import day_numbers, week_numbers
from planner.day import ReckonedDay, planned_days
from planner.models import Day

AROUND = timedelta(days=3)


def around(on: date) -> tuple[date, date]:
    """The days within three of a date, at the edges of the calendar too."""
    edges = timedelta(days=(on - date.min).days), timedelta(days=(date.max - on).days)
    return on - min(AROUND, edges[0]), on + min(AROUND, edges[1])


def caution_numbers(day: Day, reckoned: ReckonedDay) -> dict[str, float]:
    """What the cautions look at: this day, and the days planned within three of it."""
    taken = reckoned.supplements
    near = list(day.client.days.filter(date__range=around(day.date)).exclude(pk=day.pk))
    week = [reckoned.planned(), *planned_days(near, taken)]
    return day_numbers(reckoned.planned()) | week_numbers(week, reckoned.supplements)


def told_of(plan: Plan, day: Day, reckoned: ReckonedDay) -> Told:
    """What is to be said of a day for its client."""
    numbers = caution_numbers(day, reckoned)
    return of_foods(plan, reckoned.ingredients, numbers, reckoned.unread)
