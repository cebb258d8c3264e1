"""Foods found by a name: first those that a line of that name would mean, then those that share
words or beginnings of words with it."""

from __future__ import annotations

from collections.abc import Hashable
from functools import lru_cache

from nutrition.composition.food_names import food_names
from nutrition.composition.food_search import Match, food_index
from nutrition.composition.foods import Food, food_table
from nutrition.written.line import Line
from nutrition.written.naming import name_food

# With fewer foods than this to choose from more are looked for, up to so many.
FEW_TO_CHOOSE, MOST_TO_CHOOSE = 3, 6


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


def to_choose(line: Line) -> list[Match]:
    """The foods to choose from for a line: what it may mean, and where that is little, what shares
    words with it."""
    if len(line.candidates) >= FEW_TO_CHOOSE or not line.phrase:
        return list(line.candidates)
    more = _sharing(line.phrase, food_table().key)
    found = {match.food.slug: match for match in (*line.candidates, *more)}
    return list(found.values())[:MOST_TO_CHOOSE]


@lru_cache(maxsize=2048)
def _sharing(phrase: str, _foods: Hashable) -> tuple[Match, ...]:
    return tuple(food_index().usable(phrase, MOST_TO_CHOOSE))
