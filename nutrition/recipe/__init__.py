"""A recipe: what was written, what stands in its brackets, and what it comes to once cooked."""

from nutrition.recipe.model import Recipe, UnreadableRecipe
from nutrition.recipe.reckoning import Facts, reckon

__all__ = [
    "Facts",
    "Recipe",
    "UnreadableRecipe",
    "reckon",
]
