"""When somebody is seen next."""

from __future__ import annotations

from django.utils import timezone

from clients.models import Client
from journal.models import Appointment


def next_visit(client: Client) -> Appointment | None:
    """The visit that is next, until the day of it is over."""
    today = timezone.localdate()
    rows = client.appointments.filter(at__date__gte=today)
    return rows.first()
