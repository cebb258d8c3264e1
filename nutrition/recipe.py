"""A recipe: lines, servings and a measured batch, reckoned into facts per batch, per serving and per 100 g."""

from __future__ import annotations

import json
import re
from collections.abc import Mapping
from dataclasses import dataclass, field

from nutrition.foods import Food
from nutrition.lines import Choice, Line, reckon_line
from nutrition.profile import Profile
from nutrition.search import FoodIndex

MAX_LINES = 200
MAX_LINE_LENGTH = 400


class UnreadableRecipe(ValueError):
    """The text is not a recipe; the message says why."""


@dataclass(frozen=True)
class Recipe:
    """What the cook wrote. `batch_g` is what the pan's content weighed, if it was weighed. [g]"""

    lines: tuple[str, ...]
    title: str = ""
    servings: float = 1.0
    batch_g: float | None = None
    choices: Mapping[str, Choice] = field(default_factory=dict)


@dataclass(frozen=True)
class Facts:
    """A reckoned recipe. `computed_g` is the sum of the lines, `batch.grams` the weight in force."""

    recipe: Recipe
    lines: tuple[Line, ...]
    batch: Profile
    computed_g: float

    @property
    def serving(self) -> Profile:
        return self.batch * (1.0 / self.recipe.servings)

    @property
    def per_100_g(self) -> Profile:
        return self.batch * (100.0 / self.batch.grams) if self.batch.grams > 0 else self.batch

    @property
    def unresolved(self) -> tuple[Line, ...]:
        return tuple(line for line in self.lines if not line.resolved)

    @property
    def volume_ml(self) -> float | None:
        """Room the batch takes: each line as it lies in a cup, and a milliliter for each gram of water that a weighed
        batch took up or lost. Liquids fill gaps, so it is an upper estimate. None where a line's room is unknown. [mL]
        """
        volumes = [line.food.volume_ml(line.grams) for line in self.lines if line.food is not None and line.grams is not None]
        if not volumes or any(volume is None for volume in volumes):
            return None
        total = sum(volume or 0.0 for volume in volumes) + self.batch.grams - self.computed_g
        return max(total, 0.5 * self.batch.grams)

    def brings(self, key: str) -> list[tuple[Line, float | None, float]]:
        """Per line: how much of a nutrient it brings to one serving (None: unknown), and its share of what is known
        [0 to 1]. Most first."""
        out: list[tuple[Line, float | None, float]] = []
        total = self.batch[key].amount
        for line in self.lines:
            if line.food is None or line.grams is None:
                continue
            per_100 = line.food.per_100_g(key)
            amount = None if per_100 is None else per_100 * line.grams / 100.0
            share = (amount or 0.0) / total if total > 0 else 0.0
            out.append((line, None if amount is None else amount / self.recipe.servings, share))
        return sorted(out, key=lambda row: -(row[1] if row[1] is not None else -1.0))

    def foods(self) -> list[tuple[Food, float]]:
        """Each food with its grams in one serving. [g]"""
        return [(line.food, line.grams / self.recipe.servings) for line in self.lines if line.food is not None and line.grams is not None]


def reckon(recipe: Recipe, index: FoodIndex | None = None) -> Facts:
    """Add up every line. Lines that cannot be settled are in `unresolved` and count as unknown, never as zero.

    Raises ValueError when servings or the batch's weight are not above zero.
    """
    if not recipe.servings > 0:
        raise ValueError("servings must be above zero")
    if recipe.batch_g is not None and not recipe.batch_g > 0:
        raise ValueError("a batch must weigh more than nothing")
    lines = tuple(reckon_line(text, index, recipe.choices.get(text)) for text in recipe.lines)
    batch = Profile.total(
        line.food.profile(line.grams, line.low, line.high) if line.food is not None and line.grams is not None else Profile.unsettled()
        for line in lines
    )
    computed = batch.grams
    if recipe.batch_g is not None:
        batch = batch.weighing(recipe.batch_g)
    return Facts(recipe, lines, batch, computed)


_HEADER = re.compile(r"^#\s*(title|servings|batch)\s*:\s*(.+)$", re.I)
_FIRST_NUMBER = re.compile(r"\d+(?:\.\d+)?")


def parse_text(text: str) -> Recipe:
    """A recipe from plain text: a line an ingredient, optional `# title:`, `# servings:`, `# batch: 620 g` lines.

    Raises UnreadableRecipe when there is no ingredient or a header has no number.
    """
    if text.lstrip().startswith(("{", "[")):
        return parse_schema_org(text)
    title, servings, batch_g = "", 1.0, None
    lines = []
    for raw in text.splitlines():
        line = raw.strip()
        header = _HEADER.match(line)
        if header and header[1].lower() == "title":
            title = header[2].strip()
        elif header:
            value = _positive(header[2], header[1].lower())
            if header[1].lower() == "servings":
                servings = value
            else:
                batch_g = value
        elif line and not line.startswith("#"):
            lines.append(line[:MAX_LINE_LENGTH])
    if not lines:
        raise UnreadableRecipe("there is no ingredient line in it")
    return Recipe(tuple(lines[:MAX_LINES]), title, servings, batch_g)


def _positive(text: str, what: str) -> float:
    match = _FIRST_NUMBER.search(text)
    if not match or not float(match[0]) > 0:
        raise UnreadableRecipe(f"the {what} line needs a number above zero, not “{text.strip()}”")
    return float(match[0])


def parse_schema_org(text: str) -> Recipe:
    """A recipe from schema.org JSON (`name`, `recipeIngredient`, `recipeYield`).

    Raises UnreadableRecipe when it is not JSON or holds no Recipe with ingredients.
    """
    try:
        data = json.loads(text)
    except json.JSONDecodeError as error:
        raise UnreadableRecipe(f"it is not JSON: {error.msg} in line {error.lineno}") from None
    found = _find_recipe(data)
    if found is None:
        raise UnreadableRecipe("there is no schema.org Recipe in it")
    stated = found.get("recipeIngredient") or found.get("ingredients")
    ingredients: list[object] = list(stated.splitlines()) if isinstance(stated, str) else stated if isinstance(stated, list) else []
    lines = tuple(str(line).strip()[:MAX_LINE_LENGTH] for line in ingredients if str(line).strip())
    if not lines:
        raise UnreadableRecipe("the Recipe has no recipeIngredient")
    claimed = found.get("recipeYield")
    if isinstance(claimed, list):
        claimed = next((part for part in claimed if _FIRST_NUMBER.search(str(part))), None)
    match = _FIRST_NUMBER.search(str(claimed)) if claimed is not None else None
    servings = float(match[0]) if match and float(match[0]) > 0 else 1.0
    return Recipe(lines[:MAX_LINES], str(found.get("name", "")), servings)


def _find_recipe(data: object, depth: int = 0) -> dict[str, object] | None:
    if depth > 6:
        return None
    if isinstance(data, dict):
        kind = data.get("@type")
        if kind == "Recipe" or (isinstance(kind, list) and "Recipe" in kind):
            return data
        children: list[object] = list(data.get("@graph", [])) if isinstance(data.get("@graph"), list) else []
    elif isinstance(data, list):
        children = data
    else:
        return None
    for child in children:
        found = _find_recipe(child, depth + 1)
        if found is not None:
            return found
    return None
