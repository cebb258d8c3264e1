"""Reckoned recipes, kept by their content: the same lines are added up once. Parts inside parts flow upward."""

from __future__ import annotations

from collections.abc import Hashable, Iterable
from dataclasses import dataclass, field, replace
from functools import lru_cache

from nutrition.lines import Choice
from nutrition.part import part_named
from nutrition.recipe import Facts, reckon
from nutrition.recipe import Recipe as CoreRecipe
from nutrition.sauce import poured_ml
from recipes.models import Recipe

MOST_DEEP = 6


class Loop(ValueError):
    """A recipe would contain itself; the message shows the way round."""


@dataclass(frozen=True)
class _Part:
    """A part told apart by what it was reckoned from."""

    name: str
    key: Hashable
    facts: Facts = field(compare=False)


@lru_cache(maxsize=512)
def _reckon(
    lines: tuple[str, ...],
    servings: float,
    batch_g: float | None,
    serving_measure: str,
    method: str,
    system: str,
    choices: tuple[Hashable, ...],
    parts: tuple[_Part, ...],
    refused: tuple[tuple[str, str], ...],
) -> Facts:
    kept = {text: Choice(food, grams) for text, food, grams in choices}
    used = {part.name: part.facts for part in parts}
    core = CoreRecipe(lines, "", servings, batch_g, kept, method, system=system, serving_measure=serving_measure)
    return reckon(replace(core, parts=used, refused=dict(refused)))


def _key(core: CoreRecipe, parts: tuple[_Part, ...], refused: tuple[tuple[str, str], ...]) -> tuple[Hashable, ...]:
    choices = tuple(sorted(((text, choice.food, choice.grams) for text, choice in core.choices.items()), key=repr))
    return core.lines, core.servings, core.batch_g, core.serving_measure, core.method, core.system, choices, parts, refused


def _named(lines: Iterable[str]) -> list[str]:
    return list(dict.fromkeys(name.lower() for name in map(part_named, lines) if name))


def _parts(core: CoreRecipe, path: tuple[str, ...]) -> tuple[tuple[_Part, ...], tuple[tuple[str, str], ...]]:
    """The recipes that lines name, reckoned, and why some cannot be."""
    parts, refused = [], []
    for name in _named(core.lines):
        if name in path or len(path) > MOST_DEEP:
            refused.append((name, f"it would contain itself: {' → '.join((*path, name))}"))
            continue
        recipe = Recipe.objects.filter(title__iexact=name).first()
        if recipe is not None:
            own = recipe.core()
            inner = _parts(own, (*path, name))
            key = _key(own, *inner)
            parts.append(_Part(name, key, _reckon(*key)))
    return tuple(parts), tuple(refused)


def facts_of_core(core: CoreRecipe) -> Facts:
    """Facts of what is written, its title standing for the recipe in what it may contain."""
    return _reckon(*_key(core, *_parts(core, (core.title.strip().lower(),))))


def facts_of(recipe: Recipe) -> Facts:
    """The recipe's facts. Cheap to call again for a recipe that did not change."""
    return facts_of_core(recipe.core())


def room_ml(recipe: Recipe, facts: Facts) -> float | None:
    """The room the batch takes: a sauce by what was poured or its weight, anything else as its lines lie. [mL] None: unknown."""
    return poured_ml(facts) if recipe.role == "sauce" else facts.volume_ml


def check_no_loop(core: CoreRecipe) -> None:
    """Raises Loop with the way round if the recipe, saved like this, would contain itself."""
    title = core.title.strip().lower()

    def walk(lines: Iterable[str], path: tuple[str, ...]) -> None:
        for name in _named(lines):
            if name in path:
                raise Loop(f"It would contain itself: {' → '.join((*path, name))}.")
            recipe = Recipe.objects.filter(title__iexact=name).first()
            if recipe is not None and len(path) <= MOST_DEEP:
                walk(recipe.core().lines, (*path, name))

    walk(core.lines, (title,))
