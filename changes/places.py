"""Where something that is changed has its place: asked of the later stages, which each speak for
themselves. A bowl stands in a day, a sauce in the bowls that wear it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from nutrition.composition.profile import Profile

# Each takes a bowl and a client, and says which meal it stands in; empty for none.
_MEALS: list[Callable[[Any, Any], str]] = []
# Each takes a recipe and a client, and gives the bowls that wear it.
_DAYS: list[Callable[[Any, Any], Any]] = []
_WORN: list[Callable[[Any, Any], list[Worn]]] = []


@dataclass(frozen=True)
class Worn:
    """A bowl that wears a sauce or a topping: how many servings of it, and what else is in the
    bowl."""

    name: str
    servings: float
    rest: Profile


def says_meal(ask: Callable[[Any, Any], str]) -> None:
    if ask not in _MEALS:
        _MEALS.append(ask)


def says_day(ask: Callable[[Any, Any], Any]) -> None:
    if ask not in _DAYS:
        _DAYS.append(ask)


def day_of_bowl(bowl: Any, client: Any) -> Any:
    """The day in which a bowl stands that is nearest to today, with what the rest of it leaves;
    None for none."""
    return next((day for ask in _DAYS if (day := ask(bowl, client))), None)


def says_worn(ask: Callable[[Any, Any], list[Worn]]) -> None:
    if ask not in _WORN:
        _WORN.append(ask)


def meal_of_bowl(bowl: Any, client: Any) -> str:
    """The meal in which a bowl stands in a client's days, the nearest day first; empty for none."""
    return next((meal for ask in _MEALS if (meal := ask(bowl, client))), "")


def worn_in(recipe: Any, client: Any) -> list[Worn]:
    """The bowls that wear a recipe, those of the client first."""
    return [one for ask in _WORN for one in ask(recipe, client)]
