"""What is to be done when, for a client: meals, cooking, soaking, thawing, weighing in, the next
visit, as the events of their calendar."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from datetime import date, datetime, time, timedelta
from typing import Any
from zoneinfo import ZoneInfo

from django.utils import timezone

from clients.models import Client
from handouts.models import CalendarWish
from journal.visits.appointments import next_visit
from kitchen.models import CookingSession
from kitchen.page import asks_of
from kitchen.planning import planned_of
from nutrition.prep.timeline.schedule import Timeline
from nutrition.targets.meals import COOKING, EVENING, MORNING, USUAL_TIMES
from week.cautions import asked_of
from week.door import cooks_by_day, thaws_by_day
from week.from_dry import cooked_first
from week.models import Week
from week.reckoning import MealOfDay, ReckonedWeek, reckon_week

# The kinds of event, by key, as they are ticked; weighing in has its day instead.
KINDS = {
    "meals": "meals",
    "cooking": "cooking",
    "soaking": "soaking beans",
    "thawing": "thawing",
    "visit": "the next visit",
}
# So long is a meal, a pot, and what is done in passing. [min]
MEAL_MINUTES, COOKING_MINUTES, SHORT = 30, 90, 5
# What is over for longer is no longer told of. [days]
LOOKED_BACK = 7


@dataclass(frozen=True, kw_only=True)
class Planned:
    """An event before it is numbered: what it is known by, when, and what it says."""

    key: str
    kind: str
    on: date
    minute: int | None = None
    minutes: int = SHORT
    words: str
    more: str = ""
    weekly: int | None = None

    def said(self) -> dict[str, Any]:
        """All that a calendar would show of it, as plain data."""
        own = {name: getattr(self, name) for name in ("kind", "minute", "minutes", "words", "more")}
        return own | {"on": self.on.isoformat(), "weekly": self.weekly}


@dataclass(frozen=True, kw_only=True)
class Wish:
    """What a client wants in it. `times`: minutes of the day by meal."""

    kinds: tuple[str, ...] = ("meals", "cooking", "soaking", "thawing", "visit")
    times: Mapping[str, int] = field(default_factory=lambda: dict(USUAL_TIMES))
    alarm_minutes: int = 15
    weigh_day: int | None = None
    since: date | None = None


def wish_of(client: Client) -> Wish:
    """As it was set, or what is usual."""
    row = CalendarWish.objects.filter(client=client).first()
    if row is None:
        return Wish()
    known = {key: int(row.times.get(key, usual)) for key, usual in USUAL_TIMES.items()}
    return Wish(
        kinds=tuple(key for key in KINDS if key in row.kinds),
        times=known,
        alarm_minutes=row.alarm_minutes,
        weigh_day=row.weigh_day,
        since=row.since,
    )


def zone_of(client: Client) -> ZoneInfo:
    """The time zone in which a client lives, or the practice's."""
    return ZoneInfo(client.time_zone or client.practice.time_zone)


def moment(client: Client, one: Planned) -> datetime | date:
    """When it is, in the client's time zone; the date where it has no hour."""
    if one.minute is None:
        return one.on
    at = datetime.combine(one.on, time.min) + timedelta(minutes=one.minute)
    return at.replace(tzinfo=zone_of(client))


def agenda(client: Client, wish: Wish) -> list[Planned]:
    """All that is to come, of the kinds that are wanted, by day. Nothing of it says a calorie, a
    weight or a diagnosis: a calendar is seen by others."""
    since = timezone.localdate() - timedelta(days=LOOKED_BACK)
    found: list[Planned] = []
    for week in Week.objects.filter(client=client, start__gte=since - timedelta(days=31)):
        if week.last >= since:
            found += _of_week(client, reckon_week(week), wish)
    found += [*_sessions(client, since), *_weighing(client, wish), *_visit(client)]
    wanted = [one for one in found if one.kind in (*wish.kinds, "weighing")]
    return sorted(wanted, key=lambda one: (one.on, one.minute or 0, one.key))


def _of_week(client: Client, reckoned: ReckonedWeek, wish: Wish) -> Iterator[Planned]:
    """A week's events. One with something to be stopped and asked about says that, and nothing of
    what would be eaten."""
    week = reckoned.week
    if not reckoned.filled:
        return
    if asked_of(reckoned):
        practice = client.practice
        yield Planned(
            key=f"ask-{week.pk}",
            kind="meals",
            on=week.start,
            words=f"Call {practice.name} about this week's plan",
            more=f"There is something to talk about before you eat by it. {practice.contact}",
        )
        return
    for day in reckoned.days:
        for meal in day.meals:
            if (words := _meal_words(meal)) is not None:
                yield Planned(
                    key=f"meal-{week.pk}-{day.date:%Y%m%d}-{meal.key}",
                    kind="meals",
                    on=day.date,
                    minute=wish.times.get(meal.key, USUAL_TIMES["dinner"]),
                    minutes=MEAL_MINUTES,
                    words=f"{meal.name}: {words[0]}",
                    more=words[1],
                )
    yield from _kitchen_of_week(reckoned)


def _meal_words(meal: MealOfDay) -> tuple[str, str] | None:
    """A meal in a line, and the amounts below it; None for one that is away or empty."""
    if meal.away:
        return None
    there = [(place.name, place.entry.said) for place in meal.places if place.entry]
    if not there:
        return None
    more = "\n".join(f"{said} {name}" for name, said in there)
    return ", ".join(name for name, _said in there), f"{more}\nPacked." if meal.packed else more


def _kitchen_of_week(reckoned: ReckonedWeek) -> Iterator[Planned]:
    """What is cooked, soaked and thawed for a week, once a day each."""
    week = reckoned.week
    planned = set(
        CookingSession.objects.filter(client=week.client, week=week).values_list("day", flat=True)
    )
    for on, names in cooks_by_day(reckoned).items():
        if on not in planned:  # a session says it, with its hour
            yield Planned(
                key=f"cook-{week.pk}-{on:%Y%m%d}",
                kind="cooking",
                on=on,
                minute=COOKING,
                minutes=COOKING_MINUTES,
                words=f"Cook: {', '.join(names)}",
            )
    for on, names in _soaks_by_day(reckoned).items():
        yield _evening(f"soak-{week.pk}-{on:%Y%m%d}", "soaking", on, "Soak", names)
    for on, names in thaws_by_day(reckoned).items():
        yield _evening(f"thaw-{week.pk}-{on:%Y%m%d}", "thawing", on, "Into the refrigerator", names)


def _soaks_by_day(reckoned: ReckonedWeek) -> dict[date, list[str]]:
    by_day: dict[date, list[str]] = {}
    for first in cooked_first(reckoned.week, reckoned.pots, reckoned.rows):
        if first.beans.soaked:
            name = first.beans.dry.name.split(",")[0].lower()
            by_day.setdefault(first.soak_on, []).append(name)
    return by_day


def _evening(key: str, kind: str, on: date, verb: str, names: list[str]) -> Planned:
    words = f"{verb}: {', '.join(dict.fromkeys(names))}"
    return Planned(key=key, kind=kind, on=on, minute=EVENING, words=words)


def _sessions(client: Client, since: date) -> Iterator[Planned]:
    """Sessions of cooking, with their hour; of one that is to be asked about first, that."""
    for row in CookingSession.objects.filter(client=client, day__gte=since, ended=None):
        planned = planned_of(row)
        begins = _begins(row, planned.timeline)
        asks = asks_of(client.practice, planned)
        names = [name for one in planned.dishes if (name := planned.name(one.key))]
        yield Planned(
            key=f"session-{row.pk}",
            kind="cooking",
            on=row.date_at(begins),
            minute=begins % 1440,
            minutes=max(row.ready_at - begins, SHORT),
            words=asks or f"Cook: {', '.join(names)}",
        )


def _begins(row: CookingSession, found: Timeline | None) -> int:
    """When the first step of the day of a session is, or so long before it is ready where no order
    was found: a soak the evening before has an hour of its own. [minutes of its day]"""
    starts = [one.start for one in found.rows if one.start >= row.earliest] if found else []
    return min(starts, default=row.ready_at - COOKING_MINUTES)


def _weighing(client: Client, wish: Wish) -> Iterator[Planned]:
    if wish.weigh_day is None or client.numbers_hidden:
        return
    # from the day on which it was wished: the same event whenever it is asked for
    since = wish.since or timezone.localdate()
    on = since + timedelta(days=(wish.weigh_day - since.weekday()) % 7)
    yield Planned(
        key="weigh",
        kind="weighing",
        on=on,
        minute=MORNING,
        words="Step on the scale",
        more="On rising, before breakfast.",
        weekly=wish.weigh_day,
    )


def _visit(client: Client) -> Iterator[Planned]:
    row = next_visit(client)
    if row is None:
        return
    at = row.at.astimezone(zone_of(client))
    yield Planned(
        key=f"visit-{row.pk}",
        kind="visit",
        on=at.date(),
        minute=at.hour * 60 + at.minute,
        minutes=row.minutes,
        words=f"Visit at {client.practice.name}",
        more=row.words,
    )
