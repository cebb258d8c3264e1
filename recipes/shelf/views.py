"""The shelf: looked through by school, and copied into the practice, all, by school, or one."""

from __future__ import annotations

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST

from clients.pages.context import PageRequest
from nutrition.planning.kinds import kinds_of_recipe
from nutrition.targets.schools import schools
from recipes.facts import facts_of
from recipes.shelf.copying import copy_in, titles_there
from recipes.shelf.dishes import as_recipe, schools_for, shelf
from webkit.request_values import key_in, next_in, short


def look(request: PageRequest) -> HttpResponse:
    """The dishes of the shelf, those of a school where one is asked for."""
    code = short(request.GET, "school", 40)
    there, rows = titles_there(request.practice), []
    for dish in shelf():
        recipe = as_recipe(dish, request.practice)
        fit = schools_for(recipe)
        if code in schools() and code not in fit:
            continue
        facts = facts_of(recipe)
        kinds = sorted(kinds_of_recipe(dish.title, dish.role, facts.foods()))
        rows.append(
            {
                "dish": dish,
                "serving": facts.serving,
                "kinds": ", ".join(kinds),
                "schools": [schools()[one].name for one in fit],
                "there": dish.title.lower() in there,
            }
        )
    context = {
        "rows": rows,
        "code": code,
        "schools": schools().values(),
        "missing": sum(not row["there"] for row in rows),
        "next": request.GET.get("next", ""),
    }
    return render(request, "recipes/shelf.html", context)


@require_POST
def copy(request: PageRequest) -> HttpResponse:
    """One dish, those of a school, or all of them."""
    one, code = key_in(request.POST.get("dish", "")), short(request.POST, "school", 40)
    dishes = [dish for dish in shelf() if one is None or dish.key == one]
    if one is None and code in schools():
        dishes = [dish for dish in dishes if code in schools_for(as_recipe(dish, request.practice))]
    made = copy_in(request.practice, dishes, request.user)
    if made:
        messages.success(request, f"Copied {made} dish{'' if made == 1 else 'es'} of the shelf.")
    else:
        messages.info(request, "The practice has them already.")
    shelf_page = f"{reverse('recipes:shelf')}?school={code}" if code else reverse("recipes:shelf")
    return redirect(next_in(request, shelf_page))
