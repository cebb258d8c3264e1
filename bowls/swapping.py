"""A bowl's parts as something that can be swapped: for another food, or for another recipe of the
practice in the same role."""

from __future__ import annotations

from collections.abc import Iterable

from bowls.bowl import Reckoned
from bowls.models import Bowl, BowlPart
from clients.models import Client
from clients.swap_panel import Outdated, Subject, swapped_in
from nutrition.composition.foods import ROLES, food_table
from nutrition.safety.gate import Gate
from nutrition.swaps.ranking import Dish, Line
from nutrition.written import household
from practice.models import User
from recipes.facts import facts_of, room_ml
from recipes.models import Recipe
from recipes.owned import open_to

MOST_DISHES = 8


def key_of(bowl: Bowl) -> str:
    """What a change that is offered for this bowl is signed for."""
    return f"bowl-{bowl.pk}"


def dishes_in(
    role: str, besides: Iterable[int | None], grams: float, gate: Gate, client: Client | None
) -> tuple[Dish, ...]:
    """Recipes of the practice in a role, at so many grams, that hold nothing the client is not to
    have. [g]"""
    out = []
    for recipe in (
        open_to(client)
        .filter(role=role)
        .exclude(pk__in=[pk for pk in besides if pk])[: MOST_DISHES * 3]
    ):
        facts = facts_of(recipe)
        if facts.batch.grams <= 0 or facts.unresolved:
            continue
        share = grams / facts.batch.grams
        if gate.why_not_dish([part.times(share) for part in facts.batch_foods()]):
            continue
        volume = room_ml(recipe.role, facts)
        said = household.by_volume(volume * share, grams) if volume else None
        out.append(
            Dish(
                key=f"recipe-{recipe.pk}",
                name=recipe.title,
                grams=grams,
                profile=facts.batch * share,
                words=said.words if said else "",
            )
        )
    return tuple(out[:MOST_DISHES])


def subject_of(bowl: Reckoned, gate: Gate, client: Client | None) -> Subject:
    """The bowl's parts; those that are locked stay as they are."""
    used = [part.row.recipe_id for part in bowl.parts]
    lines = []
    for part in bowl.parts:
        if part.row.locked or part.profile.grams <= 0:
            continue
        food = food_table()[part.row.food] if part.row.food else None
        lines.append(
            Line(
                str(part.pk),
                part.name,
                food,
                part.row.grams,
                part.profile,
                dishes_in(part.row.role, used, part.row.grams, gate, client),
            )
        )
    return Subject(
        key=key_of(bowl.bowl), version=bowl.bowl.version, lines=lines, profile=bowl.profile
    )


def recipe_of(key: str) -> Recipe:
    """The recipe of a dish's key. Raises Outdated where it is gone."""
    recipe = Recipe.objects.filter(pk=key.removeprefix("recipe-")).first()
    if recipe is None:
        raise Outdated("That recipe is no longer there.")
    return recipe


def apply(bowl: Bowl, steps: list[dict], by: User) -> None:
    """Take the steps as one change that can be undone. Raises Outdated where something is not there
    any more, StaleSave."""
    rows = {str(row.pk): row for row in bowl.parts.all()}
    changed = []
    for step in steps:
        row = (
            rows.get(step["line"])
            if step["line"]
            else BowlPart(bowl=bowl, place=bowl.parts.count() + 1)
        )
        if row is None:
            raise Outdated("That part is no longer in the bowl.")
        if step["dish"]:
            row.recipe, row.food = recipe_of(step["dish"]), ""
        elif step["food"]:
            food = swapped_in(step["food"])
            if not step["line"]:
                row.role = food.role if food.role in ROLES else "topping"
            row.recipe, row.food = None, food.slug
        row.level(step["grams"])
        changed.append(row)
    with bowl.changing(bowl.version, by):
        for row in changed:
            if row.grams > 0:
                row.save()
            else:
                row.delete()
