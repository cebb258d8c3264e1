"""A recipe that comes in, kept with what of it could not be kept as it was."""

from __future__ import annotations

from nutrition.composition.cooking_methods import METHOD_WORDS
from nutrition.composition.foods import food_table
from nutrition.formats.shared import Shared, known_measures
from nutrition.recipe.model import UnreadableRecipe
from recipes.facts import note_parts
from recipes.forms import TITLE
from recipes.models import ROLE_CHOICES, Recipe
from recipes.versions import keep

# How much of each a recipe holds. [characters]
SHORT, LONG = 60, 20_000


def _fits(text: str, most: int, what: str) -> str:
    """The text if it fits. Raises UnreadableRecipe: nothing is cut."""
    if len(text) > most:
        raise UnreadableRecipe(f"{what} has {len(text):,} characters, and {most:,} can be kept")
    return text


def store(shared: Shared, practice, by) -> tuple[Recipe, list[str]]:
    """A new recipe from what came in, and what of it could not be kept as it was, in words. Raises
    UnreadableRecipe for more than is kept of something."""
    core, told = shared.recipe, list(shared.told)
    foods = food_table()
    choices = {}
    for line, choice in core.choices.items():
        usable = choice.food and foods.usable(choice.food)
        kept: dict[str, object] = {"food": choice.food} if usable else {}
        if choice.food and not kept:
            told.append(
                f"the food chosen for “{line.partition(chr(9))[0][:60]}” is not in the table"
            )
        if choice.grams:
            kept["grams"] = choice.grams
        if kept:
            choices[line] = kept
    if shared.role not in dict(ROLE_CHOICES):
        told.append(f"“{shared.role[:40]}” is no part of a bowl: taken as a dish")
    if core.method and core.method not in METHOD_WORDS:
        told.append(
            f"“{core.method[:40]}” is no way of cooking that is known here: say how it is cooked"
        )
    if shared.measures and not known_measures(shared.measures):
        told.append(
            f"“{shared.measures[:20]}” names no cups that are known here: taken as this practice's "
            f"own"
        )
    title = _fits(core.title or "Imported recipe", TITLE, "its title")
    taken, number = title, 1
    while Recipe.with_removed.filter(title__iexact=title).exists():
        number += 1
        title = f"{taken[: TITLE - 6]} ({number})"
    recipe = Recipe(
        practice=practice,
        title=title,
        role=shared.role if shared.role in dict(ROLE_CHOICES) else "dish",
        text="\n".join(core.lines),
        servings=core.servings,
        batch_g=core.batch_g,
        # "4 to 6" is a claim, the plain number of servings is not
        claims=_fits(
            "" if core.claimed == f"{core.servings:g}" else core.claimed,
            SHORT,
            "what it says it serves",
        ),
        serving_measure=_fits(core.serving_measure, SHORT, "the measure of a serving"),
        cooked_by=core.method if core.method in METHOD_WORDS else "",
        reduced=core.reduced,
        measures=known_measures(shared.measures) or practice.measures,
        method=_fits(shared.instructions, LONG, "the method"),
        choices=choices,
    )
    note_parts(recipe)
    recipe.save()
    keep(recipe, by, "imported")
    return recipe, told
