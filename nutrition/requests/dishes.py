"""Foods by their names and recipes, as they stand in what is asked."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated

from annotated_types import Gt, Lt

from nutrition.composition.food_names import food_names
from nutrition.composition.foods import Food, food_table
from nutrition.formats.recipe_files import read_recipe
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import Facts, reckon
from nutrition.requests.fields import Shorter
from nutrition.requests.structure import Refuse, Structure
from nutrition.written.naming import name_food

NEAR = 3
# Reads a file by its name.
Load = Callable[[str], str]
Size = Annotated[float, Gt(0), Lt(1e5)]


def _as_recipe(given: object) -> object:
    if isinstance(given, list):
        return {"lines": given}
    return {"text": given} if isinstance(given, str) else given


class RecipeGiven(Structure):
    """A recipe by its lines, or by its text or the name of a file with it; `batch_grams` is what
    the cooked batch weighed. [g]"""

    lines: list[str] | None = None
    text: str = ""
    title: str = ""
    servings: Size = 1.0
    batch_grams: Size | None = None
    method: str = ""

    def reckoned(self, field: str, load: Load, refuse: Refuse) -> Facts:
        """Raises what `refuse` makes for what is no recipe, or weighs nothing."""
        try:
            facts = reckon(self._recipe(load))
        except ValueError as error:
            raise refuse(field, f"{field}: {error}") from None
        if facts.batch.grams <= 0:
            missed = ", ".join(f"“{line.text}” ({line.why})" for line in facts.unresolved)
            said = f": {missed}" if missed else ""
            raise refuse(field, f"{field} weighs nothing: none of its lines could be read{said}")
        return facts

    def _recipe(self, load: Load) -> Recipe:
        if self.lines is None:
            return read_recipe(self.text if "\n" in self.text else load(self.text)).recipe
        return Recipe(
            tuple(self.lines),
            title=self.title,
            servings=self.servings,
            batch_g=self.batch_grams,
            method=self.method,
        )


RecipeIn = Annotated[
    RecipeGiven,
    Shorter(
        _as_recipe,
        {"type": "array", "items": {"type": "string"}},
        {"type": "string", "description": "the text of a recipe, or the name of its file"},
    ),
]


def food_named(phrase: str, field: str, refuse: Refuse) -> Food:
    """The food of that slug, or the one food that the words mean without a doubt. Raises what
    `refuse` makes."""
    own = food_table().usable(phrase)
    if own is not None:
        return own
    named = name_food(phrase, food_names())
    if named.food is not None and named.sure:
        return named.food
    if named.animal:
        why = f"“{named.why}” is from an animal"
    else:
        why = named.why or f"“{phrase}” wants a look: {'; '.join(named.notes)}"
    near = ", ".join(match.food.slug for match in named.candidates[:NEAR])
    raise refuse(field, f"{field}: {why}" + (f" (near: {near})" if near else ""))
