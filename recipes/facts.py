"""Reckoned recipes, kept by their content: the same lines are added up once."""

from collections.abc import Hashable
from functools import lru_cache

from nutrition.lines import Choice
from nutrition.recipe import Facts, reckon
from nutrition.recipe import Recipe as CoreRecipe
from recipes.models import Recipe


@lru_cache(maxsize=512)
def _reckon(lines: tuple[str, ...], servings: float, batch_g: float | None, method: str, choices: tuple[Hashable, ...]) -> Facts:
    return reckon(CoreRecipe(lines, "", servings, batch_g, {text: Choice(food, grams) for text, food, grams in choices}, method))


def facts_of_core(core: CoreRecipe) -> Facts:
    choices = tuple(sorted(((text, choice.food, choice.grams) for text, choice in core.choices.items()), key=repr))
    return _reckon(core.lines, core.servings, core.batch_g, core.method, choices)


def facts_of(recipe: Recipe) -> Facts:
    """The recipe's facts. Cheap to call again for a recipe that did not change."""
    return facts_of_core(recipe.core())
