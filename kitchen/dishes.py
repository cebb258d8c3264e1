"""The dishes of a session: the pots of a day of a week, or recipes that were chosen."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import asdict, dataclass
from typing import Any

from nutrition.prep.timeline.kitchen import MOST_DISHES
from nutrition.recipe.scaling import LEAST, MOST
from recipes.facts import facts_of
from recipes.models import Recipe
from week.pots import Pot

MOST_SERVINGS = 200.0
MOST_CONTAINERS = 60


@dataclass(frozen=True, kw_only=True)
class Dish:
    """A dish of a session: the recipe, how many servings of it, by when where that is not when all
    is wanted [min], whether it is put away, and into how many containers. `pot_day` is the day of
    the week whose pot of that recipe it is, None for none."""

    key: str
    recipe_id: int
    servings: float
    ready_at: int | None = None
    stored: bool = False
    containers: int = 0
    pot_day: int | None = None

    def data(self) -> dict[str, Any]:
        """As it is kept."""
        return asdict(self)


def dish_in(data: Mapping[str, Any], at: int = 0) -> Dish | None:
    """A dish as it was kept; None for what is none."""
    recipe, servings, ready = data.get("recipe_id"), data.get("servings"), data.get("ready_at")
    containers, day = data.get("containers"), data.get("pot_day")
    if not isinstance(recipe, int) or not isinstance(servings, int | float):
        return None
    if not 0 < servings <= MOST_SERVINGS:
        return None
    return Dish(
        key=str(data.get("key") or f"d{at + 1}"),
        recipe_id=recipe,
        servings=float(servings),
        ready_at=ready if isinstance(ready, int) and -1440 < ready < 2880 else None,
        stored=data.get("stored") is True,
        containers=containers
        if isinstance(containers, int) and 0 <= containers <= MOST_CONTAINERS
        else 0,
        pot_day=day if isinstance(day, int) else None,
    )


def _count(containers: object) -> int:
    return containers if isinstance(containers, int) and 0 <= containers <= MOST_CONTAINERS else 0


def dishes_in(rows: object) -> list[Dish]:
    """The dishes as they were kept."""
    given = rows if isinstance(rows, list) else []
    found = [dish_in(row, at) for at, row in enumerate(given) if isinstance(row, dict)]
    return [dish for dish in found if dish is not None][:MOST_DISHES]


def dish_of_pot(pot: Pot, at: int) -> Dish:
    """A pot of a week: put away, but for what is eaten on the day it is cooked."""
    at_home = any(one.day == pot.cooked.day and not one.packed for one in pot.eatings)
    return Dish(
        key=f"d{at + 1}",
        recipe_id=pot.recipe.pk,
        servings=round(pot.cooked.made, 3),
        stored=not at_home,
        containers=min(len(pot.containers), MOST_CONTAINERS),
        pot_day=pot.cooked.day,
    )


def dish_of_recipe(recipe: Recipe, at: int) -> Dish:
    """A recipe as it is written."""
    return Dish(key=f"d{at + 1}", recipe_id=recipe.pk, servings=recipe.servings)


def recipes_of(dishes: Iterable[Dish]) -> dict[int, Recipe]:
    """The recipes of some dishes by their numbers."""
    rows = Recipe.with_removed.filter(pk__in={dish.recipe_id for dish in dishes})
    return {
        row.pk: row for row in rows.prefetch_related("step_readings", "step_times", "pots_measured")
    }


def factor_of(dish: Dish, recipe: Recipe) -> float:
    """How many times the recipe is made, within what a kitchen does."""
    return min(max(dish.servings / facts_of(recipe).recipe.servings, LEAST), MOST)
