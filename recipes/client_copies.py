"""A recipe changed for one client alone: a copy that is theirs, and one without what they must not
have."""

from __future__ import annotations

from django.db import transaction

from changes.offers import Outdated
from clients.models import Client
from clients.plan.gate import barred_foods
from nutrition.composition.ingredient import Ingredient
from nutrition.recipe.model import choice_keys
from nutrition.recipe.notation import not_counted
from nutrition.recipe.part import PartFood
from nutrition.recipe.reckoning import Facts
from nutrition.safety.gate import Gate
from nutrition.written.line import Line
from nutrition.written.wording import uncapitalized
from practice.models import User
from recipes.facts import facts_of, note_parts
from recipes.models import Recipe, RecipeVersion
from recipes.versions import keep, save_kept

NOT_WITHOUT = (
    "{name} cannot be made without it: nothing would be left, or it is in a part recipe. "
    "Leave it out."
)


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


def save_own(own: Recipe, by: User, why: str) -> RecipeVersion:
    """Store a client's own recipe: a copy that is new, or theirs over what it was. Raises
    StaleSave."""
    return save_kept(own, own.version, by, why) if own.pk else save_new(own, by, why)


def batch_follows(recipe: Recipe, before: Facts) -> None:
    """What was weighed was the batch before: it is taken to shrink and grow as the lines do. The
    recipe is not saved."""
    if recipe.batch_g is not None and before.computed_g > 0:
        share = facts_of(recipe).computed_g / before.computed_g
        recipe.batch_g = round(recipe.batch_g * share, 1) or None


def copy_with_lines(
    recipe: Recipe, client: Client, lines: list[tuple[str, str]], before: Facts
) -> Recipe:
    """The client's own copy with other lines, not stored. Each line comes with the key that its
    choices were kept by, empty for a new one; what is not counted stays, and a weighed batch
    follows from what it was `before`."""
    made = copy_for(recipe, client)
    texts = [text for text, _key in lines]
    news = zip(lines, choice_keys(texts), strict=True)
    made.choices = {new: made.choices[key] for (_text, key), new in news if key in made.choices}
    aside = [line.strip() for line in made.text.splitlines() if not_counted(line.strip())]
    made.text = "\n".join([*texts, *aside])
    batch_follows(made, before)
    return made


def made_without(
    recipe: Recipe, name: str, client: Client, gate: Gate, by: User
) -> tuple[Recipe, str]:
    """The client's own copy without the lines of foods that they must not have, and what to say of
    it. Raises Outdated where nothing would be left, or where it is a part recipe that holds
    them."""
    facts = facts_of(recipe)
    keys = choice_keys(facts.recipe.lines)
    kept, gone = [], []
    for line, key in zip(facts.lines, keys, strict=True):
        if line.food is not None and _barred(line, facts.recipe.servings, gate):
            if isinstance(line.food, PartFood):
                raise Outdated(NOT_WITHOUT.format(name=name))
            gone.append(uncapitalized(line.food.name))
        else:
            kept.append((line.text, key))
    if not gone or not kept:
        raise Outdated(NOT_WITHOUT.format(name=name))
    made, words = copy_with_lines(recipe, client, kept, facts), f"without {', '.join(gone)}"
    save_own(made, by, words)
    return made, f"{made.title} is made {words}."


def _barred(line: Line, servings: float, gate: Gate) -> bool:
    """Whether a line holds what is to be asked about first."""
    if line.food is None or line.grams is None:
        return False
    if isinstance(line.food, PartFood):
        return bool(barred_foods(gate, line.food.foods_in(line.grams)))
    return any(bar.stops for bar in gate.bars([Ingredient(line.food, line.grams / servings)]))
