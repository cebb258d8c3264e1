"""A client's record as the core reads it: weigh-ins, logged days beside planned ones, what
happened."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import replace
from datetime import date, timedelta
from threading import Lock
from typing import Any

from cachetools import LRUCache
from django.db.models import QuerySet

from clients.models import MOST_WEIGH_INS, Client
from clients.plan.attention import planned_since
from clients.plan.in_force import Plan
from journal.models import LoggedEntry
from nutrition.composition.foods import food_table
from nutrition.composition.portion import Portion
from nutrition.composition.profile import Profile
from nutrition.composition.supplements import Supplement, per_day
from nutrition.follow_up.intake import Bite
from nutrition.follow_up.intake import LoggedDay as Known
from nutrition.follow_up.kitchen_line import LEFT_OUT
from nutrition.follow_up.stall import Record
from nutrition.targets.blood import blood_numbers
from planner.day import STATE, entry_of, portion_of_food, states_by_day
from planner.models import DayEntry
from webkit.page_cache import once

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


# What decides besides what was eaten by a logged row.
_LOGGED = (*STATE, "low", "high", "said")
# Days by what is in them, as bites: what did not change since is not reckoned again.
_kept: LRUCache[tuple[Any, ...], tuple[Bite, ...]] = LRUCache(KEPT_DAYS)
# ... and as days, so that what is summed up over one is not summed up again.
_days: LRUCache[tuple[Any, ...], Known] = LRUCache(KEPT_DAYS)
_lock = Lock()

States = list[tuple[Any, ...]]
Bites = tuple[Bite, ...]


def _known(keys: Iterable[tuple[Any, ...]]) -> dict[tuple[Any, ...], Bites]:
    """Those of these days that are kept as they are now."""
    with _lock:
        return {key: _kept[key] for key in keys if key in _kept}


def _keep(made: Mapping[tuple[Any, ...], Bites]) -> None:
    with _lock:
        for key, bites in made.items():
            _kept[key] = bites


def _follows(states: States) -> bool:
    """Whether a dish among the rows has no copy of its own, and follows what becomes of it."""
    return any((state[6] or state[7]) and not state[8] for state in states)


def _bites_of(
    rows: QuerySet, fields: Sequence[str], system: str, portion: Callable[[Any], Portion | None]
) -> dict[int, Bites]:
    """The bites of days by their keys. Rows become records only on days that are not kept as they
    are: of all those at once, reckoned outside the lock."""
    states, table = states_by_day(rows, fields), food_table().key
    kind = rows.model.__name__
    keys = {day: (kind, day, system, tuple(some), table) for day, some in states.items()}
    known = _known(key for day, key in keys.items() if not _follows(states[day]))
    made: dict[int, list[Bite]] = {day: [] for day, key in keys.items() if key not in known}
    if made:
        records = rows.filter(day__in=list(made)).select_related(
            "bowl__practice", "recipe", "planned", "day__client"
        )
        for row in records:
            found = portion(row)
            if found is not None:
                made[row.day_id].append(Bite(row.meal, found))
        _keep({keys[day]: tuple(some) for day, some in made.items() if not _follows(states[day])})
    return {day: tuple(made[day]) if day in made else known[key] for day, key in keys.items()}


def logged_days(
    client: Client, since: date, until: date, beside_the_plan: bool = True
) -> list[Known]:
    """The logged days between two dates, oldest first, each with what was planned for it where it
    is looked at `beside_the_plan`. Of days within others that this page has read already, those."""
    spans: dict[tuple[date, date, bool], list[Known]] = once(("logged", client.pk), dict)
    for (first, last, planned), days in spans.items():
        if first <= since and until <= last and planned >= beside_the_plan:
            return [day for day in days if since <= day.on <= until]
    found = _logged_days(client, since, until, beside_the_plan)
    return spans.setdefault((since, until, beside_the_plan), found)


def _logged_days(client: Client, since: date, until: date, beside_the_plan: bool) -> list[Known]:
    logged = list(client.logged_days.filter(date__range=(since, until)).order_by("date"))
    if not logged:
        return []
    plans: dict[date, int] = {}
    if beside_the_plan:
        dates = [day.date for day in logged]
        plans = dict(client.days.filter(date__in=dates).values_list("date", "pk"))
    system = client.practice.measures

    def planned_portion(row: DayEntry) -> Portion | None:
        if row.food in food_table():
            return portion_of_food(row)
        entry = entry_of(row, system)
        return entry.portion if entry is not None else None

    eaten_rows = LoggedEntry.objects.filter(day__in=[day.pk for day in logged])
    eaten = _bites_of(
        eaten_rows.exclude(how=LEFT_OUT), _LOGGED, system, lambda row: portion_of(row, system)
    )
    plan_rows = DayEntry.objects.filter(day__in=list(plans.values()))
    planned = _bites_of(plan_rows, STATE, system, planned_portion) if plans else {}
    taken = tuple(client.supplements_taken())
    return [
        _day(
            day.date,
            day.whole,
            eaten.get(day.pk, ()),
            planned.get(plans.get(day.date, 0), ()),
            taken,
        )
        for day in logged
    ]


def _day(
    on: date, whole: bool, eaten: Bites, planned: Bites, taken: tuple[Supplement, ...]
) -> Known:
    """A day of these bites: the one that is kept, while it holds the same."""
    key = (on, whole, id(eaten), id(planned), taken)
    with _lock:
        known = _days.get(key)
        # an id may come again; what is the same object is the same
        if known is None or known.eaten is not eaten or known.planned is not planned:
            known = Known(
                on=on,
                whole=whole,
                eaten=eaten,
                planned=planned,
                supplements=per_day(taken) if taken else None,
            )
            _days[key] = known
    return known


def record_of(client: Client, today: date, plan: Plan, days: int = LOOKED_BACK) -> Record:
    """All that the follow-up knows of a client, for whom this plan is in force."""
    version, day = plan.version, plan.day
    since = today - timedelta(days=days)
    rows = client.newest_weigh_ins(MOST_WEIGH_INS)[::-1]
    weighed = [row.weighed() for row in rows if since <= row.date <= today]
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
