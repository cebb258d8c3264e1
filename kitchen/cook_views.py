"""Cooking a session: what now, what next, timers, lines to tick; what the page tells while it is
cooked from."""

from __future__ import annotations

from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils.dateformat import format as dated
from django.views.decorators.http import require_POST

from clients.pages.context import PageRequest
from kitchen.cook_page import cook_context, events_of
from kitchen.models import CookingSession
from kitchen.opened import opened
from kitchen.page import context_of
from paper.sheets import Paper, answer


def sheet(request: PageRequest, pk: int) -> HttpResponse:
    """The prep sheet, to print."""
    row, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    return answer(request, sheet_paper(request, row))


def sheet_paper(request: PageRequest, row: CookingSession) -> Paper:
    """The prep sheet: the timeline, and the order of work."""
    return Paper(
        title=f"Cooking on {dated(row.day, 'l, F j')}",
        template="kitchen/sheet.html",
        context=context_of(request, row),
        back=(reverse("kitchen:page", args=[row.pk]), "Back to the timeline"),
        whom=f"for {row.client.name}",
        kind="one-page prep-sheet",
    )


def cook(request: PageRequest, pk: int) -> HttpResponse:
    """The whole session at the stove."""
    row, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    addresses = {
        "outer": "base.html",
        "events_address": reverse("kitchen:events", args=[pk]),
        "weigh_address": reverse("kitchen:weigh", args=[pk]),
        "worker_address": reverse("shopping:worker"),
        "back": (reverse("kitchen:page", args=[pk]), "To the timeline"),
    }
    context = cook_context(request.practice, row) | addresses
    return render(request, "kitchen/cook.html", context)


@require_POST
def events(request: PageRequest, pk: int) -> HttpResponse:
    """What the cook told since: from the page as it comes, or later, when there is a connection
    again. A form without script tells one thing and comes back to the page."""
    row, _elsewhere = opened(request, pk)
    return events_of(request, row) or redirect("kitchen:cook", pk)
