"""Finding from anywhere, and where a number comes from."""

from __future__ import annotations

from django.http import Http404, HttpResponse
from django.shortcuts import render

from clients.pages.context import PageRequest
from finder.number_origins import derived, foods_of
from finder.places import places
from nutrition.composition.nutrients import NUTRIENT
from nutrition.insight.glycemic import glycemic_load
from nutrition.insight.protein_quality import PATTERN_2013, amino_acid_score
from nutrition.insight.shares import glycemic_shares, protein_shares
from webkit.request_values import short

# What is scored over all the foods of a dish, and is no sum of them.
SCORES = ("amino_acid_score", "glycemic_load")


def _score(request: PageRequest, of: str, key: str) -> HttpResponse:
    """A score with what each food has in it."""
    name, foods = foods_of(of)
    context: dict[str, object] = {"name": name, "key": key}
    if key == "glycemic_load":
        context |= {"score": glycemic_load(foods), "shares": glycemic_shares(foods)}
    elif (amino := amino_acid_score(foods)) is not None and amino.limiting:
        context |= {
            "score": amino,
            "acid": NUTRIENT[amino.limiting].name.lower(),
            "asked_mg": PATTERN_2013[amino.limiting],
            "has_mg": amino.mg_per_g[amino.limiting],
            "shares": protein_shares(foods, amino.limiting),
        }
    template = "finder/_score.html" if request.htmx else "finder/score.html"
    return render(request, template, context)


def find(request: PageRequest) -> HttpResponse:
    """Clients, recipes, bowls, days, foods and pages by a few letters."""
    words = short(request.GET, "q", 80)
    # the page has the places itself, and no panel with them over it
    context = {"q": words, "places": places(words, request.for_client), "finding": True}
    template = "finder/_places.html" if request.htmx else "finder/find.html"
    return render(request, template, context)


def why(request: PageRequest, of: str, key: str) -> HttpResponse:
    """A number with the lines, factors, rows and sources that it comes from."""
    if key in SCORES:
        return _score(request, of, key)
    if key not in NUTRIENT:
        raise Http404("no such nutrient")
    context = {"why": derived(of, key), "key": key, "nutrient": NUTRIENT[key]}
    template = "finder/_why.html" if request.htmx else "finder/why.html"
    return render(request, template, context)
