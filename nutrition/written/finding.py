"""Foods found by a name: first those that a line of that name would mean, then those that share
words or beginnings of words with it."""

from __future__ import annotations

from nutrition.composition.food_names import food_names
from nutrition.composition.food_search import Match, food_index
from nutrition.composition.foods import Food
from nutrition.written.naming import name_food


def find_foods(
    query: str, limit: int, *, typing: bool = False, comparators: bool = False
) -> list[Match]:
    """The foods that a query finds, best first, none twice. `typing` lets its last word be the
    beginning of one, `comparators` takes the animal foods too, which are there to compare with."""
    meant = name_food(query, food_names()) if query.strip() else None
    first = meant.candidates if meant is not None and meant.food is not None else ()
    index = food_index()
    look = index.search if comparators else index.usable
    found = {match.food.slug: match for match in (*first, *look(query, limit, typing=typing))}
    return list(found.values())[:limit]


def surely_meant(query: str) -> Food | None:
    """The one food that a name means without a doubt."""
    meant = name_food(query, food_names())
    return meant.food if meant.sure else None
