"""What stands in a recipe's form right now, valid or not, reckoned as the recipe it writes."""

from collections.abc import Mapping
from typing import Any, cast

from nutrition.composition.cooking_methods import METHOD_WORDS
from nutrition.recipe.model import BATCH_G, MAX_LINE_LENGTH, MAX_LINES, REDUCED, SERVINGS
from nutrition.recipe.model import Recipe as CoreRecipe
from nutrition.recipe.notation import counted_lines
from nutrition.recipe.reckoning import Facts
from nutrition.written.line import Choice
from nutrition.written.serving_words import counted
from nutrition.written.units import SYSTEM_WORDS
from recipes.facts import facts_of_core
from recipes.forms import choices_from
from recipes.models import Recipe
from webkit.request_values import number_in, share_in

MOST_MEASURE = 60


def lines_in(text: str) -> tuple[str, ...]:
    """The lines of a text that say something, no more and no longer than a recipe may have."""
    lines = (line.strip()[:MAX_LINE_LENGTH] for line in text.splitlines() if line.strip())
    return counted_lines(lines)[:MAX_LINES]


def facts_from(
    data: Mapping[str, str], system: str, recipe: Recipe | None = None
) -> tuple[Facts | None, dict[str, str]]:
    """Facts of what was sent, and what could not be used, by line; a number that cannot be is left
    out here: the form says so when it is saved. None without a line."""
    text = data.get("text", "")[: MAX_LINES * MAX_LINE_LENGTH]
    lines = lines_in(text)
    if not lines:
        return None, {}
    batch_g = number_in(data.get("batch_g", ""), BATCH_G)
    reduced = share_in(data.get("reduced", ""), REDUCED)
    typed_servings = number_in(data.get("servings", ""), SERVINGS)
    measure = data.get("serving_measure", "").strip()[:MOST_MEASURE]
    choices, errors = choices_from(data, text)
    method, measures = data.get("cooked_by", ""), data.get("measures", "")
    core = CoreRecipe(
        lines,
        title=data.get("title", ""),
        servings=counted(measure)[0] or typed_servings or 1.0,
        batch_g=batch_g,
        choices={line: Choice(**cast(dict[str, Any], choice)) for line, choice in choices.items()},
        method=method if method in METHOD_WORDS else "",
        reduced=reduced,
        system=measures if measures in SYSTEM_WORDS else system,
        serving_measure=measure,
    )
    return facts_of_core(core, recipe.kept() if recipe else None), errors
