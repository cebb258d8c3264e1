"""Which meal a bowl is, by the days it stands in, and what the rest of such a day is."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from typing import Any

from django.urls import reverse
from django.utils import timezone

from bowls.models import Bowl
from clients.models import Client
from nutrition.composition.profile import Profile
from nutrition.follow_up.attention import PLAN
from planner.day import reckon_day
from planner.models import Day, DayEntry
from planner.plans import plan_for
from webkit import figures


@dataclass(frozen=True)
class StandsIn:
    """A day that holds a bowl: the `rest` of it, and in words what is left of its energy."""

    day: Day
    rest: Profile
    words: str


def _nearest(bowl: Bowl, client: Client | None) -> DayEntry | None:
    """The entry of the day nearest to today in which the client has this bowl."""
    if client is None or bowl.pk is None:
        return None
    rows = DayEntry.objects.filter(bowl=bowl, day__client=client, day__removed=None)
    today = timezone.localdate()
    found = rows.select_related("day__client", "day__made_for")
    return min(found, key=lambda row: (abs((row.day.date - today).days), row.pk), default=None)


def meal_it_stands_in(bowl: Bowl, client: Client | None) -> str:
    """The meal into which the bowl was first put for the client; empty for none."""
    if client is None or bowl.pk is None:
        return ""
    rows = DayEntry.objects.filter(bowl=bowl, day__client=client, day__removed=None)
    return rows.order_by("pk").values_list("meal", flat=True).first() or ""


def day_it_stands_in(bowl: Bowl, client: Client | None) -> StandsIn | None:
    """The day nearest to today in which the client has this bowl, without the bowl."""
    entry = _nearest(bowl, client)
    if entry is None:
        return None
    reckoned = reckon_day(entry.day)
    rest = Profile.total(one.profile for one in reckoned.entries if one.row.bowl_id != bowl.pk)
    plan = plan_for(entry.day)
    if plan.day is None:
        return StandsIn(entry.day, rest, "no targets are computed")
    left = plan.day["energy_kcal"].aim - rest["energy_kcal"].amount
    words = (
        f"that leaves {figures.digits(left)} kcal for this bowl"
        if left > 0
        else f"that is {figures.digits(-left)} kcal over the day's without this bowl"
    )
    return StandsIn(entry.day, rest, words)


def planned_until(client: Client) -> date | None:
    """The last date that a day is planned for; None for none."""
    days = client.at_hand("fetched_days", lambda: list(client.days.all()[:1]))
    return days[0].date if days else None


def stands_in(page: Mapping[str, Any]) -> dict[str, Any]:
    """For the page of a bowl: the rest of its day does not move with the bowl, and a live page
    keeps what it says of it."""
    live = page["request"].htmx
    return {"stands_in": None if live else day_it_stands_in(page["bowl"], page["client"])}


def first_day(page: Mapping[str, Any]) -> dict[str, Any]:
    """For the page of a bowl: whether no day was ever planned in the practice."""
    return {"first_day": not page["request"].htmx and not Day.objects.exists()}


def step_to_plan(need: str, client: Client) -> tuple[str, str] | None:
    """For the list of clients: where a day is planned, which is the step too where nothing is
    needed."""
    called = {PLAN: "Plan a day", "": "Open the plan"}.get(need)
    return (called, reverse("planner:list")) if called else None
