"""Search the food table and read one food's row."""

from collections.abc import Callable
from typing import Any

from django.contrib import messages
from django.core.paginator import Paginator
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render

from clients.pages.context import PageRequest
from clients.plan.cautions import of_foods
from clients.plan.in_force import plan_of
from nutrition.composition.foods import Food, UnknownFood, food_table, shipped_foods
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import NUTRIENTS
from nutrition.insight import indices
from nutrition.written.finding import find_foods
from pantry import keeping
from pantry.forms import OverruleForm
from pantry.models import SLUG, Overrule
from webkit.request_values import short

SHOWN = 24


def _most(key: str) -> Callable[[Food], tuple[bool, float]]:
    """The order of most first, what is unknown last."""
    return lambda food: (
        food.per_100_g(key) is None,
        -(food.per_100_g(key) or 0.0),
    )


SORTS: dict[str, tuple[str, Callable[[Food], Any] | None]] = {
    "best": ("what fits best", None),
    "name": ("name", lambda food: food.name),
    "kcal": (
        "energy, least first",
        lambda food: (food.per_100_g("energy_kcal") is None, food.per_100_g("energy_kcal") or 0.0),
    ),
    "protein": ("protein, most first", _most("protein_g")),
    "fiber": ("fiber, most first", _most("fiber_g")),
    "sodium": ("sodium, most first", _most("sodium_mg")),
}


def search(request: PageRequest) -> HttpResponse:
    query, kind = short(request.GET, "q"), short(request.GET, "show")
    sort = request.GET.get("sort", "")
    sort = sort if sort in SORTS else "best" if query else "name"
    table = food_table()
    if query:
        foods = [one.food for one in find_foods(query, SHOWN, typing=True, comparators=True)]
    else:
        foods = [food for food in table if not food.retired]
    groups = sorted({food.group for food in table})
    if kind in groups:
        foods = [food for food in foods if food.group == kind]
    key = SORTS[sort][1]
    if key is not None:
        foods = sorted(foods, key=key)
    rows = Paginator(foods, SHOWN).get_page(request.GET.get("page"))
    context = {
        "q": query,
        "foods": rows.object_list,
        "rows": rows,
        "groups": groups,
        "kind": kind,
        "sort": sort,
        "sorts": [(name, row[0]) for name, row in SORTS.items()],
        "count": len(table),
    }
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


def taken(request: PageRequest, food: Food) -> OverruleForm | None:
    """Take what was sent, if it can be; the form with what stands against it if not."""
    if food.own:
        raise Http404("a package of your own is edited")
    form = OverruleForm(request.POST, food=food)
    if not form.is_valid():
        return form
    keeping.overrule(request.practice, food, form.row, request.user)
    messages.success(request, f"{food.name} is reckoned with your value from now on.")
    return None
