"""Dishes as they were planned: kept with the day, and held beside what became of them since."""

import hashlib
import json

from django.db.models import Q

from bowls.bowl import kept_bowl
from bowls.models import Bowl
from nutrition.written.guess import Guess
from pantry.models import OwnFood
from planner.models import DayEntry, Eaten, PlannedDish
from recipes.facts import with_parts
from recipes.models import Recipe


def kept_now(entry: Eaten) -> dict | None:
    """What the bowl or recipe of an entry holds now; None for a single food."""
    if entry.bowl is not None:
        return kept_bowl(entry.bowl)
    return with_parts(entry.recipe.kept()) if entry.recipe else None


def is_out(entry: Eaten) -> bool:
    """Whether it is a meal eaten out."""
    return entry.planned is not None and "out" in entry.planned.data


def plan_out(entry: Eaten, practice, guess: Guess) -> None:
    """A meal eaten out, in words and with a guess; the entry is not saved."""
    entry.bowl = entry.recipe = None
    entry.food, entry.amount, entry.locked = "", 1.0, True
    kept = {"title": guess.words, "out": True}
    plan_as(entry, practice, kept | {"kcal": guess.kcal, "low": guess.low, "high": guess.high})


def guess_of(entry: Eaten) -> Guess:
    """What was written down of a meal eaten out."""
    kept = entry.planned.data if entry.planned is not None else {}
    return Guess(words=kept["title"], kcal=kept["kcal"], low=kept["low"], high=kept["high"])


def digest_of(kept: dict) -> str:
    return hashlib.sha256(json.dumps(kept, sort_keys=True).encode()).hexdigest()


def plan_dish(entry: Eaten, practice) -> None:
    """Keep with an entry what its bowl or recipe holds now; the entry is not saved."""
    kept = kept_now(entry)
    if kept is None:
        # a meal eaten out is what was written down, and nothing else
        entry.planned = entry.planned if is_out(entry) else None
        return
    plan_as(entry, practice, kept)


def plan_as(entry: Eaten, practice, kept: dict) -> None:
    """Keep with an entry what it is to hold; the entry is not saved."""
    # as it will come back from the database
    kept = json.loads(json.dumps(kept))
    entry.planned, _made = PlannedDish.objects.get_or_create(
        practice=practice, digest=digest_of(kept), defaults={"data": kept}
    )


def changed_since(entry: Eaten) -> bool:
    """Whether the bowl or recipe of an entry is no longer what it was when it was planned."""
    if entry.planned is None:
        return False
    kept = kept_now(entry)
    return kept is not None and digest_of(json.loads(json.dumps(kept))) != entry.planned.digest


def days_with(dish: Recipe | Bowl) -> int:
    """How many planned days hold a bowl or recipe."""
    found = DayEntry.objects.filter(
        **{"bowl" if isinstance(dish, Bowl) else "recipe": dish}, day__removed=None
    )
    return found.values("day").distinct().count()


def planned_food(food: OwnFood) -> str:
    """The planned days that hold a food of the practice's own, by itself or in a dish."""
    within = Q(planned__data__icontains=f'"{food.slug}"') | Q(planned__data__icontains=food.name)
    found = DayEntry.objects.filter(Q(food=food.slug) | within, day__removed=None)
    days = found.values("day").distinct().count()
    return f"{days} planned day{'s' if days > 1 else ''}" if days else ""


def planned_with(dish: Recipe | Bowl) -> str:
    days = days_with(dish)
    return (
        f"{days} planned day{'s' if days > 1 else ''}, which keep it as it was planned"
        if days
        else ""
    )


def stays_planned(_before: Recipe, after: Recipe) -> list[str]:
    days = days_with(after)
    if not days:
        return []
    return [
        f"{days} planned day{'s keep' if days > 1 else ' keeps'} the version planned with; each "
        f"offers the newer one."
    ]
