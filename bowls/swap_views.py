"""Swaps on the bowl page, beside the gap they close; and a part made again without what the client
must not have."""

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import reverse
from django.utils.text import capfirst
from django.views.decorators.http import require_POST

from bowls.balance_views import NO_PARTS, NO_PLAN
from bowls.balancing import item_of, options_from
from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from bowls.swapping import apply, key_of, subject_of
from bowls.views import answer, client_of, opened, page_context, stale_answer
from clients.aims import meal_of, meal_options
from clients.gate import gate_of
from clients.held import held
from clients.in_force import plan_of
from clients.swap_panel import Outdated, panel, taken
from practice.undo import asked_by
from practice.versioned import StaleSave
from recipes.without import made_without


def _context(request: HttpRequest, bowl: Bowl) -> dict[str, object]:
    reckoned, client = reckon_bowl(bowl), client_of(request, bowl)
    plan = plan_of(client) if client else None
    url = reverse("bowls:swap", args=[bowl.pk])
    context: dict[str, object] = {
        "bowl": bowl,
        "client": client,
        "swapped": True,
        "swap_url": url,
        "version": bowl.version,
    }
    if plan is None or plan.day is None:
        return context | {"problem": plan.problem if plan and plan.problem else NO_PLAN}
    if not reckoned.parts:
        return context | {"problem": NO_PARTS}
    options, gate = options_from(request.GET, plan.day, reckoned), gate_of(plan)
    meal = meal_of(plan.day, options.meal)
    context |= {
        "judged": options.meal,
        "meal_options": meal_options(plan.day),
        "subject_words": "This bowl is",
    }
    context |= {
        "held": held([item_of(part) for part in reckoned.parts], gate, key_of(bowl), bowl.version),
        "held_url": url,
        "without_url": reverse("bowls:without", args=[bowl.pk]),
    }
    return (
        context
        | {"take_url": url, "live": True}
        | panel(subject_of(reckoned, gate, client), plan, meal)
    )


def swap(request: HttpRequest, pk: int) -> HttpResponse:
    """The changes that close the gap; a POST takes one, as one step for undo."""
    bowl, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    if request.method == "POST":
        try:
            steps, why = taken(request.POST.get("change", ""), key_of(bowl), bowl.version)
            apply(bowl, steps, request.user)
            messages.success(request, f"{capfirst(why)}.")
        except (Outdated, StaleSave) as error:
            messages.error(request, str(error))
        return answer(request, Bowl.with_removed.get(pk=pk))
    context = _context(request, bowl)
    if request.htmx:
        return render(request, "clients/_swap_panel.html", context)
    return render(request, "bowls/page.html", page_context(request, bowl) | context)


@require_POST
def without(request: HttpRequest, pk: int) -> HttpResponse:
    """A recipe of the bowl made again without what this client must not have, as theirs, in the
    part's place."""
    bowl, _elsewhere = opened(request, pk)
    client = client_of(request, bowl)
    part = next(
        (part for part in reckon_bowl(bowl).parts if str(part.pk) == request.POST.get("item", "")),
        None,
    )
    if client is None or part is None or part.row.recipe is None:
        messages.error(request, "That part is no longer in the bowl.")
        return answer(request, bowl)
    made, gone = made_without(part.row.recipe, client, gate_of(plan_of(client)), request.user)
    if made is None:
        messages.error(
            request,
            f"{part.name} cannot be made without it: nothing would be left, or it is in a part "
            f"recipe. Leave it out.",
        )
        return answer(request, bowl)
    try:
        with bowl.changing(*asked_by(request)) as stored:
            stored.parts.filter(pk=part.pk).update(recipe=made)
        messages.success(request, f"{made.title} is made without {', '.join(gone)}.")
    except StaleSave as error:
        return stale_answer(request, error.current, f"{part.name} without {', '.join(gone)}")
    return answer(request, Bowl.with_removed.get(pk=pk))
