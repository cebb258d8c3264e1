"""The list of recipes, and a recipe copied, archived, removed and brought back."""

from functools import partial
from typing import Any

from django.contrib import messages
from django.core.paginator import Page
from django.db.models import F, Q

from clients.pages.client_records import OpenRecordPages
from clients.pages.context import PageRequest
from nutrition.insight import indices
from practice.passing_notes import note_in_passing
from recipes.client_copies import save_new
from recipes.facts import facts_of, parts_at_hand
from recipes.models import ROLE_CHOICES, Recipe
from recipes.numbers import differ, note_all
from webkit.listing import Lists

RECIPE_LISTS = Lists(
    search=("title", "text"),
    sorts={
        "title": ("title", ("title",)),
        "new": ("last changed", ("-updated",)),
        "kcal": ("energy, least first", (F("kcal").asc(nulls_last=True), "title")),
        "protein": ("protein, most first", (F("protein_g").desc(nulls_last=True), "title")),
        "density": ("kcal/g, lightest first", (F("kcal_per_gram").asc(nulls_last=True), "title")),
        "settle": ("to settle", ("-unsettled", "title")),
    },
    filters={"all": ("all", Q(archived=None))}
    | {role: (name, Q(role=role, archived=None)) for role, name in ROLE_CHOICES}
    | {
        "own": ("of one client", Q(client__isnull=False, archived=None)),
        "settle": ("to settle", Q(unsettled__gt=0, archived=None)),
        "archived": ("archived", Q(archived__isnull=False)),
    },
)


class RecipePages(OpenRecordPages[Recipe]):
    """The list of recipes, and what is the same for a recipe as for everything that is kept."""

    app, noun, model = "recipes", "recipe", Recipe

    def lists(self) -> Lists:
        return RECIPE_LISTS

    def list_context(self, request: PageRequest, page: Page) -> dict[str, Any]:
        with parts_at_hand():
            found = [(recipe, facts_of(recipe)) for recipe in page.object_list]
        moved = [(recipe, facts) for recipe, facts in found if differ(recipe, facts)]
        if moved:
            note_in_passing(partial(note_all, moved))
        shown = [
            {"recipe": recipe, "facts": facts, "indices": indices.all_indices(facts.serving)}
            for recipe, facts in found
        ]
        return {"shown": shown}

    def copied(self, request: PageRequest, recipe: Recipe) -> Recipe:
        """The same recipe under another title, for the client in the address or for everybody."""
        made = Recipe(
            practice=recipe.practice,
            client=request.for_client or recipe.client,
            origin=recipe,
            **recipe.kept() | {"title": f"{recipe.title}, another"[:160]},
        )
        save_new(made, request.user, f"duplicated from {recipe.title}")
        messages.success(request, "Duplicated: this is the copy.")
        return made


PAGES = RecipePages()
