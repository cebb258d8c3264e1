"""Useful pairs to begin a comparison with: the last two bowls, a bowl and what is usual in its
meal, a day and the same day a week before, an old habit and what takes its place."""

from __future__ import annotations

from collections import Counter
from datetime import timedelta

from bowls.models import Bowl
from clients.models import Client
from planner.models import Day, DayEntry
from plates.models import OldDish

# How far back a usual meal is looked for. [d]
LOOKED_BACK = timedelta(days=28)
Pair = tuple[str, list[str]]


def _bowls(client: Client | None) -> list[Bowl]:
    rows = Bowl.objects.filter(archived=None, client__removed=None)
    if client is not None:
        rows = rows.filter(client=client) | rows.filter(client=None)
    return list(rows.order_by("-updated")[:2])


def _usual(bowl: Bowl, client: Client) -> str:
    """The bowl or recipe that most often stands in the meal in which this bowl stands."""
    own = DayEntry.objects.filter(bowl=bowl, day__client=client, day__removed=None).first()
    if own is None:
        return ""
    rows = DayEntry.objects.filter(
        day__client=client,
        day__removed=None,
        meal=own.meal,
        day__date__gte=own.day.date - LOOKED_BACK,
    ).exclude(bowl=bowl)
    keys = Counter(
        f"bowl-{row.bowl_id}" if row.bowl_id else f"recipe-{row.recipe_id}"
        for row in rows
        if row.bowl_id or row.recipe_id
    )
    return keys.most_common(1)[0][0] if keys else ""


def _last_week(day: Day) -> Day | None:
    """The day a week before, or the nearest planned one at least so long ago."""
    before = day.client.days.filter(date__lte=day.date - timedelta(days=7), archived=None)
    found: Day | None = before.first()
    return found


def pairs(client: Client | None) -> list[Pair]:
    """What each pair is called, and the keys of the two."""
    out: list[Pair] = []
    bowls = _bowls(client)
    if len(bowls) == 2:
        keys = [f"bowl-{bowl.pk}" for bowl in bowls]
        out.append((f"the last two bowls: {bowls[0].name} and {bowls[1].name}", keys))
    old = list(OldDish.objects.filter(client=client).exclude(parts=[])[:2])
    if old and bowls:
        out += [
            (
                f"{dish.name}, and {bowls[0].name} in its place",
                [f"was-{dish.pk}", f"bowl-{bowls[0].pk}"],
            )
            for dish in old
        ]
    if client is None:
        return out
    if bowls and (usual := _usual(bowls[0], client)):
        out.append(
            (f"{bowls[0].name} and what is usual in its meal", [f"bowl-{bowls[0].pk}", usual])
        )
    day = client.days.filter(archived=None).first()
    earlier = _last_week(day) if day else None
    if day and earlier:
        out.append(
            (
                f"{day.date:%A, %B} {day.date.day} and {earlier.date:%B} {earlier.date.day}",
                [f"day-{day.pk}", f"day-{earlier.pk}"],
            )
        )
    days = list(client.days.filter(archived=None)[:2])
    if len(days) == 2 and not earlier:
        out.append(("the last two days", [f"day-{one.pk}" for one in days]))
    return out
