"""How long what is known of a client is kept: by the practice's rule, with a warning before."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from django.db.models import Max
from django.utils import timezone
from django_scopes import scope

from clients.models import Client
from practice.models import Practice
from rights.erasing import erase
from rights.models import Warned

# Before anybody is erased it is said for so long.
WARNING = timedelta(days=60)
# What counts as still being a client: the newest date of each.
ACTIVITY = (
    ("weigh_ins", "date"),
    ("visits", "date"),
    ("days", "date"),
    ("weeks", "start"),
    ("logged_days", "date"),
    ("blood_values", "date"),
)


@dataclass(frozen=True)
class Due:
    """A client whose time is up, or nearly: since when nothing came of them, and when they are
    due."""

    client: Client
    last: date
    on: date
    warned: date | None
    why_kept: str


def years_after(day: date, years: int) -> date:
    """The same day so many years on; the day after where there is none."""
    try:
        return day.replace(year=day.year + years)
    except ValueError:
        return date(day.year + years, 3, 1)


def last_of(client: Client) -> date:
    """When something of a client was last planned, weighed, logged or written."""
    newest = [getattr(client, rows).aggregate(last=Max(field))["last"] for rows, field in ACTIVITY]
    # what was planned for a day that is to come was planned by today
    today = timezone.localdate()
    known = [min(one, today) for one in newest if one is not None]
    return max([*known, timezone.localtime(client.updated).date()])


def due_on(client: Client, years: int) -> date:
    """When a client's time is up; later where somebody keeps it."""
    warned = Warned.objects.filter(client=client).first()
    by_rule = years_after(last_of(client), years)
    kept = warned.keep_until if warned else None
    return max(by_rule, kept) if kept else by_rule


def due_soon(practice: Practice) -> list[Due]:
    """Clients who are due within the time of the warning, the first due first."""
    if practice.keep_years is None:
        return []
    today = timezone.localdate()
    out = []
    for client in Client.with_removed.filter(practice=practice):
        on = due_on(client, practice.keep_years)
        if on <= today + WARNING:
            warned = Warned.objects.filter(client=client).first()
            out.append(
                Due(
                    client=client,
                    last=last_of(client),
                    on=on,
                    warned=warned.since if warned else None,
                    why_kept=warned.why if warned else "",
                )
            )
    return sorted(out, key=lambda one: one.on)


def keep_the_rules() -> str:
    """Once a night: warn of who is due, and erase who was due and warned of for long enough, where
    the practice's rule says so."""
    warned = erased = 0
    for practice in Practice.objects.exclude(keep_years=None):
        with timezone.override(practice.time_zone), scope(practice=practice):
            today = timezone.localdate()
            due = due_soon(practice)
            Warned.objects.exclude(client__in=[one.client for one in due]).filter(
                keep_until=None
            ).delete()
            for one in due:
                row, made = Warned.objects.get_or_create(
                    client=one.client, defaults={"since": today}
                )
                warned += made
                over = one.on <= today and row.since + WARNING <= today
                if practice.erase_when_due and over:
                    erase(one.client, None)
                    erased += 1
    return f"{warned} warned of, {erased} erased"
