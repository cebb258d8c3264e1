"""Links as the practice sees them: given, limited, their use seen, taken back; what came back by
them."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import segno
from django.contrib import messages
from django.contrib.auth.hashers import make_password
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils import timezone
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.context import PageRequest
from journal.client_pages import for_a_client
from shared_with.addresses import address_of
from shared_with.door import opens
from shared_with.forms import USUAL_DAYS, LinkForm
from shared_with.models import SHOWS, Link, Told

# So much of what was told, and of the use, is listed.
SHOWN_TOLD, SHOWN_USES = 60, 14


def _usual() -> dict[str, Any]:
    return {"shows": list(SHOWS), "until": timezone.localdate() + timedelta(days=USUAL_DAYS)}


def _row(request: PageRequest, link: Link) -> dict[str, Any]:
    """A link as it is listed: its address to be sent, or scanned from the screen."""
    address = request.build_absolute_uri(address_of(link))
    opens_now = opens(link)
    drawn = segno.make(address, error="m").svg_inline(scale=3, border=2, omitsize=True)
    return {
        "link": link,
        "opens": opens_now,
        "address": address,
        "drawn": drawn if opens_now else "",
        "shows": [words for key, words in SHOWS.items() if key in link.shows],
        "uses": link.days_used.all()[:SHOWN_USES],
    }


def _page(
    request: PageRequest, client: Client, status: int = 200, form: LinkForm | None = None
) -> HttpResponse:
    told = Told.objects.filter(client=client).select_related("seen_by")[:SHOWN_TOLD]
    context = {
        "client": client,
        "links": [_row(request, link) for link in Link.objects.filter(client=client)[:20]],
        "form": form or LinkForm(initial=_usual()),
        "told": told,
        "unseen": [one for one in told if one.seen is None],
    }
    return render(request, "shared_with/links.html", context, status=status)


@for_a_client
def links(request: PageRequest, client: Client) -> HttpResponse:
    return _page(request, client)


@require_POST
@for_a_client
def new(request: PageRequest, client: Client) -> HttpResponse:
    """A new link; those that the client has stay as they are."""
    form = LinkForm(request.POST)
    if not form.is_valid():
        return _page(request, client, 400, form)
    data = form.cleaned_data
    Link.objects.create(
        practice=request.practice,
        client=client,
        shows=data["shows"],
        until=data["until"],
        code=make_password(data["code"]) if data["code"] else "",
        by=request.user,
    )
    messages.success(request, "The link opens. Send it to them, or let them scan it.")
    return redirect("shared_with:links")


@require_POST
@for_a_client
def change(request: PageRequest, client: Client, pk: int) -> HttpResponse:
    """A link is taken back; or opens for longer."""
    link = get_object_or_404(Link, client=client, pk=pk)
    if "longer" in request.POST and link.taken_back is None:
        link.until = timezone.localdate() + timedelta(days=USUAL_DAYS)
        link.save(update_fields=["until"])
        messages.success(request, f"It opens until {link.until:%B} {link.until.day}.")
    elif link.taken_back is None:
        link.taken_back = timezone.now()
        link.save(update_fields=["taken_back"])
        messages.info(request, "It is taken back: it opens nothing any more.")
    return redirect("shared_with:links")


@require_POST
@for_a_client
def seen(request: PageRequest, client: Client) -> HttpResponse:
    """What was told and is shown was seen."""
    keys = [int(one) for one in request.POST.getlist("told") if one.isascii() and one.isdigit()]
    now = timezone.now()
    for row in Told.objects.filter(client=client, seen=None, pk__in=keys):
        row.seen, row.seen_by = now, request.user
        row.save(update_fields=["seen", "seen_by"])
    messages.success(request, "Seen.")
    return redirect("shared_with:links")
