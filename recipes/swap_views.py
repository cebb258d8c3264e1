"""Swaps on a recipe: changes of one line or two that close the gap, each taken as a new version."""

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse

from clients.aims import WHOLE_DAY, meal_of, meal_options
from clients.context import settle_on
from clients.gate import gate_of
from clients.in_force import Plan, plan_of
from clients.strip import strip_context
from clients.swap_panel import Outdated, panel, taken
from nutrition.recipe.reckoning import Facts
from practice.versioned import StaleSave
from recipes.facts import facts_of
from recipes.models import Recipe
from recipes.swapping import apply, key_of, subject_of
from recipes.versions import save_kept
from recipes.without import copy_for, save_new

# A serving judged by as much of the day as its calories are.
BY_CALORIES = "calories"
NO_PLAN = "Choose a client whose targets are known: swaps close the gap to them."
NOTHING = "A serving brings no energy yet: settle the lines first."


def _context(request: HttpRequest, recipe: Recipe, facts: Facts) -> dict[str, object]:
    client = request.for_client
    plan = plan_of(client) if client else None
    context: dict[str, object] = {"recipe": recipe, "client": client, "facts": facts}
    context |= strip_context(request, plan, facts.serving, client, "One serving")
    if plan is None or plan.day is None:
        return context | {"problem": plan.problem if plan and plan.problem else NO_PLAN}
    if facts.serving["energy_kcal"].amount <= 0:
        return context | {"problem": NOTHING}
    return context | _swaps(request, recipe, facts, plan)


def _swaps(request: HttpRequest, recipe: Recipe, facts: Facts, plan: Plan) -> dict[str, object]:
    assert plan.day is not None
    judged = request.GET.get("meal", BY_CALORIES)
    meal = meal_of(plan.day, judged)
    by_calories, share = facts.serving["energy_kcal"].amount / plan.day["energy_kcal"].aim, None
    if meal is None:
        judged, share = BY_CALORIES, by_calories
    words = f"as much of the day as its calories, {by_calories * 100:.0f} %"
    return {
        "judged": judged,
        "meal_options": [
            (BY_CALORIES, words),
            *(option for option in meal_options(plan.day) if option[0] != WHOLE_DAY),
        ],
        "take_url": reverse("recipes:swap", args=[recipe.pk]),
        "new_version": True,
    } | panel(
        subject_of(recipe, facts, gate_of(plan)), plan, meal, share, by_calories=share is not None
    )


def _take(request: HttpRequest, recipe: Recipe) -> HttpResponse:
    """Write the change: into a copy that is the client's own, or, where that is said, into the
    recipe of everybody."""
    client = request.for_client
    own = client is not None and "everybody" not in request.POST and recipe.client_id != client.pk
    try:
        steps, why = taken(request.POST.get("change", ""), key_of(recipe), recipe.version)
        target = copy_for(recipe, client) if own else recipe
        apply(target, steps)
        made = (
            save_new(target, request.user, why)
            if own
            else save_kept(target, target.version, request.user, why)
        )
    except (Outdated, StaleSave) as error:
        messages.error(request, str(error))
        return redirect("recipes:swap", recipe.pk)
    whose = (
        f"{target.title} is {client.name}'s own now; {recipe.title} stays as it is. " if own else ""
    )
    messages.success(request, f"{whose}Version {made.number}: {made.why}.")
    return redirect("recipes:swap", target.pk)


def swap(request: HttpRequest, pk: int) -> HttpResponse:
    """The changes that close the gap; a POST takes one and keeps it as a version."""
    recipe = get_object_or_404(Recipe.with_removed, pk=pk)
    if request.for_client is None and (elsewhere := settle_on(request, recipe.client)):
        return elsewhere
    if request.method == "POST":
        return _take(request, recipe)
    return render(request, "recipes/swaps.html", _context(request, recipe, facts_of(recipe)))
