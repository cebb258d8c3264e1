"""What a week is to be warned of: every day's cautions, those that stand on several days said once
with their days."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from django.urls import reverse

from clients.plan.cautions import Holder, Told, of_foods
from clients.plan.standing import asked_first
from nutrition.safety.cautions import Caution
from nutrition.safety.situations import day_numbers, week_numbers
from week.reckoning import DayOfWeek, ReckonedWeek

WHOLE_WEEK = 5


def told_of(reckoned: ReckonedWeek) -> Told:
    """The cautions of all the days together."""
    planned = [day.planned() for day in reckoned.days if day.entries]
    whole = week_numbers(planned, reckoned.week.client.supplements_taken())
    standing: dict[tuple[str, str], tuple[Caution, list[DayOfWeek]]] = {}
    aside = []
    seen = set()
    for day in reckoned.days:
        if not day.entries:
            continue
        numbers = day_numbers(day.planned()) | whole
        told = of_foods(day.plan, day.foods, numbers, day.unread)
        for one in told.standing:
            known = standing.setdefault((one.code, one.about), (one, []))
            known[1].append(day)
        for one, row in told.put_aside:
            if (one.code, row.pk) not in seen:
                seen.add((one.code, row.pk))
                aside.append((one, row))
    found = [_with_days(one, days, len(planned)) for one, days in standing.values()]
    return Told(found, aside).held_by(holders(reckoned))


def asked_of(reckoned: ReckonedWeek) -> list[Caution]:
    """All that is to be asked about before anything of the week is cooked or eaten."""
    return asked_first(reckoned.week.client, told_of(reckoned))


def _with_days(one: Caution, days: Sequence[DayOfWeek], all_days: int) -> Caution:
    """ "Tuesday and Thursday: …"; what holds on most days is a matter of the week."""
    if len(days) >= min(all_days, WHOLE_WEEK):
        return one
    names = [f"{day.date:%A}" for day in days]
    said = ", ".join(names[:-1]) + (" and " if len(names) > 1 else "") + names[-1]
    return replace(one, text=f"{said}: {one.text}")


def holders(reckoned: ReckonedWeek) -> list[Holder]:
    """What stands in the slots, as what a caution may be about."""
    return [
        Holder(
            key=place.key,
            name=f"{place.entry.name} ({day.date:%a})",
            foods=frozenset(one.food.name for one in place.entry.foods),
            change_url=reverse("week:change", args=[reckoned.week.pk, place.key]),
            dish=False,
        )
        for day in reckoned.days
        for meal in day.meals
        for place in meal.places
        if place.entry
    ]
