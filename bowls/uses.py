"""What the bowls have to say of a recipe: which hold it, and what becomes of them when it
changes."""

from collections.abc import Mapping
from typing import Any

from bowls.models import BowlPart
from nutrition.composition.nutrients import NUTRIENT
from pantry.models import OwnFood
from practice.uses import some
from recipes.facts import facts_of
from recipes.models import Recipe
from webkit import figures
from webkit.page_cache import once

TOLD_KEYS = ("energy_kcal", "protein_g", "sodium_mg")
# A change of less than this share is not worth a word; so many bowls are told of one by one.
WORTH_SAYING, MOST_TOLD = 0.02, 4


def _parts(recipe: Recipe) -> list[BowlPart]:
    return list(BowlPart.objects.filter(recipe=recipe, bowl__removed=None).select_related("bowl"))


def holding(recipe: Recipe) -> str:
    return some(sorted({part.bowl.name for part in _parts(recipe)}), "bowl")


def holding_food(food: OwnFood) -> str:
    parts = BowlPart.objects.filter(food=food.slug, bowl__removed=None).select_related("bowl")
    return some(sorted({part.bowl.name for part in parts}), "bowl")


def moved(before: Recipe, after: Recipe) -> list[str]:
    """What each bowl with the recipe has more or less of now, in words."""
    out = []
    old, new = facts_of(before), facts_of(after)
    if old.batch.grams <= 0 or new.batch.grams <= 0:
        return []
    for part in _parts(after):
        told = []
        for key in TOLD_KEYS:
            was, now = (
                facts.batch[key].amount * part.grams / facts.batch.grams for facts in (old, new)
            )
            if abs(now - was) > WORTH_SAYING * max(was, now, 1e-9):
                places = NUTRIENT[key].decimals
                told.append(
                    f"{NUTRIENT[key].name.lower()} {figures.digits(was, places)} to "
                    f"{figures.digits(now, places)} {NUTRIENT[key].unit}"
                )
        if told:
            out.append(
                f"{part.bowl.name} holds it and changes with it: {'; '.join(told)} from this part."
            )
    more = len(out) - MOST_TOLD
    return [*out[:MOST_TOLD], f"{more} more bowls hold it and change with it."] if more > 0 else out


def of_client(page: Mapping[str, Any]) -> dict[str, Any]:
    """For the page of a client: their own bowls, the last changed first."""
    client = page["client"]
    rows = client.bowl_set.filter(archived=None).order_by("-updated").defer("history")
    return {"bowls": once(("newest bowls", client.pk), lambda: list(rows[:5]))}
