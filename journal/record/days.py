"""A client's record as the core reads it: weigh-ins, logged days beside planned ones, what
happened."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import replace
from datetime import date, timedelta
from threading import Lock
from typing import Any

from cachetools import LRUCache
from django.db.models import QuerySet

from clients.models import Client
from clients.plan.attention import planned_since
from clients.plan.in_force import Plan
from journal.models import LoggedEntry
from nutrition.composition.foods import food_table
from nutrition.composition.portion import Portion
from nutrition.composition.profile import Profile
from nutrition.composition.supplements import per_day
from nutrition.follow_up.eaten import Bite
from nutrition.follow_up.eaten import LoggedDay as Known
from nutrition.follow_up.kitchen_line import LEFT_OUT
from nutrition.follow_up.stall import Record
from nutrition.targets.blood import blood_numbers
from planner.day import entry_of, portion_of_food
from planner.models import DayEntry
from webkit.once import once

# So far back the record is looked at. [d]
LOOKED_BACK = 120
# So many days stay at hand as they were reckoned.
KEPT_DAYS = 1024


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


# What of a row decides what was eaten by it, and of a logged one besides.
_STATE = ("pk", "meal", "food", "amount", "low_g", "high_g", "bowl_id", "recipe_id", "planned_id")
_LOGGED = (*_STATE, "low", "high", "said")
# Days by what is in them, as bites: what did not change since is not reckoned again.
_kept: LRUCache[tuple[Any, ...], tuple[Bite, ...]] = LRUCache(KEPT_DAYS)
_lock = Lock()

States = list[tuple[Any, ...]]
Bites = tuple[Bite, ...]


def _bites(key: tuple[Any, ...], states: States, reckon: Callable[[], Iterable[Bite]]) -> Bites:
    """The bites of a day in a state, kept for the next time; reckoned outside the lock: two that
    ask at once may both reckon."""
    # a dish without a copy of its own follows what becomes of it
    follows = any((state[6] or state[7]) and not state[8] for state in states)
    with _lock:
        found = None if follows else _kept.get(key)
    if found is None:
        found = tuple(reckon())
        if not follows:
            with _lock:
                _kept[key] = found
    return found


def _by_day(rows: QuerySet, fields: Sequence[str]) -> dict[int, States]:
    """The states of the rows of days, without making records of them."""
    out: dict[int, States] = {}
    for day, *state in rows.values_list("day_id", *fields):
        out.setdefault(day, []).append(tuple(state))
    return out


class _Rows:
    """The rows of a day as records, fetched only where they have to be reckoned."""

    def __init__(self, rows: QuerySet, system: str) -> None:
        self.rows = rows.select_related("bowl__practice", "recipe", "planned")
        self.system = system

    def eaten(self, day: int) -> Iterator[Bite]:
        for row in self.rows.filter(day=day):
            if row.eaten:
                yield Bite(row.meal, portion_of(row, self.system))

    def planned(self, day: int) -> Iterator[Bite]:
        for row in self.rows.filter(day=day).select_related("day__client"):
            if row.food in food_table():
                yield Bite(row.meal, portion_of_food(row))
            elif (entry := entry_of(row, self.system)) is not None:
                yield Bite(row.meal, entry.portion)


def logged_days(client: Client, since: date, until: date) -> list[Known]:
    """The logged days between two dates, each with what was planned for it, oldest first."""
    key = ("logged", client.pk, since, until)
    return once(key, lambda: _logged_days(client, since, until))


def _logged_days(client: Client, since: date, until: date) -> list[Known]:
    logged = list(client.logged_days.filter(date__range=(since, until)).order_by("date"))
    if not logged:
        return []
    dates = [day.date for day in logged]
    plans = dict(client.days.filter(date__in=dates).values_list("date", "pk"))
    system, table = client.practice.measures, food_table().key
    eaten_rows = LoggedEntry.objects.filter(day__in=[day.pk for day in logged])
    plan_rows = DayEntry.objects.filter(day__in=list(plans.values()))
    eaten = _by_day(eaten_rows.exclude(how=LEFT_OUT), _LOGGED)
    planned = _by_day(plan_rows, _STATE)
    eaten_rows_of, plan_rows_of = _Rows(eaten_rows, system), _Rows(plan_rows, system)
    taken = client.supplements_taken()
    supplements = per_day(taken) if taken else None

    def bites(
        kind: str, day: int, states: States, reckon: Callable[[int], Iterable[Bite]]
    ) -> Bites:
        return _bites((kind, day, system, tuple(states), table), states, lambda: reckon(day))

    out = []
    for day in logged:
        plan = plans.get(day.date)
        out.append(
            Known(
                on=day.date,
                whole=day.whole,
                eaten=bites("eaten", day.pk, eaten.get(day.pk, []), eaten_rows_of.eaten),
                planned=bites("planned", plan, planned.get(plan, []), plan_rows_of.planned)
                if plan is not None
                else (),
                supplements=supplements,
            )
        )
    return out


def record_of(client: Client, today: date, plan: Plan, days: int = LOOKED_BACK) -> Record:
    """All that the follow-up knows of a client, for whom this plan is in force."""
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
