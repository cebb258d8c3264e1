"""The weeks of a client, and one of them: what stands in its slots, changed in place."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from django.contrib import messages
from django.db.models import Q
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.context import PageRequest, settle_on
from clients.plan.agreed import agreed_with
from clients.plan.strip import strip_context
from clients.plan.versions import version_on
from nutrition.planning.skeleton import as_data
from planner.models import MEALS
from practice.removal import offered_back
from practice.undo import asked_by
from practice.versioned import StaleSave, version_in
from webkit.asked import key_in, next_in, short
from webkit.listing import Lists, listed
from week import changes
from week.changes import NotThere
from week.dishes import thing_of
from week.forms import SettingsForm, WeekForm, form_of, next_monday
from week.made import make_days
from week.models import Week
from week.proposed import planned_in, told
from week.reckoned import Place, ReckonedWeek, reckon_week
from week.skeletons import skeleton_of
from week.slot import options_for
from week.told import told_of

WHOSE = Lists(search=("name",), sorts={"name": ("name", ("name",))})


def week_lists() -> Lists:
    """What the list of weeks can be asked for today."""
    return Lists(
        search=("note",),
        sorts={"new": ("newest", ("-start", "-pk")), "old": ("oldest", ("start", "pk"))},
        filters={
            "all": ("all", Q(archived=None)),
            "ahead": ("from this week on", Q(archived=None, start__gte=timezone.localdate())),
            "archived": ("archived", Q(archived__isnull=False)),
        },
    )


def _list(request: PageRequest, form: WeekForm, status: int = 200) -> HttpResponse:
    client = request.for_client
    rows = Week.objects.filter(client=client) if client else Week.objects.none()
    asked = listed(request, rows.select_related("client", "made_for"), week_lists())
    removed = offered_back(Week.with_removed.filter(client=client)) if client else []
    context = {
        "weeks": [reckon_week(row) for row in asked.page.object_list],
        "list": asked,
        "rows": asked.page,
        "form": form,
        "whose": listed(request, Client.objects.all(), WHOSE) if client is None else None,
        "nobody": not Client.objects.exists(),
        "removed": removed,
    }
    return render(request, "week/list.html", context, status=status)


def week_list(request: PageRequest) -> HttpResponse:
    return _list(request, WeekForm(initial={"start": next_monday(), "days": 7}))


@require_POST
def new(request: PageRequest) -> HttpResponse:
    """A week of the client in the address, with their skeleton and nothing in it yet."""
    client, form = request.for_client, WeekForm(request.POST)
    if client is None:
        messages.error(request, "Choose a client first: a week belongs to one.")
        return redirect("week:list")
    if not form.is_valid():
        return _list(request, form, 400)
    start = form.cleaned_data["start"]
    week = Week.objects.create(
        practice=request.practice,
        client=client,
        start=start,
        days=form.cleaned_data["days"],
        made_for=version_on(client, start),
        skeleton=as_data(skeleton_of(client)),
    )
    return redirect("week:page", week.pk)


def opened(request: PageRequest, pk: int) -> tuple[Week, HttpResponse | None]:
    """The week, and where to go instead if its client does not stand in the address."""
    rows = Week.with_removed.select_related("client", "made_for")
    week: Week = get_object_or_404(rows, pk=pk)
    week.practice = request.practice
    return week, settle_on(request, week.client)


def page_context(
    request: PageRequest, week: Week, moved: Sequence[int] = (), slot: str = "", q: str = ""
) -> dict[str, Any]:
    """What the page of a week needs; `moved` are the days that were just changed, `slot` is the one
    that is open."""
    reckoned = reckon_week(week, moved)
    client = week.client
    mean = reckoned.mean if reckoned.filled else None
    place = _place(reckoned, slot)
    return {
        "week": week,
        "client": client,
        "reckoned": reckoned,
        "plan": reckoned.plan,
        "newer_url": reverse("week:newer-targets", args=[week.pk]),
        "told": told_of(reckoned),
        "version": week.version,
        "last_change": week.last_change,
        "here": reverse("week:page", args=[week.pk]),
        "proposals": told(week),
        "agreed": agreed_with(client),
        "settings_form": form_of(week),
        "slot": place,
        "slot_day": reckoned.days[place.slot.day] if place else None,
        "options": options_for(week, place, q) if place else None,
        "q": q,
        "meal_names": dict(MEALS),
        "unplanned": not reckoned.filled,
    } | strip_context(request, reckoned.plan, mean, client, "The average day")


def _place(reckoned: ReckonedWeek, key: str) -> Place | None:
    return next(
        (
            place
            for day in reckoned.days
            for meal in day.meals
            for place in meal.places
            if place.key == key
        ),
        None,
    )


def answer(
    request: PageRequest,
    week: Week,
    moved: Sequence[int] = (),
    slot: str = "",
    status: int = 200,
    more: dict[str, Any] | None = None,
) -> HttpResponse:
    """The working part of the page after a change, or back to the page."""
    if request.htmx:
        context = page_context(request, week, moved, slot) | (more or {})
        shown = status if status == 409 else 200
        return render(request, "week/_work.html", context, status=shown)
    if status != 200 or more:
        context = page_context(request, week, moved, slot) | (more or {})
        return render(request, "week/page.html", context, status=max(status, 400))
    query = f"?slot={slot}" if slot else ""
    return redirect(f"{reverse('week:page', args=[week.pk])}{query}")


def stale_answer(request: PageRequest, stale: Week, what: str) -> HttpResponse:
    """A change of a week that somebody changed meanwhile: what they did, and what was not done."""
    who = stale.last_change[0] if stale.last_change else "Somebody else"
    theirs = (
        "; ".join(stale.changed_since(version_in(request.POST.get("version")) or 0))
        or "it is shown below as it is stored"
    )
    messages.error(
        request,
        f"{who} changed this week after you opened it: {theirs}. Yours was not made: {what}. Make "
        f"it again if it still fits.",
    )
    return answer(request, stale, status=409)


def page(request: PageRequest, pk: int) -> HttpResponse:
    week, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    slot, q = short(request.GET, "slot", 40), short(request.GET, "q")
    template = "week/_work.html" if request.htmx else "week/page.html"
    return render(request, template, page_context(request, week, slot=slot, q=q))


def slot(request: PageRequest, pk: int, key: str) -> HttpResponse:
    """One place of the week, opened: what stands there, and what else could."""
    week, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    context = page_context(request, week, slot=key, q=short(request.GET, "q"))
    if context["slot"] is None:
        messages.error(request, "There is no such place in the week.")
        return answer(request, week)
    return render(request, "week/_slot.html" if request.htmx else "week/page.html", context)


@require_POST
def change(request: PageRequest, pk: int, key: str) -> HttpResponse:
    """One place changed: something put there, more or less of it, pinned, moved, taken out."""
    week, _elsewhere = opened(request, pk)
    data = request.POST
    typed = short(data, "amount", 40)
    try:
        with week.changing(*asked_by(request)) as week:
            days, opens = _changed(week, key, data, typed)
    except StaleSave as error:
        return stale_answer(request, error.current, typed or "a change of one dish")
    except NotThere as error:
        stored = Week.with_removed.select_related("client", "made_for").get(pk=pk)
        if typed:
            more = {"slot_error": str(error), "slot_typed": typed}
            return answer(request, stored, slot=key, status=400, more=more)
        messages.error(request, str(error))
        return answer(request, stored, status=409)
    return answer(request, week, days, opens)


def _changed(week: Week, key: str, data: Any, typed: str) -> tuple[list[int], str]:
    """Do what was asked of a place: the days that it touched, and the place that stays open. Raises
    NotThere."""
    day, meal, place = changes.parts_of_slot(week, key)
    if "put" in data:
        thing = thing_of(short(data, "put", 100), week.client)
        if thing is None:
            raise NotThere("That dish is no longer there.")
        if data.get("beside"):
            key = changes.beside(week, day, meal)
        changes.put(week, key, thing, 1.0)
        return [day], key
    if "out" in data:
        key = changes.put_out(week, key, data["out"])
        return [day], key
    row = week.entries.filter(day=day, meal=meal, place=place).first()
    if row is None:
        raise NotThere("Nothing stands there any more: somebody took it out.")
    if "remove" in data:
        row.delete()
        return [day], ""
    if "pin" in data:
        week.entries.filter(pk=row.pk).update(locked=not row.locked)
        return [], key
    if "to" in data:
        to = key_in(data["to"])
        first, then = changes.move(week, row.pk, -1 if to is None else to)
        return [first, then], ""
    changes.set_amount(week, row, typed)
    return [day], key


@require_POST
def take(request: PageRequest, pk: int) -> HttpResponse:
    """A proposal becomes the week."""
    week, _elsewhere = opened(request, pk)
    at = key_in(request.POST.get("number", ""))
    if at is None or at >= len(week.proposals):
        messages.error(request, "That week is no longer offered: plan it again.")
        return answer(request, week, status=409)
    planned = planned_in(week.proposals[at])
    try:
        with week.changing(*asked_by(request)) as week:
            changed = changes.take(week, planned, week.client)
            week.proposals = []
            Week.with_removed.filter(pk=week.pk).update(proposals=[])
    except StaleSave as error:
        return stale_answer(request, error.current, "the week that was proposed")
    messages.success(request, f"Taken: {changed} places changed.")
    return answer(request, week, range(week.days))


@require_POST
def days(request: PageRequest, pk: int) -> HttpResponse:
    """The planner's days made of the week; a day that has something of its own is left alone."""
    week, _elsewhere = opened(request, pk)
    made, left = make_days(week, request.user)
    if made:
        messages.success(request, f"{len(made)} days stand in Days now.")
    if left:
        names = ", ".join(f"{day.date:%A}" for day in left)
        messages.info(
            request,
            f"{names}: there is a day already that was changed or planned by itself; it stays as "
            f"it is. Take it away first to make it from the week.",
        )
    if not made and not left:
        messages.error(request, "There is nothing in the week yet.")
    return redirect("week:page", pk)


@require_POST
def copy(request: PageRequest, pk: int) -> HttpResponse:
    """The week after it, the rotation moved on by one day."""
    week, _elsewhere = opened(request, pk)
    made = changes.copy_on(week)
    messages.success(
        request, "Copied, every dish a day later than last week; what is pinned kept its day."
    )
    return redirect("week:page", made.pk)


@require_POST
def settings(request: PageRequest, pk: int) -> HttpResponse:
    """Another note, other containers."""
    week, _elsewhere = opened(request, pk)
    form, status = SettingsForm(request.POST), 400
    if form.is_valid():
        asked = version_in(request.POST.get("version"))
        week.note = form.cleaned_data["note"]
        week.container_ml = form.cleaned_data["container_ml"]
        try:
            week.save_over(week.version if asked is None else asked)
            return redirect(next_in(request, reverse("week:page", args=[pk])))
        except StaleSave:
            form.add_error(None, "The week was changed meanwhile. Save again to set it.")
            status = 409
    stored = Week.with_removed.select_related("client", "made_for").get(pk=pk)
    context = page_context(request, stored) | {"settings_form": form}
    return render(request, "week/page.html", context, status=status)


@require_POST
def newer_targets(request: PageRequest, pk: int) -> HttpResponse:
    """Plan the week for the targets that are in force on its last day now; its days keep theirs."""
    week, _elsewhere = opened(request, pk)
    asked = version_in(request.POST.get("version"))
    week.made_for = version_on(week.client, week.last)
    try:
        week.save_over(week.version if asked is None else asked)
    except StaleSave as error:
        return stale_answer(request, error.current, "the newer targets")
    return redirect("week:page", pk)


@require_POST
def undo(request: PageRequest, pk: int) -> HttpResponse:
    week, _elsewhere = opened(request, pk)
    version, _by, page_id = asked_by(request)
    try:
        whose = week.step_back(version, page_id)
    except StaleSave as error:
        return stale_answer(request, error.current, "the step back")
    if whose and whose != request.user.shown_name:
        messages.info(request, f"Undone: what {whose} changed.")
    stored = Week.with_removed.select_related("client", "made_for").get(pk=pk)
    return answer(request, stored, range(week.days))


@require_POST
def archive(request: PageRequest, pk: int) -> HttpResponse:
    week, _elsewhere = opened(request, pk)
    week.archive("back" not in request.POST)
    messages.success(request, "Archived." if week.archived else "Back in the list.")
    return redirect("week:page", pk)


@require_POST
def remove(request: PageRequest, pk: int) -> HttpResponse:
    """Take the week away; it can be brought back. Its days stay."""
    week, _elsewhere = opened(request, pk)
    if "back" in request.POST:
        week.bring_back()
        return redirect("week:page", pk)
    week.remove(request.user)
    return redirect(f"{reverse('week:list')}?removed={week.pk}")
