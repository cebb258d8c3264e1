"""Finding from anywhere, and where a number comes from."""

from __future__ import annotations

from django.http import Http404, HttpResponse
from django.shortcuts import render

from clients.context import PageRequest
from finder.derived import derived
from finder.places import places
from nutrition.composition.nutrients import NUTRIENT
from roundpantry.asked import short


def find(request: PageRequest) -> HttpResponse:
    """Clients, recipes, bowls, days, foods and pages by a few letters."""
    words = short(request.GET, "q", 80)
    context = {"q": words, "places": places(words, request.for_client)}
    template = "finder/_places.html" if request.htmx else "finder/find.html"
    return render(request, template, context)


def why(request: PageRequest, of: str, key: str) -> HttpResponse:
    """A number with the lines, factors, rows and sources that it comes from."""
    if key not in NUTRIENT:
        raise Http404("no such nutrient")
    context = {"why": derived(of, key), "key": key, "nutrient": NUTRIENT[key]}
    template = "finder/_why.html" if request.htmx else "finder/why.html"
    return render(request, template, context)
