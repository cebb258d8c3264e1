"""A week planned: the search begun, asked how far it is, stopped and kept."""

from __future__ import annotations

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST
from django_htmx.http import retarget

from clients.pages.context import PageRequest
from jobs.models import FAILED, WAITING, Job
from jobs.queue import ask_to_stop, job_of, waits_for
from jobs.work import CannotBe
from nutrition.planning.proposals import MOST_WEEKS
from week.models import Week
from week.page import PAGES
from week.proposals import compared, told
from week.search import KIND, about, search

# A page without script looks again after so long. [s]
LOOKS_AGAIN = 2


@require_POST
def plan(request: PageRequest, pk: int) -> HttpResponse:
    """Begin to plan; the page asks after it."""
    week, _elsewhere = PAGES.opened(request, pk)
    try:
        most = 1 if "one" in request.POST else MOST_WEEKS
        job = search(week, request.user, most, "no_additions" not in request.POST)
    except CannotBe as error:
        messages.error(request, str(error))
        return _whole(request, week)
    if not request.htmx:
        return redirect("week:progress", pk, job.pk)
    return _progress(request, week, job)


def progress(request: PageRequest, pk: int, job: int) -> HttpResponse:
    """How far a search is; what it found once it is over. Asked to stop, it keeps the best until
    then."""
    week, elsewhere = PAGES.opened(request, pk)
    if elsewhere:
        return elsewhere
    row = job_of(job, KIND, about(week))
    if row is None:
        messages.error(request, "That search is forgotten: plan it again.")
        return _whole(request, week)
    if request.method == "POST":
        ask_to_stop(row)
        row.stop = True
    if not row.over:
        return _progress(request, week, row)
    for words in row.told:
        (messages.error if row.state == FAILED else messages.info)(request, words)
    return _whole(request, week, "" if row.state == FAILED else "#proposals")


def _progress(request: PageRequest, week: Week, job: Job) -> HttpResponse:
    # what stood there before the search began is none of its own
    begun = job.state not in (WAITING,)
    found = told(PAGES.stored(week.pk)) if begun else []
    context = {
        "week": week,
        "job": job,
        "waits": waits_for(job),
        "proposals": found,
        "compared": compared(found) if len(found) > 1 else [],
    }
    if request.htmx:
        return retarget(render(request, "week/_progress.html", context), "#planning")
    page = render(request, "week/page.html", PAGES.context(request, week) | context)
    # without script the page looks again by itself
    page["Refresh"] = f"{LOOKS_AGAIN}; url={reverse('week:progress', args=[week.pk, job.pk])}"
    return page


def _whole(request: PageRequest, week: Week, place: str = "") -> HttpResponse:
    """The page as it is, whatever part of it asked."""
    if not request.htmx:
        return redirect(f"{PAGES.address(week)}{place}")
    return retarget(PAGES.answer(request, week), "#work")


@require_POST
def drop(request: PageRequest, pk: int) -> HttpResponse:
    """The proposals are put away; the week stays as it is."""
    week, _elsewhere = PAGES.opened(request, pk)
    week.proposals = []
    Week.with_removed.filter(pk=week.pk).update(proposals=[])
    return PAGES.answer(request, week)
