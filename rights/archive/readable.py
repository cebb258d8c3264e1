"""A client's archive as a page that a person reads and prints."""

from __future__ import annotations

from datetime import date

from django.template.loader import render_to_string
from django.utils import timezone

from clients.models import BloodValue, CautionDismissal, Client, TargetOverride, WeighIn
from journal.models import Visit
from journal.visits.notes import sections_of
from practice.undo import Undoable
from recipes.models import Recipe
from rights.models import Consent


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
        "dated": [
            ("What was eaten", [_on(row, row.date) for row in client.logged_days.all()]),
            ("Days that were planned", [_on(row, row.date) for row in client.days.all()]),
            ("Weeks that were planned, from", [_on(row, row.start) for row in client.weeks.all()]),
        ],
        "recipes": Recipe.objects.filter(client=client),
    }
    return render_to_string("rights/readable.html", context).encode()


def _visit(visit: Visit) -> tuple[Visit, list[tuple[str, str]]]:
    names = {key: name for key, name, _ask, _figures in sections_of(visit)}
    said = [(names.get(key, key), words) for key, words in visit.words.items() if words]
    return visit, said


def _on(record: Undoable, day: date) -> tuple[date, list[str]]:
    """A day, and what it holds in words."""
    return day, [record.undo_words(row) for row in record._rows_now()]
