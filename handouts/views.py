"""One printable page for a client: a bowl or a day."""

from django.http import HttpResponse
from django.shortcuts import get_object_or_404
from django.urls import reverse
from django.utils.dateformat import format as dated

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
from nutrition.safety.cautions import Caution
from paper.sheets import Choice, Paper, answer
from planner.cautions import told_of
from planner.day import ReckonedDay, reckon_day
from planner.models import Day
from planner.plans import plan_for
from recipes.dishes import serving_said
from recipes.facts import facts_of
from recipes.models import Recipe
from webkit.drawing.dishes import dish_round


def _shown(client: Client | None, rows: list[Reading]) -> list[Reading]:
    """The rows of the strip, without calories for a client whom such numbers can harm."""
    hidden = client.kept_off if client is not None else frozenset()
    return [row for row in rows if row.key not in hidden]


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
    return answer(request, bowl_paper(request, row))


def asked_of_bowl(row: Bowl, client: Client | None) -> list[Caution]:
    """What is to be asked about before somebody eats this bowl."""
    reckoned, plan = reckon_bowl(row), plan_of(client)
    return asked_first(client, of_foods(plan, reckoned.ingredients, lines=reckoned.unread))


def asked_of_day(row: Day) -> list[Caution]:
    """What is to be asked about before somebody eats by this day."""
    return asked_first(row.client, told_of(plan_for(row), row, reckon_day(row)))


def bowl_paper(request: PageRequest, row: Bowl) -> Paper:
    """A bowl with its round, and the recipes that are in it."""
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
        "without_calories": client is not None and client.numbers_hidden,
        "strip_of": "This bowl brings",
        "indices": indices.all_indices(reckoned.profile),
        "refused": found_in(reckoned.ingredients, client.allergies if client else ()),
        "ask_first": in_the_clients_words(asked_of_bowl(row, client)),
    }
    return Paper(
        title=row.name,
        template="handouts/bowl.html",
        context=context,
        back=(reverse("bowls:page", args=[row.pk]), "Back to the bowl"),
        whom=f"for {client.name}" if client else "for nobody in particular",
        kind="bowl-paper",
        choices=[Choice("plain", "Without the recipes", "With the recipes")],
    )


def day(request: PageRequest, pk: int) -> HttpResponse:
    row: Day = get_object_or_404(Day.with_removed.select_related("client"), pk=pk)
    return settle_on(request, row.client) or answer(request, day_paper(request, row))


def day_paper(request: PageRequest, row: Day) -> Paper:
    """A day, meal by meal."""
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
        "ask_first": in_the_clients_words(asked_of_day(row)),
    }
    return Paper(
        title=dated(row.date, "l, F j"),
        template="handouts/day.html",
        context=context,
        back=(reverse("planner:page", args=[row.pk]), "Back to the day"),
        whom=f"for {row.client.name}",
        kind="one-page",
        choices=[Choice("recipes", "With the recipes", "The day alone, on one page")],
    )
