"""The dishes of the shelf as they are written: harbor.txt, which the demo shares, and more.txt.

A block is a dish: "# title | part of a bowl | servings | batch [g] | how it is cooked", its lines,
and its steps after "--". All of them are our own.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path

from nutrition.safety.gate import Gate, avoided_kinds
from nutrition.targets.schools import schools
from practice.models import Practice
from recipes.facts import facts_of
from recipes.models import Recipe

HERE = Path(__file__).resolve().parent
FILES = ("harbor", "more")


@dataclass(frozen=True, kw_only=True)
class Dish:
    """A dish of the shelf; `key` is its place in it."""

    key: int
    title: str
    role: str
    servings: float
    batch_g: float | None
    cooked_by: str
    text: str
    method: str


def read_dishes(text: str, first: int = 0) -> tuple[Dish, ...]:
    """The dishes of a text, with keys from `first` on."""
    out = []
    for at, block in enumerate(text.strip().split("\n\n")):
        head, *rest = block.splitlines()
        parts = (*(part.strip() for part in head.removeprefix("# ").split("|")), "", "")
        title, role, servings, batch, cooked_by = parts[:5]
        steps = [line.removeprefix("--").strip() for line in rest if line.startswith("--")]
        out.append(
            Dish(
                key=first + at,
                title=title,
                role=role,
                servings=float(servings),
                batch_g=float(batch) if batch else None,
                cooked_by=cooked_by,
                text="\n".join(line for line in rest if not line.startswith("--")),
                method=" ".join(steps),
            )
        )
    return tuple(out)


@lru_cache(maxsize=4)
def shelf_of(name: str) -> tuple[Dish, ...]:
    """The dishes of one file of the shelf."""
    before = sum(len(shelf_of(one)) for one in FILES[: FILES.index(name)])
    return read_dishes((HERE / f"{name}.txt").read_text(encoding="utf-8"), before)


def shelf() -> tuple[Dish, ...]:
    """All dishes of the shelf."""
    return tuple(dish for name in FILES for dish in shelf_of(name))


def as_recipe(dish: Dish, practice: Practice) -> Recipe:
    """A dish as a recipe of a practice, not stored."""
    return Recipe(
        practice=practice,
        title=dish.title,
        role=dish.role,
        servings=dish.servings,
        batch_g=dish.batch_g,
        cooked_by=dish.cooked_by,
        text=dish.text,
        method=dish.method,
    )


def schools_for(recipe: Recipe) -> list[str]:
    """The codes of the schools that leave nothing of a dish out."""
    foods = facts_of(recipe).foods()
    return [
        code
        for code, school in schools().items()
        if not Gate(avoided=avoided_kinds((), school)).why_not_dish(foods)
    ]
