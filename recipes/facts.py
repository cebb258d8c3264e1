"""Reckoned recipes, kept by their content: the same lines are added up once. Parts inside parts
flow upward."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable
from dataclasses import dataclass, field, replace
from functools import lru_cache

from django.db.models import F

from nutrition.lines import Choice
from nutrition.part import part_named
from nutrition.recipe import Facts, reckon
from nutrition.recipe import Recipe as CoreRecipe
from nutrition.sauce import poured_ml
from recipes.models import Recipe, core_of

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
def _reckon(key: tuple[Hashable, ...]) -> Facts:
    lines, servings, batch_g, serving_measure, method, reduced, system, choices, parts, refused = (
        key
    )
    kept = {text: Choice(food, grams) for text, food, grams in choices}
    used = {part.name: part.facts for part in parts}
    core = CoreRecipe(
        lines,
        "",
        servings,
        batch_g,
        kept,
        method,
        reduced,
        system=system,
        serving_measure=serving_measure,
    )
    return reckon(replace(core, parts=used, refused=dict(refused)))


def _key(
    core: CoreRecipe, parts: tuple[_Part, ...], refused: tuple[tuple[str, str], ...]
) -> tuple[Hashable, ...]:
    choices = tuple(
        sorted(
            ((text, choice.food, choice.grams) for text, choice in core.choices.items()), key=repr
        )
    )
    return (
        core.lines,
        core.servings,
        core.batch_g,
        core.serving_measure,
        core.method,
        core.reduced,
        core.system,
        choices,
        parts,
        refused,
    )


def named(lines: Iterable[str]) -> list[str]:
    """The recipes that lines name as parts, in lower case, each once."""
    return list(dict.fromkeys(name.lower() for name in map(part_named, lines) if name))


# Where a part's recipe is found by its name: among the practice's own, or with a dish as it was
# planned.
Find = Callable[[str], dict | None]


def recipe_called(name: str) -> Recipe | None:
    """The practice's recipe of a title, one for everybody before one for a client; one that was
    taken away where there is no other."""
    order = F("removed").asc(nulls_first=True), F("client").asc(nulls_first=True), "pk"
    return Recipe.with_removed.filter(title__iexact=name).order_by(*order).first()


def kept_called(name: str) -> dict | None:
    """What a recipe of the practice holds, by its title."""
    recipe = recipe_called(name)
    return recipe.kept() if recipe else None


def _parts(
    core: CoreRecipe, path: tuple[str, ...], find: Find
) -> tuple[tuple[_Part, ...], tuple[tuple[str, str], ...]]:
    """The recipes that lines name, reckoned, and why some cannot be."""
    parts, refused = [], []
    for name in named(core.lines):
        if name in path or len(path) > MOST_DEEP:
            refused.append((name, f"it would contain itself: {' → '.join((*path, name))}"))
            continue
        kept = find(name)
        if kept is not None:
            own = core_of(kept)
            inner = _parts(own, (*path, name), find)
            key = _key(own, *inner)
            parts.append(_Part(name, key, _reckon(key)))
    return tuple(parts), tuple(refused)


def facts_of_core(core: CoreRecipe, find: Find = kept_called) -> Facts:
    """Facts of what is written, its title standing for the recipe in what it may contain."""
    return _reckon(_key(core, *_parts(core, (core.title.strip().lower(),), find)))


def facts_of(recipe: Recipe) -> Facts:
    """The recipe's facts. Cheap to call again for a recipe that did not change."""
    return facts_of_core(recipe.core())


def with_parts(kept: dict, path: tuple[str, ...] = ()) -> dict:
    """What a recipe holds, and with it what the recipes hold that it names: all that its numbers
    come from."""
    path = (*path, str(kept["title"]).strip().lower())
    inside = {}
    for name in named(core_of(kept).lines):
        own = kept_called(name) if name not in path and len(path) <= MOST_DEEP else None
        if own is not None:
            inside[name] = with_parts(own, path)
    return kept | {"parts": inside}


def facts_of_kept(kept: dict) -> Facts:
    """Facts of a recipe as it was kept with its parts, whatever became of them since."""

    def find(name: str, inside: dict = kept) -> dict | None:
        own = inside.get("parts", {})
        return own.get(name) or next(
            (found for part in own.values() if (found := find(name, part))), None
        )

    return facts_of_core(core_of(kept), find)


def room_ml(role: str, facts: Facts) -> float | None:
    """The room the batch takes: a sauce by what was poured or its weight, anything else as its
    lines lie. [mL] None: unknown."""
    return poured_ml(facts) if role == "sauce" else facts.volume_ml


def check_no_loop(core: CoreRecipe) -> None:
    """Raises Loop with the way round if the recipe, saved like this, would contain itself."""
    title = core.title.strip().lower()

    def walk(lines: Iterable[str], path: tuple[str, ...]) -> None:
        for name in named(lines):
            if name in path:
                raise Loop(f"It would contain itself: {' → '.join((*path, name))}.")
            kept = kept_called(name)
            if kept is not None and len(path) <= MOST_DEEP:
                walk(core_of(kept).lines, (*path, name))

    walk(core.lines, (title,))
