"""Dishes of the shelf copied into a practice."""

from __future__ import annotations

from collections.abc import Iterable

from django.db import transaction

from practice.models import Practice, User
from recipes.client_copies import save_new
from recipes.facts import facts_of
from recipes.models import Recipe
from recipes.numbers import note_all
from recipes.shelf.dishes import Dish, as_recipe

FROM = "from the shelf"


def titles_there(practice: Practice) -> set[str]:
    """The titles that the practice has, in lower case: what is there is not copied again."""
    rows = Recipe.with_removed.filter(practice=practice)
    return {title.lower() for title in rows.values_list("title", flat=True)}


def copy_in(practice: Practice, dishes: Iterable[Dish], by: User) -> int:
    """Copy dishes that the practice does not have yet; how many were copied."""
    made = []
    with transaction.atomic():
        there = titles_there(practice)
        for dish in dishes:
            if dish.title.lower() not in there:
                recipe = as_recipe(dish, practice)
                save_new(recipe, by, FROM)
                made.append((recipe, facts_of(recipe)))
        note_all(made)
    return len(made)
