"""The bowls that wear a sauce or a topping: it is judged in them."""

from __future__ import annotations

from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from changes.places import Worn
from clients.models import Client
from nutrition.composition.profile import Profile
from recipes.facts import facts_of
from recipes.models import Recipe

MOST_WORN = 3


def worn_by(recipe: Recipe, client: Client | None) -> list[Worn]:
    """The bowls that hold a recipe, those of the client first."""
    serving = facts_of(recipe).serving
    if recipe.pk is None or serving.grams <= 0:
        return []
    bowls = Bowl.objects.filter(parts__recipe=recipe).distinct().select_related("client")
    mine = sorted(bowls, key=lambda bowl: bowl.client_id != (client.pk if client else None))
    out = []
    for bowl in mine[:MOST_WORN]:
        parts = reckon_bowl(bowl).parts
        wears = [part for part in parts if part.row.recipe_id == recipe.pk]
        rest = Profile.total(part.profile for part in parts if part.row.recipe_id != recipe.pk)
        grams = sum(part.row.grams for part in wears)
        if rest.grams > 0 and grams > 0:
            out.append(Worn(bowl.name, grams / serving.grams, rest))
    return out
