"""A week planned: the search begun, asked how far it is, stopped and kept."""

from __future__ import annotations

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST
from django_htmx.http import retarget

from clients.pages.context import PageRequest
from nutrition.planning.proposals import MOST_WEEKS, PlannedWeek, weeks
from nutrition.planning.week import BadWeek
from webkit.asked import short
from week import running
from week.models import Week
from week.page import PAGES
from week.problem import Posed, plan_for, pose
from week.proposed import as_kept


def _key(week: Week) -> str:
    return f"{week.practice_id}-{week.pk}"


def _posed(week: Week) -> tuple[Posed | None, str]:
    """The problem, or why there is none."""
    plan = plan_for(week)
    if plan.day is None:
        return None, plan.problem or "The client's targets are not known."
    try:
        posed = pose(week)
    except BadWeek as error:
        return None, str(error)
    if not posed.problem.slots:
        return None, "The skeleton has no meals: write some into it first."
    return posed, ""


def _empty_words(posed: Posed) -> str:
    """The kinds of slot that nothing may stand in, in words; empty for none."""
    problem = posed.problem
    empty = sorted({slot.kind for slot in problem.slots if not problem.choices(slot)})
    if not empty:
        return ""
    kinds = ", ".join(f"“{kind}”" for kind in empty)
    return (
        f"Nothing that may be served can stand for {kinds}: those places stay empty. Write a "
        f"recipe of that kind, keep a favorite for it, or take it out of the skeleton."
    )


@require_POST
def plan(request: PageRequest, pk: int) -> HttpResponse:
    """Begin to plan: in the background where the page can ask after it, at once where it cannot."""
    week, _elsewhere = PAGES.opened(request, pk)
    posed, problem = _posed(week)
    if posed is None:
        messages.error(request, problem)
        return _whole(request, week)
    most = 1 if "one" in request.POST else MOST_WEEKS
    if not request.htmx:
        _keep(week, posed, weeks(posed.problem, most))
        if words := _empty_words(posed):
            messages.info(request, words)
        return redirect(f"{reverse('week:page', args=[pk])}#proposals")
    try:
        token = running.begin(_key(week), posed.problem, most)
    except running.TooMany as error:
        messages.error(request, str(error))
        return _whole(request, week)
    return _progress(request, week, token, running.running(token, _key(week)))


def _keep(week: Week, posed: Posed, found: list[PlannedWeek]) -> None:
    week.proposals = as_kept(week, posed, found)
    Week.with_removed.filter(pk=week.pk).update(proposals=week.proposals)


def progress(request: PageRequest, pk: int, token: str) -> HttpResponse:
    """How far a search is; what it found once it is over. Asked to stop, it keeps the best until
    then."""
    week, elsewhere = PAGES.opened(request, pk)
    if elsewhere:
        return elsewhere
    run = running.running(token, _key(week))
    if run is None:
        messages.error(request, "That search is forgotten: plan it again.")
        return _whole(request, week)
    if request.method == "POST" and short(request.POST, "stop", 5):
        run.stop.set()
        run.done.wait(timeout=5.0)
    if not run.done.is_set():
        return _progress(request, week, token, run)
    running.done_with(token)
    if run.failed or not run.found:
        messages.error(
            request,
            "No week was found: what may be served cannot be cooked in time for these meals. Keep "
            "more favorites, or change the skeleton."
            if not run.failed
            else "The search failed, and says so in the log. Nothing was changed.",
        )
        return _whole(request, week)
    posed, problem = _posed(week)
    if posed is None:
        messages.error(request, problem)
        return _whole(request, week)
    _keep(week, posed, run.found)
    if words := _empty_words(posed):
        messages.info(request, words)
    return _whole(request, week)


def _progress(
    request: PageRequest, week: Week, token: str, run: running.Run | None
) -> HttpResponse:
    page = render(request, "week/_progress.html", {"week": week, "token": token, "run": run})
    return retarget(page, "#planning")


def _whole(request: PageRequest, week: Week) -> HttpResponse:
    """The page as it is, whatever part of it asked."""
    page = PAGES.answer(request, week)
    return retarget(page, "#work") if request.htmx else page


@require_POST
def drop(request: PageRequest, pk: int) -> HttpResponse:
    """The proposals are put away; the week stays as it is."""
    week, _elsewhere = PAGES.opened(request, pk)
    week.proposals = []
    Week.with_removed.filter(pk=week.pk).update(proposals=[])
    return PAGES.answer(request, week)
