"""Handing over: what papers there are for a client, made into one file while the page waits."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.text import slugify
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.context import PageRequest
from handouts.bundles import KIND, about, begin_bundle
from handouts.models import Bundle
from handouts.papers import BUNDLES, bundled, offers
from jobs.models import DONE, Job
from jobs.queue import ask_to_stop, job_of, waits_for
from journal.client_pages import for_a_client
from paper.options import GRAY, LARGE

# A page without script looks again after so long. [s]
LOOKS_AGAIN = 2


def _context(client: Client, job: Job | None = None) -> dict[str, Any]:
    there = offers(client)
    bundles = [
        (key, name, ", ".join(one.name for one in bundled(there, key)))
        for key, (name, _kinds) in BUNDLES.items()
    ]
    return {"client": client, "offers": there, "bundles": bundles} | _how_far(client, job)


def _how_far(client: Client, job: Job | None) -> dict[str, Any]:
    if job is None:
        return {}
    made = int(job.told[0]) if job.state == DONE and job.told else 0
    bundle = Bundle.objects.filter(client=client, pk=made).first()
    return {"job": job, "waits": waits_for(job), "bundle": bundle}


@for_a_client
def page(request: PageRequest, client: Client) -> HttpResponse:
    return render(request, "handouts/page.html", _context(client))


@require_POST
@for_a_client
def make(request: PageRequest, client: Client) -> HttpResponse:
    """A bundle by its name, or the papers that are ticked."""
    name = request.POST.get("bundle", "")
    there = offers(client)
    if name:
        chosen, title = [one.key for one in bundled(there, name)], BUNDLES.get(name, ("",))[0]
    else:
        ticked = set(request.POST.getlist("paper"))
        chosen, title = [one.key for one in there if one.key in ticked], "Papers"
    if not chosen:
        messages.error(request, "Tick what is to be made.")
        return redirect("handouts:page")
    options = [one for one in (LARGE, GRAY) if one in request.POST]
    job = begin_bundle(client, request.user, f"{title} for {client.name}", chosen, options)
    if request.htmx:
        return render(request, "handouts/_making.html", _how_far(client, job))
    return redirect("handouts:making", job.pk)


@for_a_client
def making(request: PageRequest, client: Client, job: int) -> HttpResponse:
    """How far it is; where it is fetched, once it is over."""
    row = job_of(job, KIND, about(client))
    if row is None:
        messages.error(request, "Those papers are forgotten: make them again.")
        return redirect("handouts:page")
    if request.method == "POST":
        ask_to_stop(row)
        row.stop = True
    if request.htmx:
        return render(request, "handouts/_making.html", _how_far(client, row))
    answered = render(request, "handouts/page.html", _context(client, row))
    if not row.over:
        # without script the page looks again by itself
        answered["Refresh"] = f"{LOOKS_AGAIN}; url={reverse('handouts:making', args=[row.pk])}"
    return answered


@for_a_client
def made(request: PageRequest, client: Client, pk: int) -> HttpResponse:
    """What was made, to be looked at and printed."""
    bundle = get_object_or_404(Bundle, client=client, pk=pk)
    answered = HttpResponse(bytes(bundle.file), content_type="application/pdf")
    name = slugify(bundle.title)[:80] or "papers"
    answered["Content-Disposition"] = f'inline; filename="{name}.pdf"'
    return answered
