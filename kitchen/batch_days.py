"""The days of a client's weeks on which something is cooked: what a session is begun from."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from django.utils import timezone

from clients.models import Client
from kitchen.models import CookingSession
from week.models import Week
from week.pots import Pot
from week.reckoning import reckon_week

# Weeks that ended before this are no longer offered.
BACK = timedelta(days=7)
MOST_WEEKS = 3


@dataclass(frozen=True, kw_only=True)
class BatchDay:
    """A day of a week with its pots; `session` is the one that is planned for it already."""

    week: Week
    on: date
    pots: tuple[Pot, ...]
    session: CookingSession | None = None

    @property
    def key(self) -> str:
        return f"{self.week.pk}.{self.on:%Y-%m-%d}"

    @property
    def names(self) -> list[str]:
        return [pot.name for pot in self.pots]


def batch_days_of(client: Client) -> list[BatchDay]:
    """The days on which pots are cooked in the client's weeks, from a week ago on."""
    today = timezone.localdate()
    weeks = [
        week
        for week in Week.objects.filter(client=client, archived=None).order_by("start")
        if week.last >= today - BACK
    ]
    planned = {
        (row.week_id, row.day): row
        for row in CookingSession.objects.filter(client=client).exclude(week=None)
    }
    out = []
    for week in weeks[-MOST_WEEKS:]:
        by_day: dict[date, list[Pot]] = {}
        for pot in reckon_week(week).pots:
            if pot.recipe.method.strip():
                by_day.setdefault(pot.cooked_on, []).append(pot)
        for on, pots in sorted(by_day.items()):
            if any(pot.cooked.prepared.cooks for pot in pots) and on >= today - BACK:
                out.append(
                    BatchDay(
                        week=week,
                        on=on,
                        pots=tuple(pots),
                        session=planned.get((week.pk, on)),
                    )
                )
    return out


def batch_day_of(client: Client, key: str) -> BatchDay | None:
    """The day that a form named; None for none."""
    if not key:
        return None
    return next((one for one in batch_days_of(client) if one.key == key), None)
