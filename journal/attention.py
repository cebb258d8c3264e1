"""What of the journal needs a look, and since when."""

from __future__ import annotations

from datetime import date, timedelta

from django.urls import reverse
from django.utils import timezone

from clients.models import Client
from journal.record.days import logged_days
from nutrition.follow_up.attention import (
    CHANGE_DAYS,
    LOOK_AT_CHANGE,
    LOOK_AT_DAYS,
    SIGN,
    SIGN_DAYS,
    TELL,
    Need,
)
from nutrition.follow_up.signs import LOOKED_BACK_DAYS, record_numbers
from nutrition.follow_up.usual_intake import HABIT_DAYS, WATCHED_WITH, habit_numbers


def to_attend(client: Client, today: date) -> list[Need]:
    """A change whose outcome nobody looked at, a note that is not signed."""
    out = []
    change = client.changes_taken.filter(ended=None).order_by("start").first()
    if change is not None and (today - change.start).days >= CHANGE_DAYS:
        out.append(Need(f"See whether it worked: {change.words}", LOOK_AT_CHANGE, change.start))
    late = today - timedelta(days=SIGN_DAYS)
    visit = client.visits.filter(signed=None, date__lte=late).order_by("date").first()
    if visit is not None:
        out.append(Need("A visit note is not signed", SIGN, visit.date))
    return out


def agreed(client: Client) -> str:
    """The changes that stand, with their reasons."""
    rows = client.changes_taken.filter(ended=None)[:2]
    return "; ".join(f"{row.words} (since {row.start:%b} {row.start.day})" for row in rows)


def numbers_of_the_log(client: Client) -> dict[str, float]:
    """What the cautions look at in what was logged lately; nothing where nothing was."""
    today = timezone.localdate()
    since = today - timedelta(days=LOOKED_BACK_DAYS)
    days = logged_days(client, since, today, beside_the_plan=False)
    if not any(day.whole for day in days):
        return {}
    return record_numbers(client.person(), days, today)


def numbers_of_the_habit(client: Client) -> dict[str, float]:
    """What they eat as a rule of something that a medicine of theirs is set to."""
    if not client.pk or WATCHED_WITH.keys().isdisjoint(client.conditions):
        return {}
    today = timezone.localdate()
    since = today - timedelta(days=HABIT_DAYS)
    return habit_numbers(logged_days(client, since, today, beside_the_plan=False))


def step(need: str, client: Client) -> tuple[str, str] | None:
    """For the list of clients: the steps that are done in the journal."""
    steps = {
        LOOK_AT_DAYS: ("See why", reverse("journal:stall")),
        LOOK_AT_CHANGE: ("Look at the change", f"{reverse('journal:stall')}#changes"),
        SIGN: ("Sign it", reverse("journal:visits")),
        TELL: ("Look at the weights", reverse("journal:page")),
    }
    return steps.get(need)
