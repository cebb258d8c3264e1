"""One printable page for a client: a bowl or a day."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render

from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from bowls.picture import bowl_round
from clients.context import focused
from clients.in_force import Reading, plan_of, strip
from clients.models import Client
from nutrition import indices
from nutrition.allergens import found_in
from planner.day import reckon_day
from planner.models import Day

CALORIES = {"energy_kcal", "kcal_per_gram"}


def _shown(client: Client | None, rows: list[Reading]) -> list[Reading]:
    """The rows of the strip, without calories for a client whom such numbers can harm."""
    return [row for row in rows if not (client is not None and client.counting_harms and row.key in CALORIES)]


def bowl(request: HttpRequest, pk: int) -> HttpResponse:
    row = get_object_or_404(Bowl, pk=pk)
    reckoned = reckon_bowl(row)
    client = row.client or focused(request)
    context = {
        "bowl": row,
        "client": client,
        "reckoned": reckoned,
        "round": bowl_round(reckoned, "protein_g"),
        "strip": _shown(client, strip(plan_of(client) if client else None, reckoned.profile)),
        "without_calories": client is not None and client.counting_harms,
        "strip_of": "This bowl",
        "indices": indices.all_indices(reckoned.profile),
        "refused": found_in(reckoned.foods, client.allergies if client else ()),
        "practice": request.user.practice,
    }
    return render(request, "handouts/bowl.html", context)


def day(request: HttpRequest, pk: int) -> HttpResponse:
    row = get_object_or_404(Day.objects.select_related("client"), pk=pk)
    reckoned = reckon_day(row)
    foods = [ingredient.food for ingredient in reckoned.ingredients]
    context = {
        "day": row,
        "client": row.client,
        "reckoned": reckoned,
        "strip": _shown(row.client, strip(plan_of(row.client, row.made_for, row.date), reckoned.profile)),
        "strip_of": "The day",
        "refused": found_in(foods, row.client.allergies),
        "practice": request.user.practice,
    }
    return render(request, "handouts/day.html", context)
