"""What is printed of a week: the refrigerator door, the labels, and what is cooked."""

from __future__ import annotations

from collections.abc import Sequence

from django.http import HttpResponse
from django.urls import reverse
from django.utils.dateformat import format as dated

from clients.pages.context import PageRequest
from clients.plan.cautions import is_about
from clients.plan.standing import for_the_household
from nutrition.composition.nutrients import NUTRIENT
from nutrition.prep.batches import Label
from nutrition.recipe.method_steps import read_steps
from nutrition.safety.cautions import Caution
from nutrition.targets.meals import MAIN_MEALS
from paper.labels import ContainerLabel, labels_paper
from paper.sheets import Choice, Paper, answer
from practice.requests import SignedInRequest
from webkit import figures
from week.cautions import asked_of
from week.door import cooked_pots, door_of
from week.door_letters import letters_for
from week.from_dry import cooked_first
from week.models import Week
from week.page import PAGES
from week.pots import Pot
from week.reckoning import ReckonedWeek, reckon_week

# So many numbers fit onto a label.
ON_A_LABEL = 3


def _back(week: Week) -> tuple[str, str]:
    return reverse("week:page", args=[week.pk]), "Back to the week"


def door_paper(request: SignedInRequest, reckoned: ReckonedWeek) -> Paper:
    """The week on one page, for the refrigerator door."""
    week, days = reckoned.week, door_of(reckoned)
    ask = for_the_household(request.practice, asked_of(reckoned))
    context = {
        "week": week,
        "client": week.client,
        "reckoned": reckoned,
        "days": days,
        "whole": len(reckoned.meals) + 1,
        "mains": MAIN_MEALS,
        "pots": cooked_pots(reckoned),
        "ask_household": ask,
    }
    return Paper(
        title=f"{dated(week.start, 'F j')} to {dated(week.last, 'F j')}",
        template="week/door.html",
        context=context,
        back=_back(week),
        whom=f"for {week.client.name}",
        kind=f"door {letters_for(days, asked=bool(ask))}",
    )


def cooking_paper(request: SignedInRequest, reckoned: ReckonedWeek) -> Paper:
    """Every pot of the week: the recipe made for it, its containers, the hot pot's caution."""
    week = reckoned.week
    pots = [
        {
            "pot": pot,
            "steps": read_steps(pot.recipe.method, pot.facts.lines).steps,
            "effects": [
                (NUTRIENT[key].name, share)
                for key, share in (pot.scaled.effect.items() if pot.scaled else ())
                if abs(share) >= 0.01 and key not in week.client.kept_off
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
    return Paper(
        title=f"Cooking for the week of {dated(week.start, 'F j')}",
        template="week/cooking.html",
        context=context,
        back=_back(week),
        whom=f"for {week.client.name}",
        kind="cooking-week",
    )


def labels_of_week(request: SignedInRequest, reckoned: ReckonedWeek, asked: str = "") -> Paper:
    """A label for every container of the week, or of one pot."""
    week = reckoned.week
    pots = [pot for pot in reckoned.pots if not asked or pot.key == asked]
    keys = [
        row.target.key
        for row in reckoned.plan.watched
        if row.target.key not in week.client.kept_off
        and NUTRIENT[row.target.key].group != "indices"
    ][:ON_A_LABEL]
    alone = not reckoned.skeleton.eaters
    asks = asked_of(reckoned)
    shown = [
        _label(label, alone, _is_asked_about(pot, asks), week.client.numbers_hidden)
        for pot in pots
        for label in pot.labels(keys)
    ]
    return labels_paper(
        shown,
        f"{len(shown)} label{'' if len(shown) == 1 else 's'}",
        back=_back(week),
        note=f"One for each container of {week.container_ml:.0f} mL; three across a page. What is "
        "eaten from the pot on the day needs none.",
        ask_household=for_the_household(request.practice, asks),
        choices=[Choice("pot", "", "All of the week")] if asked else [],
    )


def _label(label: Label, alone: bool, ask: bool, hidden: bool) -> ContainerLabel:
    """A label as it is printed: its numbers in words, whose it is where several eat, and whether to
    ask before it is eaten."""
    said = [
        f"{figures.digits(value, 0 if value >= 10 else 1)} {NUTRIENT[key].unit}"
        + ("" if key == "energy_kcal" else f" {NUTRIENT[key].name.lower()}")
        for key, value in label.numbers
    ]
    if label.frozen:
        thaw = f", thaw {dated(label.thaw, 'D')} night" if label.thaw else ""
        eat_by = f"Frozen{thaw}; eat by {dated(label.eat_by, 'M j')}"
    else:
        eat_by = f"Eat by {dated(label.eat_by, 'D, M j')}"
    whose = "" if alone or not label.whose else f"; for {label.whose}"
    return ContainerLabel(
        dish=label.dish,
        cooked=label.cooked,
        eat_by=eat_by,
        amount=", ".join([*([] if hidden else [figures.grams(label.grams)]), *said]),
        serve=f"{label.serve}{whose}",
        ask=ask,
    )


def _is_asked_about(pot: Pot, asks: Sequence[Caution]) -> bool:
    """Whether a stop is about what is in a pot; one that names no food is about every pot."""
    names = {one.food.name for one in pot.facts.batch_foods()}
    return any(not one.names or is_about(one.names, names) for one in asks)


def door(request: PageRequest, pk: int) -> HttpResponse:
    week, elsewhere = PAGES.opened(request, pk)
    return elsewhere or answer(request, door_paper(request, reckon_week(week)))


def cooking(request: PageRequest, pk: int) -> HttpResponse:
    week, elsewhere = PAGES.opened(request, pk)
    return elsewhere or answer(request, cooking_paper(request, reckon_week(week)))


def labels(request: PageRequest, pk: int) -> HttpResponse:
    week, elsewhere = PAGES.opened(request, pk)
    asked = request.GET.get("pot", "")
    return elsewhere or answer(request, labels_of_week(request, reckon_week(week), asked))
