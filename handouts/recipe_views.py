"""A recipe on paper: for as many as asked, in the cups and spoons asked for, with what one serving
brings."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.http import HttpResponse
from django.shortcuts import get_object_or_404
from django.urls import reverse

from clients.models import Client
from clients.pages.context import PageRequest
from clients.plan.cautions import of_foods
from clients.plan.in_force import plan_of
from clients.plan.standing import asked_first, in_the_clients_words
from handouts.numbers import numbers_of
from nutrition.composition.allergies import found_in
from nutrition.composition.ingredient import plain_name
from nutrition.recipe.method_steps import read_steps
from nutrition.recipe.reckoning import Facts
from nutrition.recipe.scaling import Scaled, factor_for_servings, scale
from nutrition.written.grammar import read
from nutrition.written.units import SYSTEM_WORDS
from paper.sheets import Choice, Paper, answer
from recipes.dishes import serving_said
from recipes.facts import facts_of
from recipes.models import Recipe
from webkit.request_values import number_in

# What of an address asks for a recipe in other measures, and for so many servings.
METRIC, US, SERVINGS = "metric", "us", "servings"


@dataclass(frozen=True, kw_only=True)
class LineOnPaper:
    """A line as it is cooked from: the household measure, its grams, what it is, how it is
    prepared."""

    words: str
    grams: float | None
    name: str
    note: str
    caution: str


def recipe(request: PageRequest, pk: int) -> HttpResponse:
    row: Recipe = get_object_or_404(Recipe.with_removed, pk=pk)
    return answer(request, recipe_paper(request, row))


def recipe_paper(request: PageRequest, row: Recipe) -> Paper:
    """A recipe as somebody cooks it. How many it is for stands in the address;
    what no kitchen makes is left as it is written, and said."""
    facts, client = facts_of(row), request.for_client
    asked = number_in(request.GET.get(SERVINGS, "")) or row.servings
    own = request.practice.measures
    system = "metric" if METRIC in request.GET else "us" if US in request.GET else own
    problem, scaled = "", None
    try:
        scaled = scale(facts, factor_for_servings(facts, asked), asked, system)
    except ValueError as error:
        problem = f"Written here for {row.servings:g}: {error}."
    told = of_foods(plan_of(client), facts.foods(), lines=facts.unread)
    context: dict[str, Any] = {
        "recipe": row,
        "client": client,
        "servings": scaled.servings if scaled else row.servings,
        "measure": serving_said(row.role, facts),
        "serving_g": None if _hides(client) else facts.serving.grams,
        "lines": _lines(facts, scaled, as_written=asked == row.servings),
        "whole": scaled.whole if scaled else (),
        "steps": read_steps(row.method, facts.lines).steps,
        "numbers": numbers_of(client, facts.serving),
        "system": SYSTEM_WORDS[system],
        "problem": problem,
        "refused": found_in(facts.batch_foods(), client.allergies if client else ()),
        "ask_first": in_the_clients_words(asked_first(client, told)),
    }
    back = reverse("recipes:page", args=[row.pk])
    return Paper(
        title=row.title,
        template="handouts/recipe.html",
        context=context,
        back=(back, "Back to the recipe"),
        whom=f"for {client.name}" if client else "",
        kind="recipe-paper",
        choices=[
            Choice(US, "In US cups", "In the practice's cups")
            if own == "metric"
            else Choice(METRIC, "In metric cups", "In the practice's cups")
        ],
    )


def _hides(client: Client | None) -> bool:
    return client is not None and client.numbers_hidden


def _lines(facts: Facts, scaled: Scaled | None, as_written: bool) -> list[LineOnPaper]:
    """Each line in the order of the recipe. One that could not be counted, and all of them where
    nothing is scaled, stand as they are written."""
    by_text = {one.line.text: one for one in scaled.lines} if scaled else {}
    out = []
    for line in facts.lines:
        one = by_text.get(line.text)
        if one is None or line.food is None:
            out.append(LineOnPaper(words="", grams=None, name=line.text, note="", caution=""))
            continue
        reading = read(line.text)
        out.append(
            LineOnPaper(
                words=one.words,
                grams=one.used_g,
                name=reading.phrase or plain_name(line.food),
                note=line.text.partition(",")[2].strip(),
                caution="" if as_written else one.caution,
            )
        )
    return out
