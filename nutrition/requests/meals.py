"""Meals as lines of text, read as what was eaten."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Annotated

from annotated_types import Len

from nutrition.composition.ingredient import Ingredient
from nutrition.composition.profile import Profile
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon
from nutrition.requests.fields import Shorter
from nutrition.safety.meal_size import meal_sizes
from nutrition.safety.situations import PlannedDay

MOST_MEALS, MOST_LINES, MAIN_MEALS = 12, 80, 3


def _lines(given: object) -> object:
    return given.splitlines() if isinstance(given, str) else given


def _by_name(given: object) -> object:
    if not isinstance(given, list):
        return given
    return {str(at): lines for at, lines in enumerate(given)}


# The lines of one meal, and the meals by their names or in their order.
Lines = Annotated[list[str], Len(0, MOST_LINES), Shorter(_lines, {"type": "string"})]
Meals = Annotated[
    dict[str, Lines],
    Len(0, MOST_MEALS),
    Shorter(_by_name, {"type": "array", "items": {"type": "array", "items": {"type": "string"}}}),
]


@dataclass(frozen=True, kw_only=True)
class Eaten:
    """What is eaten: all of it and each meal of it, its foods, and the lines that were not
    taken."""

    meals: tuple[Profile, ...]
    by_meal: tuple[tuple[Ingredient, ...], ...]
    refused: tuple[tuple[str, str], ...]
    unresolved: tuple[tuple[str, str], ...]

    @property
    def profile(self) -> Profile:
        return Profile.total(self.meals)

    @property
    def foods(self) -> tuple[Ingredient, ...]:
        return tuple(one for meal in self.by_meal for one in meal)

    def planned(self) -> PlannedDay:
        """As the cautions look at it; None of a meal's carbohydrate where nothing is eaten."""
        mains = [one["carbohydrate_g"].amount for one in self.meals[:MAIN_MEALS] if one.lines]
        return PlannedDay(
            profile=self.profile,
            foods=self.foods,
            main_meals=len(mains),
            least_meal_carbohydrate_g=min(mains, default=None),
            lines=self.unread,
            **meal_sizes(self.by_meal),
        )

    @property
    def unread(self) -> tuple[str, ...]:
        """The lines nobody could read; what is of animals is refused, and looked through too."""
        return tuple(line for line, _why in (*self.unresolved, *self.refused))


def read_meal(lines: Sequence[str]) -> Eaten:
    """One meal of lines."""
    facts = reckon(Recipe(tuple(one for one in lines if one.strip()), eaten=True))
    missed = [(line.animal, (line.text, line.why)) for line in facts.unresolved]
    return Eaten(
        meals=(facts.batch,),
        by_meal=(tuple(facts.batch_foods()),),
        refused=tuple(said for animal, said in missed if animal),
        unresolved=tuple(said for animal, said in missed if not animal),
    )


def read_meals(meals: Iterable[Sequence[str]]) -> Eaten:
    """Meals of lines."""
    read = [read_meal(lines) for lines in meals]
    return Eaten(
        meals=tuple(one for meal in read for one in meal.meals),
        by_meal=tuple(one for meal in read for one in meal.by_meal),
        refused=tuple(one for meal in read for one in meal.refused),
        unresolved=tuple(one for meal in read for one in meal.unresolved),
    )
