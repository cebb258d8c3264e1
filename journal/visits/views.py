"""Visits: begun from the record, written, signed, added to, printed."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils import timezone
from django.utils.dateformat import format as dated
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.client_records import ClientRecordPages
from clients.pages.context import PageRequest
from journal.client_pages import for_a_client
from journal.models import Addendum, Visit
from journal.visits.appointments import next_visit
from journal.visits.forms import AppointmentForm
from journal.visits.notes import MOST_WORDS, NEXT, figures_of, sections_of, sign, visit_before
from paper.sheets import Paper, answer
from practice.removal import offered_back
from practice.versioned import StaleSave, version_in
from webkit.request_values import TooLong, whole

FORMS = dict(Visit.FORMS)
# What an addendum and a name hold. [characters]
MOST_ADDED, MOST_NAME = 4000, 160


@for_a_client
def visits(request: PageRequest, client: Client) -> HttpResponse:
    return list_of(request, client)


def list_of(
    request: PageRequest, client: Client, status: int = 200, **more: object
) -> HttpResponse:
    """The visits, and when the next one is; with a form that was refused in its place."""
    there = next_visit(client)
    context = {
        "appointment": there,
        "appointment_form": AppointmentForm(instance=there),
        "client": client,
        "visits": client.visits.select_related("by")[:50],
        "forms": Visit.FORMS,
        "removed": offered_back(client.visits(manager="with_removed")),
    }
    return render(request, "journal/visits.html", context | more, status=status)


@require_POST
@for_a_client
def appoint(request: PageRequest, client: Client) -> HttpResponse:
    """Set the next visit, move it, or call it off."""
    there = next_visit(client)
    if "off" in request.POST and there is not None:
        there.remove(request.user)
        messages.info(request, "The visit is called off.")
        return redirect("journal:visits")
    form = AppointmentForm(request.POST, instance=there)
    if not form.is_valid():
        return list_of(request, client, 400, appointment_form=form)
    row = form.save(commit=False)
    row.client = client
    row.save()
    messages.success(request, "The next visit is set, and stands in the client's calendar.")
    return redirect("journal:visits")


@require_POST
@for_a_client
def new(request: PageRequest, client: Client) -> HttpResponse:
    form = request.POST.get("form", "full")
    open_one = client.visits.filter(signed=None, date=timezone.localdate()).first()
    visit = open_one or Visit.objects.create(
        practice=request.practice,
        client=client,
        date=timezone.localdate(),
        form=form if form in FORMS else "full",
        by=request.user,
    )
    return redirect("journal:visit", visit.pk)


class VisitPages(ClientRecordPages[Visit]):
    """A note that is not signed is put away, or brought back; a signed one stays."""

    app, noun, model = "journal", "note", Visit
    list_name, page_name = "visits", "visit"

    def named(self, visit: Visit) -> str:
        return f"The note of {visit.date:%B %-d}"

    def put_away(self, request: PageRequest, visit: Visit) -> str:
        if visit.signed:
            messages.error(request, "A signed note stays in the record. Write an addendum.")
            return self.address(visit)
        visit.remove(request.user)
        messages.info(request, "The note is archived; it can be brought back below.")
        return self.list_address


PAGES = VisitPages()


def _page(
    request: PageRequest,
    visit: Visit,
    status: int = 200,
    typed: dict[str, str] | None = None,
    **more: object,
) -> HttpResponse:
    before = visit_before(visit)
    context = {
        **_written(visit, typed or visit.words),
        "before": before,
        "before_fields": [
            (name, before.words.get(key, "")) for key, name, _ask in NEXT if before.words.get(key)
        ]
        if before
        else [],
        "signed_as": request.user.shown_name,
    } | more
    return render(request, "journal/visit.html", context, status=status)


def _written(visit: Visit, words: dict[str, str]) -> dict[str, Any]:
    """What stands in a note: its sections with their figures, and what is for the next one."""
    figures = figures_of(visit)
    return {
        "client": visit.client,
        "visit": visit,
        "sections": [
            {
                "key": key,
                "name": name,
                "ask": ask,
                "figures": [one for one in figures if one.section == key],
                "words": words.get(key, ""),
            }
            for key, name, ask, _figures in sections_of(visit)
        ],
        "next_fields": [(key, name, words.get(key, "")) for key, name, _ask in NEXT],
        "addenda": visit.addenda.select_related("by"),
    }


def visit_paper(request: PageRequest, pk: int) -> HttpResponse:
    row, elsewhere = PAGES.opened(request, pk)
    return elsewhere or answer(request, paper_of(row))


def paper_of(visit: Visit) -> Paper:
    """A note on paper, for the file of whoever keeps one."""
    return Paper(
        title=f"Visit, {dated(visit.date, 'F j, Y')}",
        template="journal/visit_paper.html",
        context=_written(visit, visit.words),
        back=(reverse("journal:visit", args=[visit.pk]), "Back to the note"),
        whom=f"of {visit.client.name}",
        kind="visit-paper",
        to_client=False,
    )


def visit(request: PageRequest, pk: int) -> HttpResponse:
    row, elsewhere = PAGES.opened(request, pk)
    if elsewhere:
        return elsewhere
    if request.method != "POST":
        return _page(request, row)
    return _save(request, row)


def _typed(request: PageRequest, row: Visit) -> dict[str, str]:
    names = [one[0] for one in sections_of(row)] + [one[0] for one in NEXT]
    return {name: request.POST.get(name, "").strip() for name in names}


def _save(request: PageRequest, row: Visit) -> HttpResponse:
    """What was written is kept; or kept and signed."""
    typed = _typed(request, row)
    if row.signed:
        messages.error(
            request,
            "This note was signed meanwhile, and a signed note stays as it is. What you wrote is "
            "below: add it as an addendum.",
        )
        return _page(request, row, 409, addendum="\n\n".join(one for one in typed.values() if one))
    version = version_in(request.POST.get("version")) or 0
    try:
        for name in typed:
            whole(request.POST, name, MOST_WORDS)
        signed_as = whole(request.POST, "signed_as", MOST_NAME)
    except TooLong as error:
        return _page(request, row, 400, typed=typed, too_long=str(error))
    row.words = typed
    signing = "sign" in request.POST
    if signing and not signed_as:
        return _page(request, row, 400, sign_error="Write your name, and what you sign as.")
    if signing and not any(typed[key] for key, *_rest in sections_of(row)):
        return _page(
            request, row, 400, sign_error="Nothing is written yet: there is nothing to sign."
        )
    try:
        if signing:
            sign(row, request.user, signed_as, version, timezone.now())
        else:
            row.save_over(version)
    except StaleSave as error:
        stored: Visit = error.current
        if stored.signed:
            return _save(request, stored)
        return _page(request, stored, 409, theirs=stored.words, typed=typed, stale=True)
    if signing:
        messages.success(request, f"Signed as {signed_as}. The note is closed.")
    else:
        messages.success(request, "Saved.")
    return redirect("journal:visit", row.pk)


@require_POST
def add(request: PageRequest, pk: int) -> HttpResponse:
    """An addendum to a signed note, under its own name and date."""
    row, _elsewhere = PAGES.opened(request, pk)
    try:
        words = whole(request.POST, "words", MOST_ADDED)
        name = whole(request.POST, "signed_as", MOST_NAME)
    except TooLong as error:
        added = request.POST.get("words", "")
        return _page(request, row, 400, addendum=added, addendum_error=str(error))
    if not row.signed:
        messages.error(request, "The note is not signed yet: write into it.")
        return redirect("journal:visit", pk)
    if not words or not name:
        what = "what is to be added" if not words else "your name, and what you sign as"
        return _page(request, row, 400, addendum=words, addendum_error=f"Write {what}.")
    Addendum.objects.create(visit=row, words=words, signed_as=name, by=request.user)
    return redirect("journal:visit", pk)
