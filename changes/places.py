"""Where something that is changed has its place: asked of the later stages. A bowl stands in a day,
a sauce in the bowls that wear it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from nutrition.composition.profile import Profile
from webkit.extension_points import Question


@dataclass(frozen=True)
class Worn:
    """A bowl that wears a sauce or a topping: how many servings of it, and what else is in the
    bowl."""

    name: str
    servings: float
    rest: Profile


# Which meal does a bowl stand in for a client? Empty for none.
MEAL_OF: Question[[Any, Any], str] = Question()
# Which bowls wear a recipe for a client?
WORN_IN: Question[[Any, Any], list[Worn]] = Question()


def meal_of_bowl(bowl: Any, client: Any) -> str:
    """The meal in which a bowl stands in a client's days, the nearest day first; empty for none."""
    return MEAL_OF.first(bowl, client) or ""


def worn_in(recipe: Any, client: Any) -> list[Worn]:
    """The bowls that wear a recipe, those of the client first."""
    return [one for worn in WORN_IN.ask(recipe, client) for one in worn]
