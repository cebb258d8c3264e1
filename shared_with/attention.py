"""That a client told something which nobody has seen yet."""

from __future__ import annotations

from datetime import date

from django.urls import reverse
from django.utils import timezone

from clients.models import Client
from nutrition.follow_up.attention import Need
from shared_with.models import Told

SEE_TOLD = "see-told"


def to_attend(client: Client, _today: date) -> list[Need]:
    """What was told and not seen, since the first of it."""
    rows = Told.objects.filter(client=client, seen=None).order_by("at")
    first, count = rows.first(), rows.count()
    if first is None:
        return []
    things = "1 thing" if count == 1 else f"{count} things"
    words = f"They told {things} by their link"
    return [Need(words, SEE_TOLD, timezone.localtime(first.at).date())]


def step(need: str, _client: Client) -> tuple[str, str] | None:
    """For the list of clients, and their page."""
    return ("See what they told", reverse("shared_with:links")) if need == SEE_TOLD else None
