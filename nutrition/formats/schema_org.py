"""Recipes as schema.org JSON-LD, in and out; what schema.org has no property for stands in
additionalProperty.

References: schema.org Recipe, HowToStep and NutritionInformation.
"""

from __future__ import annotations

import json
import re
from collections.abc import Mapping
from typing import Any

from nutrition.composition.profile import Profile
from nutrition.formats.shared import Shared, with_known_choices
from nutrition.recipe.model import (
    BATCH_G,
    LINE_G,
    MAX_LINES,
    REDUCED,
    SERVINGS,
    Recipe,
    UnreadableRecipe,
    fitting,
    within,
)
from nutrition.recipe.reckoning import Facts
from nutrition.written.line import Choice
from nutrition.written.pasted_recipe import decoded, printable

# schema.org NutritionInformation: property, our key.
NUTRITION = (
    ("calories", "energy_kcal"),
    ("proteinContent", "protein_g"),
    ("fatContent", "fat_g"),
    ("saturatedFatContent", "saturated_fat_g"),
    ("carbohydrateContent", "carbohydrate_g"),
    ("fiberContent", "fiber_g"),
    ("sugarContent", "sugars_g"),
    ("sodiumContent", "sodium_mg"),
)
MOST_DEEP, MOST_DEEP_STEPS = 6, 4
_NUMBER = re.compile(r"\d+(?:\.\d+)?")


def read_json_ld(text: str) -> Shared:
    """The first schema.org Recipe in JSON text. Raises UnreadableRecipe when it is not JSON or
    holds no Recipe with ingredients."""
    try:
        data = json.loads(text)
    except json.JSONDecodeError as error:
        raise UnreadableRecipe(f"it is not JSON: {error.msg} in line {error.lineno}") from None
    except ValueError:
        raise UnreadableRecipe("it holds a number that is too long") from None
    except RecursionError:
        raise UnreadableRecipe("it is nested deeper than any recipe") from None
    found = find_recipe(data)
    if found is None:
        raise UnreadableRecipe("there is no schema.org Recipe in it")
    return shared_from(found)


def shared_from(found: Mapping[str, Any]) -> Shared:
    """What a schema.org Recipe says. Raises UnreadableRecipe without ingredients."""
    extra = _extra(found)
    # what was written here holds no entities to decode
    own = "servings" in extra and "role" in extra

    def text(value: object) -> str:
        return printable(str(value)) if own else decoded(str(value))

    lines = [line for line in (text(one).strip() for one in _ingredients(found)) if line]
    if not lines:
        raise UnreadableRecipe("the Recipe has no recipeIngredient")
    told: list[str] = []
    claimed = _claimed(found)
    match = _NUMBER.search(claimed)
    servings = float(match[0]) if match and within(float(match[0]), SERVINGS) else 1.0
    stated = {
        name: _told_number(extra, name, limits, told)
        for name, limits in (("servings", SERVINGS), ("batch_g", BATCH_G), ("reduced", REDUCED))
    }
    recipe = Recipe(
        fitting(lines),
        title=text(found.get("name", "")),
        servings=stated["servings"] or servings,
        batch_g=stated["batch_g"],
        method=_word(extra, "cooked_by"),
        claimed=_word(extra, "claims") if "servings" in extra else text(claimed),
        serving_measure=_word(extra, "serving_measure"),
        reduced=stated["reduced"],
        choices=_choices(extra.get("choices")),
    )
    steps = found.get("recipeInstructions")
    return Shared(
        recipe=with_known_choices(recipe),
        role=_word(extra, "role") or "dish",
        instructions=printable(steps) if own and isinstance(steps, str) else instructions_of(steps),
        told=tuple(told),
        measures=_word(extra, "measures"),
    )


def _ingredients(found: Mapping[str, Any]) -> list[object]:
    stated = found.get("recipeIngredient") or found.get("ingredients")
    if isinstance(stated, str):
        return list(stated.splitlines())
    return stated if isinstance(stated, list) else []


def _claimed(found: Mapping[str, Any]) -> str:
    claimed = found.get("recipeYield")
    if isinstance(claimed, list):
        claimed = next((part for part in claimed if _NUMBER.search(str(part))), None)
    return "" if claimed is None else str(claimed)


def _extra(found: Mapping[str, Any]) -> dict[str, Any]:
    stated = found.get("additionalProperty")
    return {
        row["name"]: row.get("value")
        for row in (stated if isinstance(stated, list) else [])
        if isinstance(row, dict) and isinstance(row.get("name"), str)
    }


def _choices(stated: object) -> dict[str, Choice]:
    out = {}
    for line, row in (stated if isinstance(stated, dict) else {}).items():
        if isinstance(row, dict):
            food = row.get("food")
            out[str(line)] = Choice(
                food if isinstance(food, str) else None, _number(row.get("grams"), LINE_G)
            )
    return out


def _word(extra: Mapping[str, Any], name: str) -> str:
    value = extra.get(name)
    return printable(value) if isinstance(value, str) else ""


def _number(value: object, limits: tuple[float, float]) -> float | None:
    if isinstance(value, bool) or not isinstance(value, int | float) or not within(value, limits):
        return None
    return float(value)


def _told_number(
    extra: Mapping[str, Any], name: str, limits: tuple[float, float], told: list[str]
) -> float | None:
    value = extra.get(name)
    used = _number(value, limits)
    if value is not None and used is None:
        told.append(f"its {name} of {str(value)[:40]} cannot be, and is left out")
    return used


def find_recipe(data: object, depth: int = 0) -> dict[str, Any] | None:
    """The first schema.org Recipe in the data, however it is wrapped; None if there is none."""
    if depth > MOST_DEEP:
        return None
    if isinstance(data, dict):
        kind = data.get("@type")
        if kind == "Recipe" or (isinstance(kind, list) and "Recipe" in kind):
            return data
        graph = data.get("@graph")
        children: list[object] = list(graph) if isinstance(graph, list) else []
    elif isinstance(data, list):
        children = data
    else:
        return None
    found = (find_recipe(child, depth + 1) for child in children)
    return next((recipe for recipe in found if recipe is not None), None)


def instructions_of(stated: object, depth: int = 0) -> str:
    """The steps as lines of text, from a string, HowToStep objects, or sections of them. Raises
    UnreadableRecipe for more than a recipe holds."""
    if isinstance(stated, str):
        return decoded(re.sub(r"<[^>]{0,200}>", " ", stated)).strip()
    if depth > MOST_DEEP_STEPS:
        return ""
    if isinstance(stated, dict):
        inner = stated.get("itemListElement") or stated.get("text") or stated.get("name")
        return instructions_of(inner, depth + 1)
    if isinstance(stated, list):
        if len(stated) > MAX_LINES:
            raise UnreadableRecipe(f"it has {len(stated)} steps, and {MAX_LINES} can be kept")
        steps = (instructions_of(part, depth + 1) for part in stated)
        return "\n".join(step for step in steps if step)
    return ""


def to_json_ld(facts: Facts, shared: Shared) -> str:
    """A schema.org Recipe with its NutritionInformation per serving."""
    recipe = shared.recipe
    extra: dict[str, Any] = {
        "role": shared.role,
        "cooked_by": recipe.method,
        "batch_g": recipe.batch_g,
        "servings": recipe.servings,
        "claims": recipe.claimed,
        "serving_measure": recipe.serving_measure,
        "reduced": recipe.reduced,
        "measures": shared.measures,
        "choices": {
            text: {"food": choice.food, "grams": choice.grams}
            for text, choice in recipe.choices.items()
        },
    }
    data = {
        "@context": "https://schema.org",
        "@type": "Recipe",
        "name": recipe.title,
        "recipeYield": recipe.claimed or f"{recipe.servings:g} servings",
        "recipeIngredient": list(recipe.lines),
        "recipeInstructions": shared.instructions,
        "nutrition": _nutrition(facts.serving),
        "additionalProperty": [
            {"@type": "PropertyValue", "name": name, "value": value}
            for name, value in extra.items()
            if value not in (None, "", {})
        ],
    }
    return json.dumps(data, indent=2, ensure_ascii=False)


def _nutrition(serving: Profile) -> dict[str, str]:
    """What a serving brings; "at least" where a line could not be counted or a food's value is not
    known."""
    out = {"@type": "NutritionInformation", "servingSize": f"{serving.grams:.0f} g"}
    for name, key in NUTRITION:
        value = serving[key]
        if value.known > 0:
            unit = "kcal" if key == "energy_kcal" else key.rsplit("_", 1)[1]
            out[name] = f"{'' if value.complete else 'at least '}{value.amount:.4g} {unit}"
    return out
