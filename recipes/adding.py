"""What is typed where something is added: an amount before it, the words of what is meant, and what
the practice has by them, what the client likes before the rest."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from functools import reduce
from typing import Any, TypeVar

from django.db.models import Q, QuerySet

from clients.models import Client
from clients.plan.marks import Marked, marked_dish, marked_food
from nutrition.composition.foods import Food, food_table, ready_to_eat
from nutrition.composition.helpings import first_helping_g
from nutrition.safety.gate import Gate
from nutrition.written.finding import find_foods, surely_meant
from nutrition.written.grammar import read
from nutrition.written.line import Choice, Line
from nutrition.written.matching import reckon_line
from nutrition.written.typed_amounts import (
    MAX_GRAMS,
    UnreadableAmount,
    read_amount,
    read_batch_amount,
)
from recipes.facts import facts_of, parts_at_hand, room_of
from recipes.models import Recipe
from recipes.ownership import open_to
from webkit import figures
from webkit.request_values import grams_in

MOST_DISHES, MOST_FOODS = 5, 7
# A part or an entry that is added weighs no less: to take it out is a step of its own. [g]
LEAST_PART_G = 0.4
T = TypeVar("T")


@dataclass(frozen=True)
class Typed:
    """ "200 g cooked millet" as its amount, "200 g", and its words, "cooked millet"."""

    amount: str
    words: str


def typed(text: str) -> Typed:
    """The amount before what is meant; empty where none was typed."""
    text = " ".join(text.split())
    reading = read(text) if text[:1].isdigit() or text[:2].lower() == "a " else None
    if reading is None or not reading.terms or not reading.phrase:
        return Typed("", text)
    at = text.lower().find(reading.phrase.split()[0].lower())
    amount = text[:at].strip().removesuffix(" of").strip() if at > 0 else ""
    return Typed(amount, text[at:] if amount else text)


def with_words(rows: QuerySet, field: str, words: str) -> QuerySet:
    """The rows that have every word in a field, in whatever order."""
    asked = (Q(**{f"{field}__icontains": word}) for word in words.split()[:8])
    return rows.filter(reduce(Q.__and__, asked, Q()))


def liked_first(client: Client | None, found: Iterable[T], name: Callable[[T], str]) -> list[T]:
    """The same, those that hold a word that the client likes first."""
    liked = [word.lower() for word in client.favorite_words] if client else []
    return sorted(found, key=lambda one: not any(word in name(one).lower() for word in liked))


def found_recipes(client: Client | None, gate: Gate, asked: Typed) -> list[Marked]:
    """The client's own recipes and everybody's by these words, marked where one is to be asked
    about."""
    rows = with_words(open_to(client), "title", asked.words)[: MOST_DISHES * 2]
    with parts_at_hand():
        marked = [marked_dish(gate, row, facts_of(row).foods()) for row in rows]
    return liked_first(client, marked, lambda one: str(one.it))[:MOST_DISHES]


def found_foods(client: Client | None, gate: Gate, asked: Typed, system: str) -> list[Marked]:
    """The foods by these words, with what the amount that was typed comes to."""
    found = [
        marked_food(gate, one.food) for one in find_foods(asked.words, MOST_FOODS, typing=True)
    ]
    return [
        replace(one, said=_weight_words(one.it, asked.amount, system))
        for one in liked_first(client, found, lambda one: one.it.name)
    ]


def _weight_words(food: Food, amount: str, system: str) -> str:
    if not amount:
        return ""
    try:
        line = food_line(food, amount, system)
    except UnreadableAmount:
        return f"“{amount}” cannot be weighed"
    return figures.grams(line.grams or 0.0)


@dataclass(frozen=True, kw_only=True)
class Offered:
    """Something that can be added: the field it is sent in, with its value, what it is called and
    what it is, and how it is marked."""

    field: str
    value: str
    said: str
    kind: str
    one: Marked


def in_order(
    client: Client | None,
    asked: Typed,
    dishes: Sequence[tuple[str, Marked]],
    foods: Sequence[Marked],
) -> list[Offered]:
    """What Enter takes first, first: a dish of that very name, the very food that the words mean,
    then dishes whose names contain them, then other foods. `dishes` are bowls and recipes, each
    with its field. What the client likes stands before the very food, if it is another."""
    words = asked.words.strip().lower()
    named = [
        Offered(field=field, value=str(one.it.pk), said=str(one.it), kind=field, one=one)
        for field, one in dishes
        if one.it
    ]
    found = [
        Offered(field="food", value=one.it.slug, said=one.it.name, kind="food", one=one)
        for one in foods
    ]
    food = very_food(words)
    liked = [word.lower() for word in client.favorite_words] if client else []
    if any(word in one.said.lower() for word in liked for one in found):
        food = None
    very = [one for one in found if food is not None and one.value == food.slug]
    same = [one for one in named if one.said.strip().lower() == words]
    rest = (one for one in (*named, *found) if one not in very and one not in same)
    return [*same, *very, *rest]


def _stems(text: str) -> list[str]:
    return [word.removesuffix("es").removesuffix("s") for word in re.findall(r"\w+", text.lower())]


def very_food(words: str) -> Food | None:
    """The food that is called by these words, ready to eat; None where they only lead to one."""
    food = surely_meant(words) if words else None
    if food is None or ready_to_eat(food).slug != food.slug:
        return None
    asked, called = _stems(words), _stems(food.name)
    return food if called[0] in asked and set(asked) <= set(called) else None


def food_in(slug: str) -> Food | None:
    """The food that was chosen, if it can be eaten."""
    return food_table().usable(slug)


def food_line(food: Food, amount: str, system: str) -> Line:
    """So much of a food as was typed, or a first helping of it; a bare number before a food counts
    pieces, as in a recipe. Raises UnreadableAmount."""
    if amount and amount.replace(".", "").replace(",", "").replace("/", "").isdigit():
        counted = reckon_line(f"{amount} {food.name}", None, Choice(food.slug), system)
        if counted.grams is None:
            raise UnreadableAmount(
                f"{amount} of it cannot be counted. Write {amount} g, or a measure such as 1/2 cup."
            )
        return counted
    return read_amount(amount or f"{first_helping_g(food):g} g", food, system)


def recipe_line(recipe: Recipe, amount: str, system: str) -> Line:
    """So much of a recipe as was typed, or a serving. Raises UnreadableAmount."""
    facts: Any = facts_of(recipe)
    room = room_of(recipe.role, facts)
    if amount.replace(".", "").replace("/", "").isdigit() and float(amount.split("/")[0]) < 10:
        # a small bare number before a dish counts servings
        amount = f"{amount} servings"
    return read_batch_amount(
        amount or f"{facts.serving.grams:.1f} g",
        facts.serving.grams,
        room / facts.recipe.servings if room else None,
        system,
    )


def grams_asked(text: str) -> float | None:
    """Grams that are proposed or typed for what is added; None for none, or none that can be
    used."""
    grams = grams_in(text)
    return grams if grams is not None and LEAST_PART_G <= grams <= MAX_GRAMS else None
