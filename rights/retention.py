"""How long what is known of a client is kept: by the practice's rule, with a warning before."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from django.db import models
from django.db.models import Max
from django.utils import timezone
from django_scopes import scope

from clients.models import BloodValue, Client, WeighIn
from journal.models import LoggedDay, Visit
from planner.models import Day
from practice.models import Practice
from rights.erasing import erase
from rights.models import Warned
from week.models import Week

# Before anybody is erased it is said for so long.
WARNING = timedelta(days=60)
# What counts as still being a client: the newest date of each.
ACTIVITY: tuple[tuple[type[models.Model], str], ...] = (
    (WeighIn, "date"),
    (Visit, "date"),
    (Day, "date"),
    (Week, "start"),
    (LoggedDay, "date"),
    (BloodValue, "date"),
)


@dataclass(frozen=True, kw_only=True)
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


def last_seen(clients: models.QuerySet[Client]) -> dict[int, date]:
    """When something of each of these clients was last planned, weighed, logged or written, by the
    client's key."""
    today = timezone.localdate()
    rows = clients.values_list("pk", "updated")
    out = {pk: timezone.localtime(updated).date() for pk, updated in rows}
    for kind, field in ACTIVITY:
        newest = kind._base_manager.filter(client__in=clients.values("pk")).values_list("client")
        for pk, last in newest.annotate(last=Max(field)).order_by():
            # what was planned for a day that is to come was planned by today
            out[pk] = max(out[pk], min(last, today))
    return out


def _due_on(last: date, years: int, kept_until: date | None) -> date:
    by_rule = years_after(last, years)
    return max(by_rule, kept_until) if kept_until else by_rule


def due_on(client: Client, years: int) -> date:
    """When a client's time is up; later where somebody keeps it."""
    warned = Warned.objects.filter(client=client).first()
    last = last_seen(Client.with_removed.filter(pk=client.pk))[client.pk]
    return _due_on(last, years, warned.keep_until if warned else None)


def due_soon(practice: Practice) -> list[Due]:
    """Clients who are due within the time of the warning, the first due first."""
    years = practice.keep_years
    if years is None:
        return []
    last = last_seen(Client.with_removed.filter(practice=practice))
    warned = {row.client_id: row for row in Warned.objects.filter(client__practice=practice)}
    until = {pk: row.keep_until for pk, row in warned.items()}
    latest = timezone.localdate() + WARNING
    on = {pk: _due_on(day, years, until.get(pk)) for pk, day in last.items()}
    soon = [pk for pk, day in on.items() if day <= latest]
    out = [
        Due(
            client=client,
            last=last[client.pk],
            on=on[client.pk],
            warned=warned[client.pk].since if client.pk in warned else None,
            why_kept=warned[client.pk].why if client.pk in warned else "",
        )
        for client in Client.with_removed.filter(pk__in=soon)
    ]
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
