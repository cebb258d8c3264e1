"""One printable page for a client: a bowl or a day."""

from django.http import HttpResponse
from django.shortcuts import get_object_or_404, render

from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from clients.models import Client
from clients.pages.context import PageRequest, settle_on
from clients.plan.cautions import of_foods
from clients.plan.in_force import plan_of
from clients.plan.standing import asked_first, in_the_clients_words
from clients.plan.strip import Reading, strip
from nutrition.composition.allergies import found_in
from nutrition.insight import indices
from nutrition.recipe.method_steps import read_steps
from planner.cautions import told_of
from planner.day import ReckonedDay, reckon_day
from planner.models import Day
from planner.plans import plan_for
from recipes.dishes import serving_said
from recipes.facts import facts_of
from recipes.models import Recipe
from webkit.drawing.dishes import dish_round

CALORIES = {"energy_kcal", "kcal_per_gram"}


def _shown(client: Client | None, rows: list[Reading]) -> list[Reading]:
    """The rows of the strip, without calories for a client whom such numbers can harm."""
    return [
        row
        for row in rows
        if not (client is not None and client.counting_harms and row.key in CALORIES)
    ]


def _to_cook(recipe: Recipe) -> dict[str, object]:
    """A recipe as the client cooks it: its lines as they are written, and its steps."""
    facts = facts_of(recipe)
    return {
        "title": recipe.title,
        "servings": recipe.servings,
        "measure": serving_said(recipe.role, facts),
        "lines": [line.text for line in facts.lines],
        "steps": read_steps(recipe.method, facts.lines).steps,
    }


def _recipes_of(reckoned: ReckonedDay) -> list[dict[str, object]]:
    """Every recipe of a day that is there still, each once."""
    found: dict[int, Recipe] = {}
    for entry in reckoned.entries:
        row = entry.row
        if row.recipe is not None:
            found[row.recipe.pk] = row.recipe
        if row.bowl is not None:
            for part in row.bowl.parts.select_related("recipe"):
                if part.recipe is not None:
                    found[part.recipe.pk] = part.recipe
    return [_to_cook(recipe) for recipe in found.values()]


def bowl(request: PageRequest, pk: int) -> HttpResponse:
    """The bowl for the client in the address; somebody's own bowl opened without one is for
    them."""
    row: Bowl = get_object_or_404(Bowl.with_removed.select_related("client"), pk=pk)
    if request.for_client is None and (elsewhere := settle_on(request, row.client)):
        return elsewhere
    reckoned, client = reckon_bowl(row), request.for_client
    plan = plan_of(client)
    context = {
        "bowl": row,
        "client": client,
        "somebody_elses": row.client if client and row.client and row.client != client else None,
        "reckoned": reckoned,
        "round": dish_round(reckoned.dish, "protein_g", reckoned.bowl.vessel_ml),
        "strip": _shown(client, strip(plan, reckoned.profile)),
        "recipes": [
            _to_cook(part.row.recipe)
            for part in reckoned.parts
            if part.row.recipe is not None and "plain" not in request.GET
        ],
        "without_calories": client is not None and client.counting_harms,
        "strip_of": "This bowl brings",
        "indices": indices.all_indices(reckoned.profile),
        "refused": found_in(reckoned.ingredients, client.allergies if client else ()),
        "ask_first": in_the_clients_words(
            asked_first(client, of_foods(plan, reckoned.ingredients, lines=reckoned.unread))
        ),
        "practice": request.practice,
    }
    return render(request, "handouts/bowl.html", context)


def day(request: PageRequest, pk: int) -> HttpResponse:
    row: Day = get_object_or_404(Day.with_removed.select_related("client"), pk=pk)
    if elsewhere := settle_on(request, row.client):
        return elsewhere
    reckoned = reckon_day(row)
    plan = plan_for(row)
    context = {
        "day": row,
        "client": row.client,
        "reckoned": reckoned,
        "strip": _shown(row.client, strip(plan, reckoned.profile)),
        "strip_of": "The day brings",
        "recipes": _recipes_of(reckoned) if "recipes" in request.GET else [],
        "refused": found_in(reckoned.ingredients, row.client.allergies),
        "ask_first": in_the_clients_words(asked_first(row.client, told_of(plan, row, reckoned))),
        "practice": request.practice,
    }
    return render(request, "handouts/day.html", context)
