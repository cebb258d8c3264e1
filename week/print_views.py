"""What is printed of a week: the refrigerator door, the labels, and what is cooked."""

from __future__ import annotations

from collections.abc import Sequence

from django.http import HttpResponse
from django.shortcuts import render

from clients.pages.context import PageRequest
from clients.plan.cautions import is_about
from clients.plan.standing import for_the_household
from nutrition.composition.nutrients import NUTRIENT
from nutrition.prep.batches import Label
from nutrition.recipe.method_steps import read_steps
from nutrition.safety.cautions import Caution
from nutrition.targets.meals import MAIN_MEALS
from webkit import figures
from week.cautions import asked_of
from week.door import cooked_pots, door_of
from week.door_letters import letters_for
from week.from_dry import cooked_first
from week.page import PAGES
from week.pots import Pot
from week.reckoning import reckon_week

CALORIES = {"energy_kcal", "kcal_per_gram"}
# So many numbers fit onto a label.
ON_A_LABEL = 3


def door(request: PageRequest, pk: int) -> HttpResponse:
    """The week on one page, for the refrigerator door."""
    week, elsewhere = PAGES.opened(request, pk)
    if elsewhere:
        return elsewhere
    reckoned = reckon_week(week)
    days = door_of(reckoned)
    context = {
        "week": week,
        "client": week.client,
        "reckoned": reckoned,
        "days": days,
        "points": letters_for(days),
        "whole": len(reckoned.meals) + 1,
        "mains": MAIN_MEALS,
        "pots": cooked_pots(reckoned),
        "ask_household": for_the_household(request.practice, asked_of(reckoned)),
        "practice": request.practice,
    }
    return render(request, "week/door.html", context)


def cooking(request: PageRequest, pk: int) -> HttpResponse:
    """Every pot of the week: the recipe made for it, its containers, the hot pot's caution."""
    week, elsewhere = PAGES.opened(request, pk)
    if elsewhere:
        return elsewhere
    reckoned = reckon_week(week)
    pots = [
        {
            "pot": pot,
            "steps": read_steps(pot.recipe.method, pot.facts.lines).steps,
            "effects": [
                (NUTRIENT[key].name, share)
                for key, share in (pot.scaled.effect.items() if pot.scaled else ())
                if abs(share) >= 0.01
            ],
        }
        for pot in reckoned.pots
    ]
    context = {
        "week": week,
        "client": week.client,
        "reckoned": reckoned,
        "pots": pots,
        "first": cooked_first(week, reckoned.pots, reckoned.rows),
        "ask_household": for_the_household(request.practice, asked_of(reckoned)),
    }
    return render(request, "week/cooking.html", context)


def _shown(label: Label, alone: bool, ask: bool) -> dict[str, object]:
    """A label as it is printed: its numbers in words, whose it is where several eat, and whether to
    ask before it is eaten."""
    said = [
        f"{figures.digits(value, 0 if value >= 10 else 1)} {NUTRIENT[key].unit}"
        + ("" if key == "energy_kcal" else f" {NUTRIENT[key].name.lower()}")
        for key, value in label.numbers
    ]
    own = {name: getattr(label, name) for name in ("dish", "cooked", "eat_by", "frozen", "thaw")}
    whose = "" if alone else label.whose
    more = {"grams": label.grams, "numbers": said, "serve": label.serve, "whose": whose, "ask": ask}
    return own | more


def _is_asked_about(pot: Pot, asks: Sequence[Caution]) -> bool:
    """Whether a stop is about what is in a pot; one that names no food is about every pot."""
    names = {one.food.name for one in pot.facts.batch_foods()}
    return any(not one.names or is_about(one.names, names) for one in asks)


def labels(request: PageRequest, pk: int) -> HttpResponse:
    """A label for every container of the week, or of one pot."""
    week, elsewhere = PAGES.opened(request, pk)
    if elsewhere:
        return elsewhere
    reckoned = reckon_week(week)
    asked = request.GET.get("pot", "")
    pots = [pot for pot in reckoned.pots if not asked or pot.key == asked]
    hidden = CALORIES if week.client.counting_harms else set()
    keys = [
        row.target.key
        for row in reckoned.plan.watched
        if row.target.key not in hidden and NUTRIENT[row.target.key].group != "indices"
    ][:ON_A_LABEL]
    alone = not reckoned.skeleton.eaters
    asks = asked_of(reckoned)
    asked_about = {pot.key: _is_asked_about(pot, asks) for pot in pots}
    context = {
        "week": week,
        "client": week.client,
        "labels": [
            _shown(label, alone, asked_about[pot.key]) for pot in pots for label in pot.labels(keys)
        ],
        "ask_household": for_the_household(request.practice, asks),
        "pots": pots,
        "asked": asked,
    }
    return render(request, "week/labels.html", context)
