"""The recipes of a client's archive as other programs read them."""

from __future__ import annotations

from django.utils.text import slugify

from clients.archive_files import Rows
from clients.models import Client
from nutrition.formats.recipe_text import to_text
from nutrition.formats.schema_org import to_json_ld
from nutrition.formats.shared import Shared
from recipes.facts import facts_of
from recipes.models import Recipe


def shared_of(recipe: Recipe) -> Shared:
    """A recipe as it is given out."""
    return Shared(
        recipe=recipe.core(),
        role=recipe.role,
        instructions=recipe.method.replace("\r\n", "\n"),
        measures=recipe.measures,
    )


def recipes_of(client: Client, rows: Rows) -> list[tuple[str, bytes]]:
    """Each recipe that is theirs or that they eat of, as JSON-LD and as text."""
    out = []
    for at, recipe in enumerate(rows.get(Recipe, {}).values(), start=1):
        assert isinstance(recipe, Recipe)
        name = f"recipes/{at}-{slugify(recipe.title)[:60] or 'recipe'}"
        shared = shared_of(recipe)
        out += [
            (f"{name}.json", to_json_ld(facts_of(recipe), shared).encode()),
            (f"{name}.txt", to_text(shared).encode()),
        ]
    return out
