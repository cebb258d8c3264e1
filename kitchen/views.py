"""Sessions of cooking: listed, begun from a day of the week or from recipes, planned, changed."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from typing import Any

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.client_records import WHOSE
from clients.pages.context import PageRequest
from kitchen.batch_days import batch_day_of, batch_days_of
from kitchen.dishes import MOST_SERVINGS, Dish, dish_of_pot, dish_of_recipe
from kitchen.forms import SessionForm, StoveForm, time_of
from kitchen.models import CookingSession, Stove
from kitchen.opened import opened
from kitchen.page import context_of
from kitchen.planning import plan_anew, planned_of
from nutrition.prep.timeline.clock import read_moment
from nutrition.prep.timeline.kitchen import MOST_DISHES, USUAL_EARLIEST, USUAL_READY
from practice.versioned import StaleSave, version_in
from recipes.models import Recipe
from recipes.ownership import open_to
from webkit.listing import listed
from webkit.request_values import key_in, number_in, short

MOST_OFFERED = 60


def listing(request: PageRequest) -> HttpResponse:
    """What is to be cooked, what was, and the days of the week that want planning."""
    return render(request, "kitchen/list.html", _list_context(request))


def _list_context(request: PageRequest, form: SessionForm | None = None) -> dict[str, Any]:
    client = request.for_client
    if client is None:
        whose = listed(request, Client.objects.all(), WHOSE)
        return {
            "client": None,
            "whose": whose,
            "list": whose,
            "nobody": not Client.objects.exists(),
        }
    days = batch_days_of(client)
    return {
        "client": client,
        "sessions": CookingSession.objects.filter(client=client)[:20],
        "batch_days": days,
        "form": form or SessionForm(initial=_initial()),
        "recipes": open_to(client).order_by("title")[:MOST_OFFERED],
        "stove_form": StoveForm(instance=Stove.objects.filter(client=client).first()),
    }


def _initial() -> dict[str, Any]:
    return {
        "day": timezone.localdate(),
        "ready_at": time_of(USUAL_READY),
        "earliest": time_of(USUAL_EARLIEST),
    }


@require_POST
def new(request: PageRequest) -> HttpResponse:
    """A session of the pots of a day of a week, or of recipes that were ticked."""
    client = request.for_client
    if client is None:
        messages.error(request, "Choose a client first: a kitchen is somebody's.")
        return redirect("kitchen:list")
    batch = batch_day_of(client, short(request.POST, "batch", 40))
    if batch is not None:
        row = CookingSession(
            practice=request.practice,
            client=client,
            week=batch.week,
            day=batch.on,
            ready_at=USUAL_READY,
            earliest=USUAL_EARLIEST,
            dishes=[dish_of_pot(pot, at).data() for at, pot in enumerate(batch.pots[:MOST_DISHES])],
        )
    else:
        form = SessionForm(request.POST)
        chosen = _chosen(request)
        if not form.is_valid() or not chosen:
            if not chosen:
                messages.error(request, "Tick at least one dish.")
            context = _list_context(request, form) | {"ticked": [one.pk for one in chosen]}
            return render(request, "kitchen/list.html", context, status=400)
        data = form.cleaned_data
        row = CookingSession(
            practice=request.practice,
            client=client,
            day=data["day"],
            ready_at=data["ready_minutes"],
            earliest=data["earliest_minutes"],
            dishes=[dish_of_recipe(one, at).data() for at, one in enumerate(chosen)],
        )
    plan_anew(row)
    row.save()
    return redirect("kitchen:page", row.pk)


def _chosen(request: PageRequest) -> list[Recipe]:
    """The recipes that were ticked, in the order of their names."""
    keys = {key for text in request.POST.getlist("recipe") if (key := key_in(text)) is not None}
    assert request.for_client is not None
    return list(open_to(request.for_client).filter(pk__in=keys).order_by("title")[:MOST_DISHES])


def page(request: PageRequest, pk: int) -> HttpResponse:
    row, elsewhere = opened(request, pk)
    return elsewhere or render(request, "kitchen/page.html", context_of(request, row))


def _answer(
    request: PageRequest, row: CookingSession, status: int = 200, **more: Any
) -> HttpResponse:
    """The working part for a live page; without script back to the page."""
    if request.htmx:
        shown = 409 if status == 409 else 200
        return render(request, "kitchen/_work.html", context_of(request, row, **more), status=shown)
    if status != 200:
        return render(request, "kitchen/page.html", context_of(request, row, **more), status=status)
    return redirect("kitchen:page", row.pk)


def _kept(request: PageRequest, row: CookingSession, what: str) -> HttpResponse:
    """Plan it anew and save it over the version that the page showed."""
    plan_anew(row)
    asked = version_in(request.POST.get("version"))
    try:
        row.save_over(row.version if asked is None else asked)
    except StaleSave as error:
        messages.error(request, f"Somebody changed this session meanwhile; {what} was not made.")
        return _answer(request, error.current, 409)
    return _answer(request, row)


@require_POST
def change(request: PageRequest, pk: int) -> HttpResponse:
    """When it is ready, when it may begin, on which day; a dish more or less, or more of it."""
    row, _elsewhere = opened(request, pk)
    data = request.POST
    if "ready_at" in data and "day" in data:
        form = SessionForm(data)
        if not form.is_valid():
            return _answer(request, row, 400, form=form)
        row.day = form.cleaned_data["day"]
        row.ready_at = form.cleaned_data["ready_minutes"]
        row.earliest = form.cleaned_data["earliest_minutes"]
        row.pins = {}
        return _kept(request, row, "the new time")
    refused = _change_dish(request, row)
    if refused:
        messages.error(request, refused)
        return _answer(request, row, 400)
    return _kept(request, row, "the change of a dish")


def _change_dish(request: PageRequest, row: CookingSession) -> str:
    """Change one dish as asked: why not, in words, empty where it was done."""
    data, planned = request.POST, planned_of(row)
    key = short(data, "dish", 20)
    dishes = list(planned.dishes)
    if "add" in data:
        recipe = open_to(row.client).filter(pk=key_in(data["add"]) or 0).first()
        if recipe is None or len(dishes) >= MOST_DISHES:
            return "That dish cannot be added."
        used = {dish.key for dish in dishes}
        free = next(n for n in range(MOST_DISHES + 1) if f"d{n + 1}" not in used)
        row.dishes = [one.data() for one in (*dishes, dish_of_recipe(recipe, free))]
        return ""
    at = next((at for at, dish in enumerate(dishes) if dish.key == key), None)
    if at is None:
        return "That dish is no longer there."
    if "remove" in data:
        row.dishes = [one.data() for one in dishes if one.key != key]
        row.pins = {
            name: start for name, start in row.pins.items() if not name.startswith(f"{key} ")
        }
        return ""
    changed, refused = _dish_as_typed(dishes[at], data)
    if changed is None:
        return refused
    dishes[at] = changed
    row.dishes = [one.data() for one in dishes]
    return ""


def _dish_as_typed(dish: Dish, data: Any) -> tuple[Dish | None, str]:
    """A dish with its servings, its time and whether it is put away as they were typed; None and
    why not."""
    servings = number_in(data.get("servings", ""), (0.05, MOST_SERVINGS))
    if servings is None:
        return None, f"Servings: a number up to {MOST_SERVINGS:g}."
    ready, typed = None, short(data, "dish_ready", 20)
    if typed:
        try:
            ready, _dated = read_moment(typed, date(2000, 1, 1))
        except ValueError as error:
            return None, f"{error}."
    stored = data.get("stored") == "1"
    containers = key_in(data.get("containers", "0")) or 0
    return (
        replace(
            dish,
            servings=servings,
            ready_at=ready,
            stored=stored,
            containers=min(containers, 60) if stored else 0,
        ),
        "",
    )


@require_POST
def move(request: PageRequest, pk: int) -> HttpResponse:
    """A step put at another time, and everything else planned around it; or all that was moved let
    go again."""
    row, _elsewhere = opened(request, pk)
    if "free" in request.POST:
        row.pins = {}
        return _kept(request, row, "letting go")
    key, start = (
        short(request.POST, "task", 30),
        number_in(request.POST.get("start", ""), (-1440, 2880)),
    )
    dish, _space, task = key.rpartition(" ")
    planned = planned_of(row)
    there = planned.works.get(dish)
    if start is None or there is None or not task.isdigit() or int(task) >= len(there.tasks):
        messages.error(request, "That step is no longer there.")
        return _answer(request, row, 400)
    before = planned.timeline
    row.pins = {**row.pins, key: round(start)}
    found = plan_anew(row)
    let_go = key not in row.pins
    if found is None or let_go or (before and len(found.missing) > len(before.missing)):
        stored = row.stored()
        words = f"{there.tasks[int(task)].text} cannot be then: the rest would not fit around it."
        messages.error(request, words)
        return _answer(request, stored, 400)
    return _kept(request, row, "the move")


@require_POST
def stove(request: PageRequest) -> HttpResponse:
    """What the client's kitchen has to cook with."""
    client = request.for_client
    if client is None:
        messages.error(request, "Choose a client first: a kitchen is somebody's.")
        return redirect("kitchen:list")
    row = Stove.objects.filter(client=client).first() or Stove(client=client)
    form = StoveForm(request.POST, instance=row)
    if not form.is_valid():
        context = _list_context(request) | {"stove_form": form}
        return render(request, "kitchen/list.html", context, status=400)
    form.save()
    messages.success(request, "Kept. Sessions are planned for it from now on.")
    return redirect("kitchen:list")


@require_POST
def remove(request: PageRequest, pk: int) -> HttpResponse:
    """Taken away, or brought back."""
    row, _elsewhere = opened(request, pk)
    if "back" in request.POST:
        row.bring_back()
        return redirect("kitchen:page", row.pk)
    row.remove(request.user)
    messages.success(
        request, "The session is taken away; it can be brought back from its own page."
    )
    return redirect("kitchen:list")
