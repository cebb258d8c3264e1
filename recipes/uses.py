"""Which recipes a food of the practice's own is in."""

from pantry.models import OwnFood
from practice.uses import some
from recipes.facts import facts_of, parts_at_hand
from recipes.models import Recipe


def holding_food(food: OwnFood) -> str:
    """The recipes with a line that means this food, or that have it in a recipe they name."""
    with parts_at_hand():
        found = [
            recipe.title
            for recipe in Recipe.objects.all()
            if any(part.food.slug == food.slug for part in facts_of(recipe).foods())
        ]
    return some(found, "recipe")
