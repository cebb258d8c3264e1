"""The planner's days that are made from a week, and whether they were changed since."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from django.db import transaction
from django.urls import reverse

from clients.plan.versions import version_on
from planner.models import EATEN, Day, DayEntry, Eaten
from planner.origins import Origin
from practice.models import User
from week.models import MadeDay, Week, WeekEntry

# What of a row makes it what it is: its meal and dish, how much, and as it was planned.
HELD = tuple(name for name in EATEN if name not in ("locked",))


def _held(row: Eaten, meal: str) -> dict[str, Any]:
    return {"meal": meal} | {name: getattr(row, name) for name in HELD}


def held_by(rows: Iterable[WeekEntry]) -> list[dict[str, Any]]:
    """What some rows of a week hold, in an order of its own."""
    return sorted((_held(row, row.meal) for row in rows), key=str)


def held_in(day: Day) -> list[dict[str, Any]]:
    """What a day of the planner holds."""
    return sorted((_held(row, row.meal) for row in day.entries.all()), key=str)


def changed_from(made: MadeDay, plan: list[dict[str, Any]]) -> bool:
    """Whether a day is no longer what the week planned: changed by itself, or left behind by the
    plan."""
    return held_in(made.day) != plan


def origin_of_day(day: Day) -> Origin | None:
    """For the day's own page: the week it was made from, and whether it is changed from the
    plan."""
    made = MadeDay.objects.filter(day=day, week__removed=None).select_related("week").first()
    if made is None:
        return None
    at = (day.date - made.week.start).days
    rows = [row for row in made.week.entries.all() if row.day == at]
    return Origin(
        name=f"From the week of {made.week.start:%B} {made.week.start.day}",
        url=reverse("week:page", args=[made.week.pk]),
        changed=held_by(rows) != held_in(day),
    )


def make_days(week: Week, by: User) -> tuple[list[Day], list[Day]]:
    """A day of the planner for each day of the week that has something in it: those that were made,
    and those that stand already with something of their own, which are left alone."""
    made, left = [], []
    rows = list(week.entries.select_related("planned"))
    for at in range(week.days):
        mine = [row for row in rows if row.day == at]
        if not mine:
            continue
        on = week.date_of(at)
        with transaction.atomic():
            day = week.client.days.filter(date=on).first()
            known = MadeDay.objects.filter(day=day).first() if day else None
            if day is not None and day.entries.exists():
                ours = known is not None and known.week_id == week.pk
                if known is None or not ours or held_in(day) != known.held:
                    left.append(day)
                    continue
            if day is None:
                day = Day.objects.create(
                    practice=week.practice,
                    client=week.client,
                    date=on,
                    made_for=version_on(week.client, on),
                    note=week.note,
                )
            _fill(day, mine, by)
            MadeDay.objects.update_or_create(day=day, defaults={"week": week, "held": held_in(day)})
            made.append(day)
    return made, left


def _fill(day: Day, rows: list[WeekEntry], by: User) -> None:
    """What stands in the week's day, one change of the planner's."""
    with day.changing(None, by) as stored:
        stored.entries.all().delete()
        for row in sorted(rows, key=lambda one: (one.meal, one.place)):
            values = {name: getattr(row, name) for name in EATEN if name != "locked"}
            DayEntry.objects.create(day=stored, meal=row.meal, **values)
