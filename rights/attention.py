"""That what is known of somebody has been kept as long as the practice's rule says."""

from __future__ import annotations

from datetime import date

from django.urls import reverse

from clients.models import Client
from nutrition.follow_up.attention import Need
from rights.models import Warned

KEPT_LONG = "kept-long"


def to_attend(client: Client, today: date) -> list[Need]:
    """The warning, from the day that it was given."""
    row = Warned.objects.filter(client=client, keep_until=None).first()
    words = "What is kept of them is due to be erased by the practice's rule"
    return [Need(words, KEPT_LONG, row.since)] if row is not None else []


def step(need: str, client: Client) -> tuple[str, str] | None:
    """For the list of clients, and their page."""
    return ("Look at it", reverse("rights:client")) if need == KEPT_LONG else None
