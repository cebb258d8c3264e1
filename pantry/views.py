"""Search the food table and read one food's row."""

from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render

from clients.cautions import of_foods
from clients.context import PageRequest
from clients.in_force import plan_of
from nutrition.composition.foods import UnknownFood, food_table, shipped_foods
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import NUTRIENTS
from nutrition.insight import indices
from nutrition.written.finding import find_foods
from pantry.models import SLUG, Overrule
from pantry.overrule_views import OverruleForm, taken
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
    form = None
    if request.method == "POST":
        form = taken(request, row)
        if form is None:
            return redirect("pantry:food", slug)
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
        "own_pk": slug.removeprefix(SLUG) if row.own else "",
        "overrules": Overrule.objects.filter(food=slug, ended=None).select_related("by"),
        "ended": Overrule.objects.filter(food=slug).exclude(ended=None).select_related("by"),
        "shipped": None if row.own else shipped_foods()[slug],
        "overrule": None if row.own else form or OverruleForm(food=shipped_foods()[slug]),
    }
    status = 400 if form is not None else 200
    return render(request, "pantry/food.html", context, status=status)
