"""The record on the page: of a client, of one thing, of the practice."""

from __future__ import annotations

from typing import Any

from django.core.paginator import Paginator
from django.http import Http404, HttpResponse
from django.shortcuts import render
from django.urls import reverse
from django.views.decorators.http import require_GET

from clients.models import Client
from clients.pages.context import PageRequest
from journal.client_pages import for_a_client
from practice.record_pages import RecordPages
from record import reads
from record.models import CHANGED, READ, Entry
from rights import words
from rights.things import PAGES_OF

# So many entries are shown at once.
SHOWN = 60
KINDS = (
    ("changed", "what was changed"),
    ("handed", "what was printed, exported or handed over"),
    ("read", "what was read"),
    ("all", "everything"),
)


def _asked(request: PageRequest) -> str:
    asked = request.GET.get("show", "changed")
    return asked if asked in dict(KINDS) else "changed"


def _shown(request: PageRequest, rows: Any, kind: str) -> dict[str, Any]:
    if kind == "changed":
        rows = rows.filter(act=CHANGED)
    elif kind == "read":
        rows = rows.filter(act=READ)
    elif kind == "handed":
        rows = rows.exclude(act__in=(CHANGED, READ))
    page = Paginator(rows.order_by("-number"), SHOWN).get_page(request.GET.get("page"))
    deeds = words.deeds(list(page.object_list))
    for one in (entry for deed in deeds for entry in deed.entries):
        if one.kind in PAGES_OF and one.thing is not None:
            one.address = reverse("rights:thing", args=[one.kind, one.thing])
    return {
        "kinds": KINDS,
        "kind": kind,
        "page": page,
        "deeds": deeds,
    }


@require_GET
@for_a_client
def of_client(request: PageRequest, client: Client) -> HttpResponse:
    """What was done with one client's data, and by whom."""
    reads.fold()
    rows = Entry.objects.filter(practice=request.practice.pk, client=client.pk)
    context = _shown(request, rows, _asked(request)) | {"client": client, "of": client.name}
    return render(request, "rights/record.html", context)


@require_GET
def of_practice(request: PageRequest) -> HttpResponse:
    """What was done in the practice."""
    reads.fold()
    rows = Entry.objects.filter(practice=request.practice.pk)
    context = _shown(request, rows, _asked(request)) | {"of": request.practice.name}
    return render(request, "rights/record.html", context)


@require_GET
def of_thing(request: PageRequest, kind: str, pk: int) -> HttpResponse:
    """What became of one bowl, day, week, recipe or note, with the steps back."""
    pages: RecordPages | None = PAGES_OF.get(kind)
    if pages is None:
        raise Http404("no such kind")
    record = pages.stored(pk)
    rows = Entry.objects.filter(practice=request.practice.pk, of_kind=kind, of_thing=pk)
    context = _shown(request, rows, "changed") | {
        "of": pages.named(record),
        "thing": record,
        "address": pages.address(record),
        "last_change": getattr(record, "last_change", None),
        "undo": f"{pages.app}:undo" if hasattr(record, "step_back") else "",
        "versions": f"{pages.app}:versions" if hasattr(record, "versions") else "",
    }
    return render(request, "rights/record.html", context)
