"""What was eaten: averages over the days that were logged, against targets and against the plan;
and the few dishes that were liked."""

from __future__ import annotations

from datetime import timedelta

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.context import PageRequest
from clients.plan.in_force import plan_of
from journal.client_pages import for_a_client
from journal.eaten.feeling import beside_food
from journal.eaten.likings import eaten_lately
from journal.eaten.strips import days_back
from journal.record.reading import read
from webkit.request_values import short
from week.favorites import decide

SPANS = (7, 14, 28, 56)
USUAL_SPAN = 14


@for_a_client
def eaten(request: PageRequest, client: Client) -> HttpResponse:
    today = timezone.localdate()
    asked = request.GET.get("days", "")
    days = int(asked) if asked.isdigit() and int(asked) in SPANS else USUAL_SPAN
    known = read(client, today, plan_of(client))
    lately = known.lately(days)
    felt = client.felt.filter(date__gt=today - timedelta(days=days))
    context = {
        "client": client,
        "span": days,
        "spans": SPANS,
        "whole": known.whole_in(days),
        "averages": known.averages(days),
        "parted": known.parted(days),
        "reported": known.reported(days),
        "days": days_back(client, today, days, known.record.logged),
        "feeling": beside_food(list(felt), lately),
        "counting_harms": client.counting_harms,
    }
    return render(request, "journal/eaten.html", context)


@for_a_client
def liked(request: PageRequest, client: Client) -> HttpResponse:
    rows, filled = eaten_lately(client, timezone.localdate())
    context = {"client": client, "rows": rows, "filled": filled}
    return render(request, "journal/liked.html", context)


@require_POST
@for_a_client
def decided(request: PageRequest, client: Client) -> HttpResponse:
    """A dish is kept, or refused, for its kind."""
    data = request.POST
    verdict = "kept" if data.get("verdict") == "kept" else "refused"
    kind, key = short(data, "kind", 20), short(data, "key", 100)
    if decide(client, kind, key, verdict, request.user) is None:
        messages.error(request, "That dish is no longer there.")
    return redirect("journal:liked")
