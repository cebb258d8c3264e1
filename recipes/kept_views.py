"""A recipe's versions side by side, and the recipe made larger or smaller."""

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from clients.pages.context import PageRequest
from clients.plan.in_force import plan_of
from nutrition.recipe.changes import SHOWN, side_by_side
from nutrition.recipe.scaling import (
    factor_for_packages,
    factor_for_portion,
    factor_for_servings,
    factor_for_stock,
    scale,
)
from practice.versioned import StaleSave
from recipes.facts import facts_of
from recipes.forms import ScaleForm
from recipes.models import Recipe
from recipes.versions import WHY_LENGTH, go_back, keep


def versions(request: PageRequest, pk: int) -> HttpResponse:
    """All versions, and two of them side by side: the last two unless others are asked for."""
    recipe: Recipe = get_object_or_404(Recipe.with_removed, pk=pk)
    rows = list(recipe.versions.select_related("by"))
    by_number = {str(row.number): row for row in rows}
    newer = by_number.get(request.GET.get("to", "")) or (rows[0] if rows else None)
    older = by_number.get(request.GET.get("from", "")) or (rows[1] if len(rows) > 1 else None)
    context = {"recipe": recipe, "rows": rows, "older": older, "newer": newer, "shown": SHOWN}
    if older and newer:
        before, after = facts_of(older.as_recipe()), facts_of(newer.as_recipe())
        total = {key: after.serving[key].amount - before.serving[key].amount for key in SHOWN}
        context |= {
            "before": before,
            "after": after,
            "changes": side_by_side(before, after),
            "total": total,
        }
    return render(request, "recipes/versions.html", context)


@require_POST
def keep_now(request: PageRequest, pk: int) -> HttpResponse:
    recipe: Recipe = get_object_or_404(Recipe.with_removed, pk=pk)
    why = request.POST.get("why", "").strip()
    if len(why) > WHY_LENGTH:
        messages.error(
            request,
            f"The reason is over {WHY_LENGTH} characters: “{why[:40]} …” Say it shorter; nothing "
            f"was kept.",
        )
    elif why:
        keep(recipe, request.user, why)
    else:
        messages.error(
            request, "Say why this version is saved: the reason is what is looked for later."
        )
    return redirect("recipes:versions", pk)


@require_POST
def back(request: PageRequest, pk: int, number: int) -> HttpResponse:
    recipe: Recipe = get_object_or_404(Recipe.with_removed, pk=pk)
    try:
        made = go_back(recipe, get_object_or_404(recipe.versions, number=number), request.user)
    except StaleSave:
        messages.error(
            request,
            "The recipe was changed while this page was open: look at it again before going back.",
        )
        return redirect("recipes:versions", pk)
    messages.success(
        request, f"{recipe.title} is {made.why}. Nothing was lost: what it was is a version too."
    )
    return redirect("recipes:page", pk)


def scaled(request: PageRequest, pk: int) -> HttpResponse:
    recipe: Recipe = get_object_or_404(Recipe.with_removed, pk=pk)
    facts = facts_of(recipe)
    lines = [line.text for line in facts.lines if line.resolved]
    client = request.for_client
    plan = plan_of(client)
    start = {"to": "servings", "amount": recipe.servings * 2}
    form = ScaleForm(request.GET if "to" in request.GET else None, lines=lines, initial=start)
    result = None
    if form.is_valid():
        data, servings = form.cleaned_data, None
        try:
            if data["to"] == "servings":
                factor = factor_for_servings(facts, data["amount"])
            elif data["to"] == "stock":
                factor = factor_for_stock(facts, data["line"], data["amount"])
            elif data["to"] == "package":
                factor = factor_for_packages(facts, data["line"], data["amount"])
            else:
                factor, servings = factor_for_portion(facts, data["amount"]), recipe.servings
            result = scale(facts, factor, servings)
        except ValueError as error:
            form.add_error("amount", f"{str(error)[0].upper()}{str(error)[1:]}.")
    context = {
        "recipe": recipe,
        "facts": facts,
        "form": form,
        "scaled": result,
        "meals": plan.meals,
    }
    return render(request, "recipes/scale.html", context | {"client": client})
