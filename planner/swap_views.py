"""Swaps on the day's page, beside the gap they close; and an entry made again without what the
client must not have."""

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import reverse
from django.utils.text import capfirst
from django.views.decorators.http import require_POST

from clients.aims import WHOLE_DAY, meal_of, meal_options
from clients.gate import gate_of
from clients.held import held
from clients.swap_panel import Outdated, panel, taken
from planner.balance_views import NOTHING
from planner.balancing import filled, item_of
from planner.day import reckon_day
from planner.models import MEALS, Day
from planner.planned import plan_dish
from planner.swapping import apply, key_of, subject_of
from planner.views import answer, opened, page_context, plan_for, stale_answer
from practice.undo import asked_by
from practice.versioned import StaleSave
from recipes.without import made_without


def _context(request: HttpRequest, day: Day) -> dict[str, object]:
    reckoned, plan = reckon_day(day), plan_for(day)
    url = reverse("planner:swap", args=[day.pk])
    context: dict[str, object] = {
        "day": day,
        "client": day.client,
        "swapped": True,
        "swap_url": url,
        "version": day.version,
    }
    if plan.day is None:
        return context | {"problem": plan.problem}
    meal, gate, full = (
        meal_of(plan.day, request.GET.get("meal", WHOLE_DAY)),
        gate_of(plan),
        filled(reckoned, plan),
    )
    context |= {
        "judged": meal.key if meal else WHOLE_DAY,
        "meal_options": meal_options(plan.day),
        "subject_words": "Looking at",
    }
    share = full.share if meal is None and full.share < 1 else None
    if share is not None:
        context["empty_words"] = (
            f"{', '.join(full.empty)}: still empty. The rest is held against its {share * 100:.0f} "
            f"% of the day."
        )
    subject = subject_of(reckoned, meal.key if meal else None, gate, share or 1.0)
    if not subject.lines:
        return context | {"problem": NOTHING}
    entries = [
        entry
        for row in reckoned.meals
        for entry in row.entries
        if meal is None or row.key == meal.key
    ]
    take_url = f"{url}?meal={meal.key if meal else ''}"
    context |= {
        "held": held([item_of(entry) for entry in entries], gate, key_of(day), day.version),
        "held_url": take_url,
        "without_url": reverse("planner:without", args=[day.pk]),
    }
    return context | {"take_url": take_url, "live": True} | panel(subject, plan, meal, share)


def swap(request: HttpRequest, pk: int) -> HttpResponse:
    """The changes that close the gap; a POST takes one, as one step for undo."""
    day, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    if request.method == "POST":
        meal = request.GET.get("meal", "")
        entries = {
            str(entry.row.pk): entry for one in reckon_day(day).meals for entry in one.entries
        }
        try:
            steps, why = taken(request.POST.get("change", ""), key_of(day), day.version)
            apply(day, entries, steps, meal if meal in dict(MEALS) else "dinner", request.user)
            messages.success(request, f"{capfirst(why)}.")
        except (Outdated, StaleSave) as error:
            messages.error(request, str(error))
        return answer(request, Day.with_removed.select_related("client").get(pk=pk))
    context = _context(request, day)
    if request.htmx:
        return render(request, "clients/_swap_panel.html", context)
    return render(request, "planner/page.html", page_context(request, day) | context)


@require_POST
def without(request: HttpRequest, pk: int) -> HttpResponse:
    """A recipe of the day made again without what the client must not have, as theirs, in the
    entry's place."""
    day, _elsewhere = opened(request, pk)
    row = next(
        (
            row
            for row in day.entries.select_related("recipe")
            if str(row.pk) == request.POST.get("item", "")
        ),
        None,
    )
    if row is None or row.recipe is None:
        messages.error(
            request,
            "Only a recipe can be made without something here: open the bowl, or leave it out.",
        )
        return answer(request, day)
    made, gone = made_without(row.recipe, day.client, gate_of(plan_for(day)), request.user)
    if made is None:
        messages.error(
            request,
            f"{row.recipe.title} cannot be made without it: nothing would be left, or it is in a "
            f"part recipe.",
        )
        return answer(request, day)
    try:
        with day.changing(*asked_by(request)):
            row.recipe = made
            plan_dish(row, request.user.practice)
            row.save()
        messages.success(request, f"{made.title} is made without {', '.join(gone)}.")
    except StaleSave as error:
        return stale_answer(request, error.current, f"{row.recipe.title} without {', '.join(gone)}")
    return answer(request, Day.with_removed.select_related("client").get(pk=pk))
