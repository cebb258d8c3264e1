"""A recipe as it travels, in whatever format: what the core reckons, its part in a bowl, and how it
is made in words."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from decimal import Decimal

from nutrition.recipe.model import Recipe, UnreadableRecipe, choice_keys, within
from nutrition.written.units import SYSTEM_WORDS


@dataclass(frozen=True, kw_only=True)
class Shared:
    """A recipe with what the core does not reckon. `told` says what of a file was not understood
    and where it went: nothing is lost in silence. `measures` are whose cups it is written in, empty
    where it does not say."""

    recipe: Recipe
    role: str = "dish"
    instructions: str = ""
    told: tuple[str, ...] = ()
    measures: str = ""


def with_known_choices(recipe: Recipe) -> Recipe:
    """The recipe without decisions for lines that it does not have."""
    keys = set(choice_keys(recipe.lines))
    return replace(
        recipe, choices={key: choice for key, choice in recipe.choices.items() if key in keys}
    )


def known_measures(name: str) -> str:
    """Whose cups are meant, if it is a system that is known; empty otherwise."""
    return name if name in SYSTEM_WORDS else ""


def exact(value: float) -> str:
    """A number with every digit that tells it from its neighbors: 0.1 is "0.1", 4.0 is "4"."""
    return repr(float(value)).removesuffix(".0")


def as_percent(share: float) -> str:
    """A share as percent, with every digit: 0.07 is "7"."""
    return f"{(Decimal(repr(float(share))) * 100).normalize():f}"


def stated(text: str, limits: tuple[float, float], what: str) -> float | None:
    """A number that a file states, None for an empty text. Raises UnreadableRecipe for one that
    cannot be."""
    if not text.strip():
        return None
    try:
        value = float(text)
    except ValueError:
        value = math.nan
    if not within(value, limits):
        raise UnreadableRecipe(
            f"{what} of {text.strip()[:40]} cannot be: it is {limits[0]:g} to {limits[1]:g}"
        )
    return value
