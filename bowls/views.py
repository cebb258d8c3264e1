"""What is changed on the page of a bowl: parts found, added, stepped, dragged, taken out."""

from typing import Any

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, render
from django.views.decorators.http import require_POST

from bowls.bowl import amount_for, reckon_bowl, reckon_part, system_of
from bowls.models import Bowl, BowlPart
from bowls.page import PAGES, client_of
from clients.pages.context import PageRequest
from clients.plan.gate import gate_of
from clients.plan.in_force import plan_of
from nutrition.composition.foods import ROLES
from nutrition.composition.portion import grams_for_share
from nutrition.written.typed_amounts import MAX_GRAMS, UnreadableAmount
from practice.undo import asked_by
from practice.versioned import StaleSave
from recipes import adding
from recipes.facts import facts_of
from recipes.models import Recipe
from webkit.request_values import key_in, number_in, short


@require_POST
def meal(request: PageRequest, pk: int) -> HttpResponse:
    """Which meal the bowl is judged as."""
    bowl, _elsewhere = PAGES.opened(request, pk)
    bowl.meal = short(request.POST, "meal", 10)
    # how it is looked at is no change of what is in it: no version, nothing to undo
    Bowl.with_removed.filter(pk=pk).update(meal=bowl.meal)
    return PAGES.answer(request, bowl)


def find(request: PageRequest, pk: int) -> HttpResponse:
    """What can be added, as buttons, for what was typed: own recipes first, then foods. What is to
    be asked about is marked."""
    bowl, elsewhere = PAGES.opened(request, pk)
    if elsewhere:
        return elsewhere
    query, client = short(request.GET, "q"), client_of(request, bowl)
    gate, asked = gate_of(plan_of(client)), adding.typed(query)
    context = {
        "bowl": bowl,
        "q": query,
        "amount": asked.amount,
        "found": adding.in_order(
            client,
            asked,
            [("recipe", one) for one in adding.found_recipes(client, gate, asked)],
            adding.found_foods(client, gate, asked, system_of(bowl)),
        )
        if query
        else [],
        "role": short(request.GET, "role", 20),
    }
    if request.htmx:
        return render(request, "bowls/_found.html", context)
    return render(request, "bowls/page.html", PAGES.context(request, bowl) | context)


@require_POST
def add(request: PageRequest, pk: int) -> HttpResponse:
    bowl, _elsewhere = PAGES.opened(request, pk)
    role, key = short(request.POST, "role", 20), key_in(request.POST.get("recipe", ""))
    part, amount = BowlPart(bowl=bowl), short(request.POST, "amount", 40)
    try:
        if key is not None:
            recipe = get_object_or_404(Recipe, pk=key)
            own_role, name = recipe.role if recipe.role in ROLES else "protein", recipe.title
            if facts_of(recipe).serving.grams <= 0:
                messages.error(request, f"{name} weighs nothing yet: settle its lines first.")
                return PAGES.answer(request, bowl)
            part.recipe, line = recipe, adding.recipe_line(recipe, amount, system_of(bowl))
        else:
            food = adding.food_in(request.POST.get("food", ""))
            if food is None:
                messages.error(request, "Choose a food or a recipe from the list.")
                return PAGES.answer(request, bowl)
            part.food, own_role, name = food.slug, food.role, food.name
            line = adding.food_line(food, amount, system_of(bowl))
    except UnreadableAmount as error:
        messages.error(request, f"{name} was not added: {error}")
        return PAGES.answer(request, bowl)
    if amount:
        part.grams, part.low_g, part.high_g = line.grams or 0.0, line.low, line.high
        part.basis = line.basis
    else:
        # a first helping is nobody's measure yet
        part.grams, part.basis = round(line.grams or 0.0, 1), "leveled measure"
    part.role = role if role in ROLES else own_role if own_role in ROLES else "topping"
    asked = request.POST.get("grams", "").strip()
    if asked:
        grams = adding.grams_asked(asked)
        if grams is None:
            messages.error(
                request,
                f"{name} was not added: “{asked[:40]}” is not a weight from "
                f"{adding.LEAST_PART_G:g} to {MAX_GRAMS:g} g.",
            )
            return PAGES.answer(request, bowl)
        part.level(grams)
    try:
        with bowl.changing(*asked_by(request)) as bowl:
            part.place = bowl.parts.count() + 1
            part.save()
    except StaleSave as error:
        return PAGES.stale(request, error.current, f"add {name}")
    return PAGES.answer(request, bowl)


@require_POST
def change(request: PageRequest, pk: int, part: int) -> HttpResponse:
    """Type, step, drag, restar or take out one part. Every change can be undone."""
    bowl, _elsewhere = PAGES.opened(request, pk)
    row = bowl.parts.select_related("recipe").filter(pk=part).first()
    if row is None:
        messages.error(request, "That part is no longer in the bowl: somebody took it out.")
        return PAGES.answer(request, bowl, status=409)
    data, typed = request.POST, None
    values: dict[str, Any] = {}
    if "star" in data:
        values = {"star": not row.star}
    elif "lock" in data:
        values = {"locked": not row.locked}
    elif "step" in data or "share" in data:
        grams = _stepped(bowl, row, data)
        if grams is None:
            if "step" in data:
                problem = (
                    f"No further: a part weighs {adding.LEAST_PART_G:g} to {MAX_GRAMS:g} g. "
                    f"Take it out with “Out”."
                )
                refused = {row.pk: (f"{row.grams:g} g", problem)}
                return PAGES.answer(request, bowl, 400, errors=refused)
            return PAGES.answer(request, bowl)
        row.level(grams)
        values = {"grams": row.grams, "low_g": row.low_g, "high_g": row.high_g, "basis": row.basis}
    elif "amount" in data:
        typed = data["amount"][:200]
        try:
            line = amount_for(row, typed[:80])
        except UnreadableAmount as error:
            return PAGES.answer(request, bowl, 400, errors={row.pk: (typed, str(error))})
        values = {"grams": line.grams, "low_g": line.low, "high_g": line.high, "basis": line.basis}
    try:
        with bowl.changing(*asked_by(request), remember="dragging" not in data) as bowl:
            if "remove" in data:
                bowl.parts.filter(pk=part).delete()
            else:
                if "star" in data:
                    bowl.parts.exclude(pk=part).update(star=False)
                bowl.parts.filter(pk=part).update(**values)
    except StaleSave as error:
        errors = (
            {
                row.pk: (
                    typed,
                    "Not set: the bowl was changed meanwhile. Press Enter to set it all the same.",
                )
            }
            if typed
            else None
        )
        return PAGES.stale(
            request, error.current, _said(reckon_part(row), values, "remove" in data), errors
        )
    return PAGES.answer(request, bowl)


def _said(part, values: dict, out: bool) -> str:
    """What was to become of a part, in words."""
    if out:
        return f"take out {part.name}"
    return (
        f"{part.name} to {values['grams']:.0f} g"
        if "grams" in values
        else f"a change of {part.name}"
    )


def _stepped(bowl: Bowl, row: BowlPart, data) -> float | None:
    """New grams of a part stepped by a count, or dragged to a share of the bowl's volume; None when
    out of bounds."""
    if "step" in data:
        steps, part = number_in(data["step"]), reckon_part(row)
        grams = None if steps is None or part is None else row.grams + steps * part.step_g
    else:
        reckoned, share = reckon_bowl(bowl), number_in(data["share"])
        part = next((part for part in reckoned.parts if part.pk == row.pk), None)
        if part is None or share is None:
            return None
        grams = grams_for_share(
            share, row.grams, part.volume_ml, reckoned.volume_ml - part.volume_ml
        )
    return grams if grams is not None and adding.LEAST_PART_G <= grams <= MAX_GRAMS else None
