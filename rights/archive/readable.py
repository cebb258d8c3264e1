"""A client's archive as a page that a person reads and prints."""

from __future__ import annotations

from typing import Any

from django.template.loader import render_to_string
from django.utils import timezone

from clients.models import BloodValue, CautionDismissal, Client, TargetOverride, WeighIn
from journal.models import LoggedDay, Visit
from journal.visits.notes import sections_of
from planner.models import Day
from recipes.models import Recipe
from rights.models import Consent
from week.models import Week


def page_of(client: Client) -> bytes:
    """One page with everything, in the order in which somebody asks for it; it stands alone,
    without styles or scripts from elsewhere."""
    context = {
        "client": client,
        "on": timezone.localdate(),
        "consents": Consent.objects.filter(client=client),
        "overrides": TargetOverride.objects.filter(client=client).select_related("by"),
        "weights": WeighIn.objects.filter(client=client).order_by("-date"),
        "blood": BloodValue.objects.filter(client=client).order_by("-date", "key"),
        "dismissals": CautionDismissal.objects.filter(client=client).select_related("by"),
        "visits": [_visit(row) for row in Visit.objects.filter(client=client)],
        "days": [_entries(row) for row in Day.objects.filter(client=client)],
        "logged": [_entries(row) for row in LoggedDay.objects.filter(client=client)],
        "weeks": [_entries(row) for row in Week.objects.filter(client=client)],
        "recipes": Recipe.objects.filter(client=client),
    }
    return render_to_string("rights/readable.html", context).encode()


def _visit(visit: Visit) -> tuple[Visit, list[tuple[str, str]]]:
    names = {key: name for key, name, _ask, _figures in sections_of(visit)}
    said = [(names.get(key, key), words) for key, words in visit.words.items() if words]
    return visit, said


def _entries(record: Any) -> tuple[Any, list[str]]:
    return record, [record.undo_words(row) for row in record._rows_now()]
