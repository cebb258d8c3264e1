"""A client's record as the core reads it: weigh-ins, logged days beside planned ones, what
happened."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from datetime import date, timedelta
from threading import Lock
from typing import Any

from cachetools import LRUCache, cached

from clients.models import Client
from clients.plan.attention import planned_since
from clients.plan.in_force import Plan, plan_of
from journal.models import LoggedDay, LoggedEntry
from nutrition.composition.foods import food_table
from nutrition.composition.portion import Portion
from nutrition.composition.profile import Profile
from nutrition.composition.supplements import per_day
from nutrition.follow_up.eaten import Bite
from nutrition.follow_up.eaten import LoggedDay as Known
from nutrition.follow_up.stall import Record
from nutrition.targets.blood import blood_numbers
from planner.day import Entry, entry_of, portion_of_food
from planner.models import Day

# So far back the record is looked at. [d]
LOOKED_BACK = 120
# So many days stay at hand as they were reckoned.
KEPT_DAYS = 1024

# Eaten "as planned", by who did not weigh it, may be off by so much. Common practice, no source.
AS_PLANNED_OFF = 0.1


def portion_of(row: LoggedEntry, system: str) -> Portion:
    """What was eaten, with its range; what is not settled is there with nothing known of it."""
    portion: Portion | None = None
    if row.food in food_table():
        portion = portion_of_food(row)
    elif row.settled:
        entry = entry_of(row, system)
        portion = entry.portion if entry is not None else None
    if portion is None:
        return Portion(
            key=str(row.pk),
            name=row.said or "something",
            role="topping",
            grams=0.0,
            profile=Profile.unsettled(),
            volume_ml=0.0,
        )
    if row.low is None or row.high is None or not row.amount:
        return portion
    off = max(row.amount - row.low, row.high - row.amount) / row.amount
    return replace(portion, profile=portion.profile.off_by(off))


@cached(LRUCache(KEPT_DAYS), key=lambda key, rows, reckon: key, lock=Lock())
def _bites(key: tuple[Any, ...], rows: Iterable[Any], reckon: Any) -> tuple[Bite, ...]:
    """Rows as bites, kept for the next time while nothing of them changed."""
    return tuple(Bite(row.meal, portion) for row in rows if (portion := reckon(row)) is not None)


def _state(row: Any) -> tuple[Any, ...]:
    return (
        *(row.pk, row.meal, row.food, row.amount, row.low_g, row.high_g),
        *(row.bowl_id, row.recipe_id, row.planned_id),
    )


def eaten_bites(day: LoggedDay, rows: Sequence[LoggedEntry]) -> tuple[Bite, ...]:
    """What of a day was eaten."""
    system, eaten = day.practice.measures, [row for row in rows if row.eaten]
    states = tuple((*_state(row), row.low, row.high, row.said) for row in eaten)
    key = ("eaten", day.pk, system, states, food_table().key)
    return _bites(key, eaten, lambda row: portion_of(row, system))


def planned_bites(day: Day, rows: Sequence[Any]) -> tuple[Bite, ...]:
    """What was planned for a day."""
    system = day.practice.measures
    key = ("planned", day.pk, system, tuple(map(_state, rows)), food_table().key)

    def reckon(row: Any) -> Portion | None:
        if row.food in food_table():
            return portion_of_food(row)
        row.day = day
        entry: Entry | None = entry_of(row, system)
        return entry.portion if entry is not None else None

    return _bites(key, rows, reckon)


def logged_days(client: Client, since: date, until: date) -> list[Known]:
    """The logged days between two dates, each with what was planned for it, oldest first."""
    rows = (
        client.logged_days.filter(date__range=(since, until))
        .select_related("practice")
        .prefetch_related("entries__bowl__practice", "entries__recipe", "entries__planned")
    )
    plans = (
        client.days.filter(date__range=(since, until))
        .select_related("practice", "client")
        .prefetch_related("entries__bowl__practice", "entries__recipe", "entries__planned")
    )
    planned = {day.date: day for day in plans}
    taken = client.supplements_taken()
    supplements = per_day(taken) if taken else None
    out = []
    for day in sorted(rows, key=lambda row: row.date):
        plan = planned.get(day.date)
        out.append(
            Known(
                on=day.date,
                whole=day.whole,
                eaten=eaten_bites(day, list(day.entries.all())),
                planned=planned_bites(plan, list(plan.entries.all())) if plan else (),
                supplements=supplements,
            )
        )
    return out


def record_of(
    client: Client, today: date, plan: Plan | None = None, days: int = LOOKED_BACK
) -> Record:
    """All that the follow-up knows of a client."""
    plan = plan or plan_of(client)
    version, day = plan.version, plan.day
    since = today - timedelta(days=days)
    weighed = [row.weighed() for row in client.weigh_ins.filter(date__range=(since, today))]
    person = client.person()
    if weighed:
        # as they were on that day
        person = replace(person, weight_kg=weighed[-1].kg)
    return Record(
        person=person,
        school=plan.school,
        weighed=weighed,
        today=today,
        logged=logged_days(client, since, today),
        happened=[row.happened() for row in client.happenings.filter(start__range=(since, today))],
        made_for_kg=day.person.weight_kg if day else None,
        made_on=version.takes_effect if version else None,
        target_kcal=day["energy_kcal"].aim if day else None,
        planned_since=planned_since(client),
        blood=blood_numbers(client.blood(), person, today),
    )
