"""A recipe changed for one client alone: a copy that is theirs, and one without what they must not
have."""

from __future__ import annotations

from django.db import transaction

from clients.gate import barred_foods
from clients.models import Client
from nutrition.composition.ingredient import Ingredient
from nutrition.recipe.model import choice_keys
from nutrition.recipe.part import PartFood
from nutrition.safety.gate import Gate
from nutrition.written.plain import uncapitalized
from practice.models import User
from recipes.facts import facts_of, note_parts
from recipes.models import Recipe, RecipeVersion
from recipes.versions import keep, save_kept


def copy_for(recipe: Recipe, client: Client) -> Recipe:
    """The recipe as this client's own, not stored; their own recipe is itself."""
    if recipe.client_id == client.pk:
        return recipe
    title = f"{recipe.title}, {client.name}"[:160]
    return Recipe(
        practice=recipe.practice, client=client, origin=recipe, **recipe.kept() | {"title": title}
    )


def save_new(recipe: Recipe, by: User, why: str) -> RecipeVersion:
    """Store a copy with its first version; a title that is taken gets a number."""
    with transaction.atomic():
        title, number = recipe.title, 1
        while Recipe.with_removed.filter(title__iexact=recipe.title).exists():
            number += 1
            recipe.title = f"{title[:150]} ({number})"
        note_parts(recipe)
        recipe.save()
        return keep(recipe, by, why)


def made_without(
    recipe: Recipe, client: Client, gate: Gate, by: User
) -> tuple[Recipe | None, list[str]]:
    """The client's own copy without the lines of foods that they must not have, and the names of
    those; None where nothing would be left, or where it is a part recipe that holds them."""
    facts = facts_of(recipe)
    keys = choice_keys(facts.recipe.lines)
    kept_lines, choices, gone = [], {}, []
    for line, key in zip(facts.lines, keys, strict=True):
        barred = False
        if line.food is not None and line.grams is not None:
            if isinstance(line.food, PartFood):
                if barred_foods(gate, line.food.foods_in(line.grams)):
                    return None, []
            else:
                barred = any(
                    bar.stops
                    for bar in gate.bars(
                        [Ingredient(line.food, line.grams / facts.recipe.servings)]
                    )
                )
        if barred:
            gone.append(uncapitalized(line.food.name))
        else:
            kept_lines.append((line.text, key))
    if not gone or not kept_lines:
        return None, gone
    made = copy_for(recipe, client)
    for (_text, key), new in zip(
        kept_lines, choice_keys([text for text, _key in kept_lines]), strict=True
    ):
        if key in made.choices:
            choices[new] = made.choices[key]
    made.text, made.choices = "\n".join(text for text, _key in kept_lines), choices
    if made.batch_g is not None and facts.computed_g > 0:
        # what was weighed was the batch before: it is taken to shrink as the lines do
        changed = facts_of(made)
        made.batch_g = round(made.batch_g * changed.computed_g / facts.computed_g, 1) or None
    why = f"without {', '.join(gone)}"
    if made.pk:
        save_kept(made, made.version, by, why)
    else:
        save_new(made, by, why)
    return made, gone
