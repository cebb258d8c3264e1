"""Reckoned recipes with the recipes that they name as parts. The core keeps what it reckoned."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import replace
from functools import cached_property

from django.db.models import F

from nutrition.composition.portion import room_ml
from nutrition.recipe.model import Recipe as CoreRecipe
from nutrition.recipe.notation import part_named
from nutrition.recipe.reckoning import Facts, reckon
from nutrition.recipe.sauce_bench import poured_ml
from recipes.models import Recipe, core_of

MOST_DEEP = 6
# Where what a recipe's line names is found: by the name, and what the recipe holds.
Find = Callable[[str, Mapping], dict | None]


class Loop(ValueError):
    """A recipe would contain itself; the message shows the way round."""


def named(lines: Iterable[str]) -> list[str]:
    """The recipes that lines name as parts, in lower case, each once."""
    return list(dict.fromkeys(name.lower() for name in map(part_named, lines) if name))


def recipe_called(name: str) -> Recipe | None:
    """The practice's recipe of a title, one for everybody before one for a client; one that was
    taken away where there is no other."""
    order = F("removed").asc(nulls_first=True), F("client").asc(nulls_first=True), "pk"
    return Recipe.with_removed.filter(title__iexact=name).order_by(*order).first()


def part_recipe(name: str, ids: Mapping[str, int]) -> Recipe | None:
    """The recipe that a line means: the one it meant when it was saved, whatever that is called
    now, or else the one of that title."""
    named_here = _at_hand.get()
    if named_here is not None:
        return named_here.find(name, ids)
    known = ids.get(name.lower())
    return (Recipe.with_removed.filter(pk=known).first() if known else None) or recipe_called(name)


def note_parts(recipe: Recipe) -> None:
    """Note with a recipe, not saved, which recipes its lines mean."""
    found = {name: part_recipe(name, recipe.part_ids) for name in named(recipe.core().lines)}
    recipe.part_ids = {name: part.pk for name, part in found.items() if part is not None}


def _in_practice(name: str, kept: Mapping) -> dict | None:
    part = part_recipe(name, kept.get("part_ids") or {})
    return part.kept() if part else None


def _whole(core: CoreRecipe, kept: Mapping, path: tuple[str, ...], find: Find) -> CoreRecipe:
    """What is written with the recipes that its lines name, and why some cannot be."""
    parts, refused = {}, {}
    for name in named(core.lines):
        if name in path or len(path) > MOST_DEEP:
            refused[name] = f"it would contain itself: {' → '.join((*path, name))}"
            continue
        inner = find(name, kept)
        if inner is not None:
            # by its name it is what the line says, whatever it is called
            own = replace(core_of(inner), title="")
            parts[name] = _whole(own, inner, (*path, name), find)
    return replace(core, parts=parts, refused=refused)


def facts_of_core(core: CoreRecipe, kept: Mapping | None = None) -> Facts:
    """Facts of what is written, its title standing for the recipe in what it may contain; `kept` is
    what is stored of it."""
    return reckon(_whole(core, kept or {}, (core.title.strip().lower(),), _in_practice))


def facts_of(recipe: Recipe) -> Facts:
    """The recipe's facts. Cheap to call again for a recipe that did not change."""
    return facts_of_core(recipe.core(), recipe.kept())


@contextmanager
def parts_at_hand() -> Iterator[None]:
    """For a list: the recipes that could be named as parts are fetched once, when the first is
    asked for, and not looked up one by one."""
    token = _at_hand.set(_Named())
    try:
        yield
    finally:
        _at_hand.reset(token)


class _Named:
    """All recipes that could be a part, by key and by title."""

    @cached_property
    def rows(self) -> list[Recipe]:
        order = F("removed").asc(nulls_first=True), F("client").asc(nulls_first=True), "pk"
        return list(Recipe.with_removed.order_by(*order))

    @cached_property
    def by_pk(self) -> dict[int, Recipe]:
        return {row.pk: row for row in self.rows}

    @cached_property
    def by_title(self) -> dict[str, Recipe]:
        return {row.title.lower(): row for row in reversed(self.rows)}

    def find(self, name: str, ids: Mapping[str, int]) -> Recipe | None:
        return self.by_pk.get(ids.get(name.lower(), 0)) or self.by_title.get(name.lower())


_at_hand: ContextVar[_Named | None] = ContextVar("parts_at_hand", default=None)


def with_parts(kept: dict, path: tuple[str, ...] = ()) -> dict:
    """What a recipe holds, and with it what the recipes hold that it names: all that its numbers
    come from."""
    path = (*path, str(kept["title"]).strip().lower())
    inside = {}
    for name in named(core_of(kept).lines):
        own = _in_practice(name, kept) if name not in path and len(path) <= MOST_DEEP else None
        if own is not None:
            inside[name] = with_parts(own, path)
    return {key: value for key, value in kept.items() if key != "part_ids"} | {"parts": inside}


def facts_of_kept(kept: dict) -> Facts:
    """Facts of a recipe as it was kept with its parts, whatever became of them since."""

    def find(name: str, inside: Mapping) -> dict | None:
        return _deep(name, inside) or _deep(name, kept)

    core = core_of(kept)
    return reckon(_whole(core, kept, (core.title.strip().lower(),), find))


def _deep(name: str, kept: Mapping) -> dict | None:
    own = kept.get("parts", {})
    found = (inner for part in own.values() if (inner := _deep(name, part)))
    return own.get(name) or next(found, None)


def room_of(role: str, facts: Facts) -> float | None:
    """The room the batch takes: a sauce by what was poured or its weight, anything else as its
    lines lie. [mL] None: unknown."""
    return poured_ml(facts) if role == "sauce" else facts.volume_ml


def serving_room_ml(role: str, facts: Facts) -> float:
    """The room that a serving takes; by its weight where the batch's is not known. [mL]"""
    volume = room_of(role, facts)
    return room_ml(volume / facts.recipe.servings if volume else None, facts.serving.grams)


def check_no_loop(recipe: Recipe) -> None:
    """Raises Loop with the way round if the recipe, saved like this, would contain itself."""

    def walk(kept: Mapping, path: tuple[str, ...], seen: tuple[int, ...]) -> None:
        for name in named(core_of(dict(kept)).lines):
            part = part_recipe(name, kept.get("part_ids") or {})
            if name == path[0] or (part is not None and part.pk in seen):
                raise Loop(f"It would contain itself: {' → '.join((*path, name))}.")
            if part is not None and len(path) <= MOST_DEEP:
                walk(part.kept(), (*path, name), (*seen, part.pk))

    walk(recipe.kept(), (recipe.title.strip().lower(),), (recipe.pk,) if recipe.pk else ())
