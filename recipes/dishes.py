"""A recipe as something to eat: so much of its batch, and a serving with its lines."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from clients.models import Client
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.portion import Dish, Portion, room_ml
from nutrition.composition.profile import Profile
from nutrition.recipe.part import PartFood
from nutrition.recipe.reckoning import Facts
from nutrition.safety.gate import Gate
from nutrition.written.household import Spoken, measure_of, say
from recipes.facts import facts_of, room_of
from recipes.models import Recipe
from recipes.ownership import open_to

# So many other recipes are looked at in a dish's place.
MOST_DISHES = 8


class OfPortion:
    """A row that is a portion, with what is shown of it."""

    portion: Portion

    @property
    def name(self) -> str:
        return self.portion.name

    @property
    def profile(self) -> Profile:
        return self.portion.profile

    @property
    def volume_ml(self) -> float:
        return self.portion.volume_ml

    @property
    def foods(self) -> list[Ingredient]:
        return list(self.portion.foods)

    @property
    def unread(self) -> tuple[str, ...]:
        return self.portion.unread

    @property
    def role(self) -> str:
        return self.portion.role

    @property
    def star(self) -> bool:
        return self.portion.star

    @property
    def said(self) -> str:
        return self.portion.said


def batch_portion(title: str, role: str, facts: Facts, grams: float, key: str = "") -> Portion:
    """So many grams of a recipe's batch. [g]"""
    share = grams / facts.batch.grams if facts.batch.grams > 0 else 0.0
    volume = room_of(role, facts)
    return Portion(
        key=key,
        name=title,
        role=role,
        grams=grams,
        profile=facts.batch * share,
        volume_ml=room_ml(volume * share if volume else None, grams),
        poured=bool(volume),
        foods=tuple(part.times(share) for part in facts.batch_foods()),
        unread=facts.unread,
    )


def serving_said(role: str, facts: Facts) -> Spoken | None:
    """What a serving is in a household measure; None where it is not measured so."""
    portion = batch_portion("", role, facts, facts.serving.grams)
    return measure_of(portion, facts.serving.grams, facts.recipe.system)


def line_portions(facts: Facts) -> list[Portion]:
    """One serving line by line, each as it is cooked, by its place; lines that are not settled are
    left out. Their grams are those of the batch as they went in. [g]"""
    servings = facts.recipe.servings
    return [
        Portion(
            key=str(at),
            name=line.food.name,
            role=line.food.role,
            grams=line.grams,
            profile=cooked.profile * (1 / servings),
            volume_ml=room_ml(line.food.volume_ml(line.grams), line.grams),
            food=None if isinstance(line.food, PartFood) else line.food,
        )
        for at, (line, cooked) in enumerate(facts.rows)
        if line.food is not None and line.grams is not None and cooked is not None
    ]


def serving_dish(key: str, name: str, kind: str, role: str, facts: Facts) -> Dish:
    """One serving; its lines share the room of the batch as their raw volumes do."""
    volume = room_ml(room_of(role, facts), facts.batch.grams) / facts.recipe.servings
    lines = line_portions(facts)
    raw = sum(line.volume_ml for line in lines) or 1.0
    return Dish(
        key=key,
        name=name,
        kind=kind,
        portions=tuple(replace(line, volume_ml=volume * line.volume_ml / raw) for line in lines),
        profile=facts.serving,
        volume_ml=volume,
    )


def others_in(
    role: str,
    besides: Iterable[int | None],
    grams: float,
    gate: Gate,
    client: Client | None,
    system: str,
) -> tuple[Portion, ...]:
    """Other recipes of the practice in a role, at so many grams, that hold nothing the client is
    not to have. [g]"""
    out = []
    rows = open_to(client).filter(role=role).exclude(pk__in=[pk for pk in besides if pk])
    for recipe in rows[: MOST_DISHES * 3]:
        facts = facts_of(recipe)
        if facts.batch.grams <= 0 or facts.unresolved:
            continue
        portion = batch_portion(recipe.title, recipe.role, facts, grams, f"recipe-{recipe.pk}")
        if gate.why_not_dish(portion.foods):
            continue
        out.append(replace(portion, said=say(portion, grams, system)))
    return tuple(out[:MOST_DISHES])


def recipe_of(key: str) -> Recipe | None:
    """The recipe of a portion's key; None where it is gone."""
    return Recipe.objects.filter(pk=key.removeprefix("recipe-")).first()
