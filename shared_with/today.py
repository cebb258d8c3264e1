"""What stands for a client on a day: their meals as plates, and whether there is something to talk
about first."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any

from clients.models import Client
from clients.plan.standing import asked_first, stands_anyway
from nutrition.composition.portion import Dish, Portion
from planner.cautions import told_of
from planner.day import reckon_day
from planner.models import MEALS, Day, Eaten
from planner.plans import plan_for
from webkit.drawing.dishes import dish_round
from webkit.templatetags.pantry_tags import without_grams
from week.cautions import asked_of
from week.models import Week
from week.reckoning import ReckonedWeek, reckon_week


@dataclass(frozen=True, kw_only=True)
class DishToday:
    """Something to eat: the key that it is told of by, its name, how much in household measures,
    what a bowl of it holds."""

    key: str
    row: Eaten
    portion: Portion
    name: str
    said: str
    parts: tuple[str, ...]
    week: bool


@dataclass(frozen=True, kw_only=True)
class MealToday:
    """A meal with its round."""

    key: str
    name: str
    dishes: tuple[DishToday, ...]
    round: dict[str, Any]


@dataclass(frozen=True, kw_only=True)
class Today:
    """A day of a client: `asks` where something is to be talked about before they eat by it; then
    there are no meals."""

    on: date
    meals: tuple[MealToday, ...] = ()
    asks: bool = False

    def dish(self, key: str) -> DishToday | None:
        return next((one for meal in self.meals for one in meal.dishes if one.key == key), None)


def today_of(client: Client, on: date) -> Today:
    """What is planned for a day: the day that was made for it, or else that day of a week."""
    day = Day.objects.filter(client=client, date=on).select_related("client").first()
    if day is not None:
        return _of_day(client, day)
    week = week_on(client, on)
    if week is None:
        return Today(on=on, asks=bool(stands_anyway(client)))
    return _of_week(reckon_week(week), on)


def week_on(client: Client, on: date) -> Week | None:
    """The week that a date lies in."""
    rows = Week.objects.filter(client=client, start__lte=on, start__gt=on - timedelta(days=31))
    return next((one for one in rows.order_by("-start") if one.last >= on), None)


def _of_day(client: Client, day: Day) -> Today:
    day.practice = client.practice
    reckoned = reckon_day(day)
    if asked_first(client, told_of(plan_for(day), day, reckoned)):
        return Today(on=day.date, asks=True)
    meals = []
    for meal in reckoned.meals:
        dishes = [
            DishToday(
                key=f"day-{entry.row.pk}",
                row=entry.row,
                portion=entry.portion,
                name=entry.name,
                said=entry.said,
                parts=_parts(client, entry.parts),
                week=False,
            )
            for entry in meal.entries
        ]
        if dishes:
            meals.append(_meal(meal.key, meal.name, dishes))
    return Today(on=day.date, meals=tuple(meals))


def _of_week(reckoned: ReckonedWeek, on: date) -> Today:
    client = reckoned.week.client
    if asked_of(reckoned):
        return Today(on=on, asks=True)
    day = next((one for one in reckoned.days if one.date == on), None)
    names = dict(MEALS)
    meals = []
    for meal in day.meals if day else ():
        dishes = [
            DishToday(
                key=f"week-{place.row.pk}",
                row=place.row,
                portion=place.entry.portion,
                name=place.name,
                said=place.entry.said,
                parts=_parts(client, place.entry.parts),
                week=True,
            )
            for place in meal.places
            if place.row is not None and place.entry is not None
        ]
        if dishes:
            meals.append(_meal(meal.key, str(names.get(meal.key, meal.name)), dishes))
    return Today(on=on, meals=tuple(meals))


def _parts(client: Client, parts: Sequence[str]) -> tuple[str, ...]:
    """What a bowl holds, in household measures; without weights for whom they can harm."""
    return tuple(without_grams(one) if client.numbers_hidden else one for one in parts)


def _meal(key: str, name: str, dishes: Sequence[DishToday]) -> MealToday:
    whole = Dish.of(key, name, [one.portion for one in dishes], "meal")
    return MealToday(key=key, name=name, dishes=tuple(dishes), round=dish_round(whole, "protein_g"))
