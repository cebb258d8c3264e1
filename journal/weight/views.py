"""All weigh-ins of a client: typed, pasted, or from a file."""

from __future__ import annotations

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.context import PageRequest
from clients.plan.attention import judged_now
from clients.plan.in_force import plan_of
from journal.client_pages import for_a_client
from journal.weight.chart import line_of
from journal.weight.paste import keep_weights, read_weights
from practice.removal import offered_back
from webkit.request_values import TooLong, text_or_file

FIRST = {"day": True, "month": False}


@for_a_client
def weights(request: PageRequest, client: Client) -> HttpResponse:
    return render(request, "journal/weights.html", _context(client))


def _context(client: Client) -> dict[str, object]:
    today = timezone.localdate()
    judged = judged_now(client, today)
    line = line_of(client, client.person(), plan_of(client), judged.trend, today)
    return {
        "client": client,
        "line": line,
        "removed": offered_back(client.weigh_ins(manager="with_removed")),
    }


@require_POST
@for_a_client
def paste(request: PageRequest, client: Client) -> HttpResponse:
    """Weigh-ins from what was pasted or sent as a file: shown as they were read, then kept."""
    try:
        text = text_or_file(request)
    except TooLong as error:
        sent = {"text": request.POST.get("text", ""), "too_long": str(error)}
        return render(request, "journal/weights.html", _context(client) | sent, status=400)
    pounds = request.POST.get("unit") == "lb"
    first = request.POST.get("first", "")
    read = read_weights(text, client, timezone.localdate(), pounds, FIRST.get(first))
    context = _context(client) | {
        "read": read,
        "text": text,
        "unit": "lb" if pounds else "kg",
        "first": first,
    }
    if not read.rows:
        return render(request, "journal/weights.html", context, status=400)
    if "keep" not in request.POST:
        return render(request, "journal/weights.html", context)
    agreed = set(request.POST.getlist("agreed"))
    kept = keep_weights(client, read.rows, agreed, request.user)
    left = sum(1 for row in read.asked if row.key not in agreed)
    said = f"{kept} weigh-ins saved"
    said += f"; {left} that were asked about were left out" if left else ""
    said += f"; {read.same} were there already" if read.same else ""
    messages.success(request, f"{said}.")
    return redirect("journal:weights")
