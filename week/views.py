"""What is changed on the page of a week: its places, a proposal taken, days made of it."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST

from clients.pages.context import PageRequest
from practice.undo import asked_by
from practice.versioned import StaleSave
from webkit.request_values import key_in, short
from week import changes
from week.changes import NotThere
from week.dishes import thing_of
from week.models import Week
from week.page import PAGES
from week.planner_days import make_days
from week.proposals import planned_in


def slot(request: PageRequest, pk: int, key: str) -> HttpResponse:
    """One place of the week, opened: what stands there, and what else could."""
    week, elsewhere = PAGES.opened(request, pk)
    if elsewhere:
        return elsewhere
    context = PAGES.context(request, week, slot=key, q=short(request.GET, "q"))
    if context["slot"] is None:
        messages.error(request, "There is no such place in the week.")
        return PAGES.answer(request, week)
    return render(request, "week/_slot.html" if request.htmx else "week/page.html", context)


@require_POST
def change(request: PageRequest, pk: int, key: str) -> HttpResponse:
    """One place changed: something put there, more or less of it, pinned, moved, taken out."""
    week, _elsewhere = PAGES.opened(request, pk)
    data = request.POST
    typed = short(data, "amount", 40)
    try:
        with week.changing(*asked_by(request)) as week:
            days, opens = _changed(week, key, data, typed)
    except StaleSave as error:
        return PAGES.stale(request, error.current, typed or "a change of one dish")
    except NotThere as error:
        stored = PAGES.stored(pk)
        if typed:
            more = {"slot_error": str(error), "slot_typed": typed}
            return PAGES.answer(request, stored, slot=key, status=400, errors=more)
        messages.error(request, str(error))
        return PAGES.answer(request, stored, status=409)
    return PAGES.answer(request, week, moved=days, slot=opens)


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
    week, _elsewhere = PAGES.opened(request, pk)
    at = key_in(request.POST.get("number", ""))
    if at is None or at >= len(week.proposals):
        messages.error(request, "That week is no longer offered: plan it again.")
        return PAGES.answer(request, week, status=409)
    planned = planned_in(week.proposals[at])
    try:
        with week.changing(*asked_by(request)) as week:
            changed = changes.take(week, planned, week.client)
            week.proposals = []
            Week.with_removed.filter(pk=week.pk).update(proposals=[])
    except StaleSave as error:
        return PAGES.stale(request, error.current, "the week that was proposed")
    messages.success(request, f"Taken: {changed} places changed.")
    return PAGES.answer(request, week, moved=range(week.days))


@require_POST
def days(request: PageRequest, pk: int) -> HttpResponse:
    """The planner's days made of the week; a day that has something of its own is left alone."""
    week, _elsewhere = PAGES.opened(request, pk)
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
