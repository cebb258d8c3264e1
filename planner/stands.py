"""Which meal a bowl is, by the days it stands in."""

from __future__ import annotations

from django.utils import timezone

from bowls.models import Bowl
from clients.models import Client
from planner.models import DayEntry


def meal_it_stands_in(bowl: Bowl, client: Client | None) -> str:
    """The meal of the day nearest to today in which the client has this bowl; empty for none."""
    if client is None or bowl.pk is None:
        return ""
    rows = DayEntry.objects.filter(bowl=bowl, day__client=client, day__removed=None)
    today = timezone.localdate()
    found = [(abs((row.day.date - today).days), row.meal) for row in rows.select_related("day")]
    return min(found)[1] if found else ""
