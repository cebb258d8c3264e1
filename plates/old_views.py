"""Dishes of old habits, written down to be compared with: made, added to, taken away."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST

from clients.pages.context import PageRequest
from nutrition.composition.foods import food_table
from nutrition.composition.helpings import first_helping_g
from nutrition.written.finding import find_foods
from nutrition.written.typed_amounts import UnreadableAmount, read_amount
from plates.models import OldDish
from plates.subjects import old_plate
from recipes.adding import typed
from webkit.request_values import TooLong, short, whole

MOST_FOUND, MOST_PARTS, MOST_NAME = 10, 30, 120


def opened(pk: int) -> OldDish:
    found: OldDish = get_object_or_404(OldDish.with_removed.select_related("client"), pk=pk)
    return found


@require_POST
def new(request: PageRequest) -> HttpResponse:
    try:
        name = whole(request.POST, "name", MOST_NAME)
    except TooLong as error:
        messages.error(request, f"{error} It was: {request.POST.get('name', '')[:600]}")
        return redirect("plates:compare")
    if not name:
        messages.error(request, "Give what they eat now a name: “two eggs and toast”.")
        return redirect("plates:compare")
    made = OldDish.objects.create(practice=request.practice, client=request.for_client, name=name)
    return redirect("plates:old", made.pk)


def page(request: PageRequest, pk: int) -> HttpResponse:
    """One such dish, with what is in it; foods are added by typing, animal foods among them."""
    dish = opened(pk)
    return render(request, "plates/old.html", _context(dish) | _found(request))


def _context(dish: OldDish) -> dict[str, Any]:
    table = food_table()
    rows = [
        {"at": at, "food": table.get(part["food"]), "grams": part["grams"]}
        for at, part in enumerate(dish.parts)
    ]
    return {"dish": dish, "rows": rows, "plate": old_plate(dish)}


def _found(request: PageRequest) -> dict[str, Any]:
    asked = typed(short(request.GET, "q"))
    foods = (
        find_foods(asked.words, MOST_FOUND, typing=True, comparators=True) if asked.words else []
    )
    return {"q": short(request.GET, "q"), "amount": asked.amount, "found": foods}


def find(request: PageRequest, pk: int) -> HttpResponse:
    if not request.htmx:
        return page(request, pk)
    return render(request, "plates/_old_found.html", {"dish": opened(pk)} | _found(request))


@require_POST
def change(request: PageRequest, pk: int) -> HttpResponse:
    """Add a food with its amount, change an amount, or take one out."""
    dish, data = opened(pk), request.POST
    parts, problem = list(dish.parts), ""
    at = data.get("at", "")
    row = int(at) if at.isascii() and at.isdigit() and int(at) < len(parts) else None
    if "remove" in data and row is not None:
        del parts[row]
    else:
        slug = parts[row]["food"] if row is not None else data.get("food", "")
        food = food_table().get(slug)
        if food is None or (row is None and len(parts) >= MOST_PARTS):
            problem = "Choose a food from the list."
        else:
            try:
                said = short(data, "amount", 40) or f"{first_helping_g(food):g} g"
                line = read_amount(said, food, request.practice.measures)
                part = {"food": slug, "grams": line.grams, "low": line.low, "high": line.high}
                parts = [*parts, part] if row is None else [*parts[:row], part, *parts[row + 1 :]]
            except UnreadableAmount as error:
                problem = str(error)
    if problem:
        messages.error(request, problem)
    else:
        dish.parts = parts
        dish.save(update_fields=["parts"])
    return redirect("plates:old", pk)


@require_POST
def remove(request: PageRequest, pk: int) -> HttpResponse:
    dish = opened(pk)
    if "back" in request.POST:
        dish.bring_back()
        return redirect("plates:old", pk)
    dish.remove(request.user)
    messages.info(request, f"{dish.name} is deleted; it can be brought back for thirty days.")
    return redirect(f"{reverse('plates:compare')}?removed={dish.pk}")
