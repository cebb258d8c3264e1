"""A recipe made again as a client's own, with less of one line."""

from __future__ import annotations

from changes.offers import Edit, Outdated
from clients.models import Client
from nutrition.composition.foods import food_table
from nutrition.recipe.part import PartFood
from nutrition.swaps.swap import kitchen
from nutrition.written.wording import uncapitalized
from practice.models import User
from recipes.changeable import written_into
from recipes.client_copies import copy_for, save_own
from recipes.facts import facts_of
from recipes.models import Recipe

# Less than this is left out. [g in the batch]
NOTHING_G = 0.05
WATER = "water"
# What goes is made up with water where it is at least so much of the batch. [share]
MADE_UP = 0.02


def made_with_less(
    recipe: Recipe, client: Client, slug: str, left: float, by: User
) -> tuple[Recipe, str]:
    """The client's own copy with so much left of a food [share], made up with water where it was
    much, and what to say of it. Raises Outdated where no line is of that food."""
    facts = facts_of(recipe)
    found = [
        (at, line.food, line.grams)
        for at, line in enumerate(facts.lines)
        if line.food is not None and line.grams is not None and line.food.slug == slug
    ]
    if not found:
        inside = any(isinstance(line.food, PartFood) for line in facts.lines)
        where = "it is in a part recipe: change that" if inside else "no line of it is"
        raise Outdated(f"{recipe.title} cannot be made with less of it: {where}.")
    edits, gone = [], 0.0
    for at, food, grams in found:
        kept, measure = kitchen(food, grams * left, recipe.measures)
        kept = kept if kept > NOTHING_G and left > 0 else 0.0
        edits.append(Edit(key=str(at), grams=kept, food=slug, measure=measure if kept else ""))
        gone += grams - kept
    if gone >= MADE_UP * facts.batch.grams > 0:
        grams, measure = kitchen(food_table()[WATER], gone, recipe.measures)
        edits.append(Edit(key="", grams=grams, food=WATER, measure=measure))
    own = copy_for(recipe, client)
    written_into(own, edits)
    name = uncapitalized(found[0][1].name)
    words = f"with less {name}" if left > 0 else f"without {name}"
    save_own(own, by, words)
    return own, f"{own.title} is made {words}."
