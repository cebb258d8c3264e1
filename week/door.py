"""The page for the refrigerator door: day by day what is eaten, what is thawed and cooked, which
days have passed, in letters that are read from across the room."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from django.utils import timezone

from nutrition.targets.meals import MAIN_MEALS
from week.pots import Pot
from week.reckoning import DayOfWeek, MealOfDay, ReckonedWeek


@dataclass(frozen=True)
class Eaten:
    """What stands in a meal: its name, and how much of it."""

    name: str
    said: str


@dataclass(frozen=True, kw_only=True)
class DoorMeal:
    """A meal: the dish that it is known by, what stands beside it, where it is eaten; whether it is
    a lesser one, between meals."""

    lesser: bool = False
    main: Eaten | None = None
    beside: tuple[Eaten, ...] = ()
    packed: bool = False
    away: bool = False


@dataclass(frozen=True, kw_only=True)
class DoorDay:
    """A day, or an evening before the first with something to do. `meals` stand in the order of the
    page's columns; empty for such an evening."""

    on: date
    meals: tuple[DoorMeal, ...]
    cooks: tuple[str, ...]
    thaws: tuple[str, ...]
    passed: bool


def door_of(reckoned: ReckonedWeek) -> list[DoorDay]:
    """The days of the page, in order."""
    columns = [key for key, _name in reckoned.meals]
    thaws, cooks = thaws_by_day(reckoned), cooks_by_day(reckoned)
    today = timezone.localdate()
    days = {day.date: _meals(day, columns) for day in reckoned.days}
    early = {on for on in (*thaws, *cooks) if on < reckoned.week.start}
    return [
        DoorDay(
            on=on,
            meals=days.get(on, ()),
            cooks=tuple(cooks.get(on, ())),
            thaws=tuple(thaws.get(on, ())),
            passed=on < today,
        )
        for on in sorted({*days, *early})
    ]


def cooked_pots(reckoned: ReckonedWeek) -> list[Pot]:
    """The pots that somebody has to cook or to put away: what is mixed and eaten at once is not."""
    return [pot for pot in reckoned.pots if pot.cooked.prepared.cooks or pot.ends != pot.starts + 1]


def _meals(day: DayOfWeek, columns: Sequence[str]) -> tuple[DoorMeal, ...]:
    by_key = {meal.key: meal for meal in day.meals}
    return tuple(
        _meal(by_key[key]) if key in by_key else DoorMeal(lesser=key not in MAIN_MEALS)
        for key in columns
    )


def _meal(meal: MealOfDay) -> DoorMeal:
    """A meal is known by its first dish; one of foods alone by the first of them."""
    there = [(place, place.entry) for place in meal.places if place.entry]
    dishes = [at for at, (place, _entry) in enumerate(there) if place.row and not place.row.food]
    first = dishes[0] if dishes else 0
    eaten = [Eaten(place.name, entry.said) for place, entry in there]
    return DoorMeal(
        lesser=meal.key not in MAIN_MEALS,
        main=eaten[first] if eaten else None,
        beside=tuple(one for at, one in enumerate(eaten) if at != first),
        packed=meal.packed,
        away=meal.away,
    )


def thaws_by_day(reckoned: ReckonedWeek) -> dict[date, list[str]]:
    """What goes from the freezer into the refrigerator, by the evening."""
    by_day: dict[date, list[str]] = {}
    for one in reckoned.thawed:
        by_day.setdefault(one.thaw_on, []).append(one.name)
    for pot in reckoned.pots:
        for on in pot.frozen_dates:
            by_day.setdefault(on - timedelta(days=1), []).append(pot.name)
    return {on: sorted(set(names)) for on, names in by_day.items()}


def cooks_by_day(reckoned: ReckonedWeek) -> dict[date, list[str]]:
    """What is cooked on which day, each once."""
    by_day: dict[date, list[str]] = {}
    for pot in cooked_pots(reckoned):
        by_day.setdefault(pot.cooked_on, []).append(pot.name)
    return {on: list(dict.fromkeys(names)) for on, names in by_day.items()}
