"""The numbers of a serving that long lists are ordered by, noted with the recipe: what a list shows
is always reckoned anew."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from nutrition.insight import indices
from nutrition.recipe.reckoning import Facts
from recipes.facts import facts_of
from recipes.models import Recipe

NOTED = ("kcal", "protein_g", "kcal_per_gram", "unsettled")


def numbers_of(facts: Facts) -> tuple[float | None, float | None, float | None, int]:
    """What a list is ordered by: [kcal], [g], [kcal/g], and the lines that are not settled."""
    serving, density = facts.serving, indices.kcal_per_gram(facts.serving)
    return (
        round(serving["energy_kcal"].amount, 1),
        round(serving["protein_g"].amount, 2),
        None if density is None else round(density, 3),
        len(facts.unresolved),
    )


def differ(recipe: Recipe, facts: Facts) -> bool:
    """Whether what was noted is no longer so."""
    return tuple(getattr(recipe, name) for name in NOTED) != numbers_of(facts)


def note_numbers(recipe: Recipe, facts: Facts | None = None) -> None:
    """Note the numbers where they are no longer what was noted. No new version: nothing that is
    written changes."""
    facts = facts or facts_of(recipe)
    if differ(recipe, facts):
        now = dict(zip(NOTED, numbers_of(facts), strict=True))
        Recipe._base_manager.filter(pk=recipe.pk).update(**now)


def note_all(rows: Iterable[tuple[Recipe, Facts]]) -> None:
    for recipe, facts in rows:
        note_numbers(recipe, facts)


def after_saving(sender: type, instance: Recipe, raw: bool = False, **_more: Any) -> None:
    # what is put in as it was is reckoned when all that it is made of is there
    if not raw:
        note_numbers(instance)
