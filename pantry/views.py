"""Search the food table and read one food's row."""

from django.http import Http404, HttpResponse
from django.shortcuts import render

from clients.cautions import of_foods
from clients.context import PageRequest
from clients.in_force import plan_of
from nutrition.composition.foods import UnknownFood, food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import NUTRIENTS
from nutrition.insight import indices
from nutrition.written.finding import find_foods
from roundpantry.asked import short

SHOWN = 24


def search(request: PageRequest) -> HttpResponse:
    query = short(request.GET, "q")
    matches = find_foods(query, SHOWN, typing=True, comparators=True) if query else []
    context = {"q": query, "matches": matches, "count": len(food_table())}
    template = "pantry/_results.html" if request.htmx else "pantry/search.html"
    return render(request, template, context)


def food(request: PageRequest, slug: str) -> HttpResponse:
    try:
        row = food_table()[slug]
    except UnknownFood:
        raise Http404("no such food") from None
    profile = row.profile(100.0)
    groups: dict[str, list[tuple[object, float | None]]] = {}
    for nutrient in NUTRIENTS:
        groups.setdefault(nutrient.group, []).append((nutrient, row.per_100_g(nutrient.key)))
    client = request.for_client
    context = {
        "food": row,
        "profile": profile,
        "groups": groups,
        "indices": indices.all_indices(profile),
        "client": client,
        "told": of_foods(plan_of(client), [Ingredient(row, 1.0)]),
    }
    return render(request, "pantry/food.html", context)
