"""Recipes in and out: schema.org Recipe as JSON-LD, plain text, CSV. What goes out and comes back in has lost nothing."""

from __future__ import annotations

import csv
import io
import json
import re
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from nutrition.lines import Choice
from nutrition.profile import Profile
from nutrition.recipe import MAX_LINE_LENGTH, MAX_LINES, Facts, Recipe, UnreadableRecipe, find_recipe, parse_schema_org, parse_text

MOST_CHARACTERS = 1_000_000
CSV_COLUMNS = ("field", "text", "food", "grams")
# schema.org NutritionInformation: property, our key.
NUTRITION = (
    ("calories", "energy_kcal"), ("proteinContent", "protein_g"), ("fatContent", "fat_g"), ("saturatedFatContent", "saturated_fat_g"),
    ("carbohydrateContent", "carbohydrate_g"), ("fiberContent", "fiber_g"), ("sugarContent", "sugars_g"), ("sodiumContent", "sodium_mg"),
)  # fmt: skip
_TAKEN = re.compile(r"^#\s*taken\s*:\s*(.*?)\s*=>\s*(\S+)?\s*(?:,?\s*(\d+(?:\.\d+)?)\s*g)?\s*$", re.I)


@dataclass(frozen=True)
class Shared:
    """A recipe as it travels: what the core reckons, its part in a bowl, and how it is made in words."""

    recipe: Recipe
    role: str = "dish"
    instructions: str = ""
    choices: Mapping[str, Choice] = field(default_factory=dict)


def _with_choices(shared: Shared) -> Shared:
    lines = set(shared.recipe.lines)
    kept = {text: choice for text, choice in shared.choices.items() if text in lines}
    return replace(shared, recipe=replace(shared.recipe, choices=kept), choices=kept)


def _nutrition(serving: Profile) -> dict[str, str]:
    out = {"@type": "NutritionInformation", "servingSize": f"{serving.grams:.0f} g"}
    for name, key in NUTRITION:
        value = serving[key]
        if value.known > 0:
            unit = "kcal" if key == "energy_kcal" else key.rsplit("_", 1)[1]
            out[name] = f"{value.amount:.4g} {unit}"
    return out


def to_json_ld(facts: Facts, shared: Shared) -> str:
    """A schema.org Recipe with its NutritionInformation per serving.

    References: schema.org Recipe and NutritionInformation; what they have no property for stands in additionalProperty.
    """
    recipe = shared.recipe
    extra: dict[str, Any] = {"role": shared.role, "cooked_by": recipe.method, "batch_g": recipe.batch_g, "servings": recipe.servings}
    extra |= {"claims": recipe.claimed, "serving_measure": recipe.serving_measure}
    extra["choices"] = {text: {"food": choice.food, "grams": choice.grams} for text, choice in recipe.choices.items()}
    data = {
        "@context": "https://schema.org",
        "@type": "Recipe",
        "name": recipe.title,
        "recipeYield": recipe.claimed or f"{recipe.servings:g} servings",
        "recipeIngredient": list(recipe.lines),
        "recipeInstructions": shared.instructions,
        "nutrition": _nutrition(facts.serving),
        "additionalProperty": [
            {"@type": "PropertyValue", "name": name, "value": value} for name, value in extra.items() if value not in (None, "", {})
        ],
    }
    return json.dumps(data, indent=2, ensure_ascii=False)


def to_text(shared: Shared) -> str:
    """Plain text with `#` headers, a line an ingredient, and the instructions after `--`."""
    recipe = shared.recipe
    out = [f"# title: {recipe.title}", f"# servings: {recipe.servings:g}", f"# role: {shared.role}"]
    if recipe.batch_g is not None:
        out.append(f"# measured: {recipe.batch_g:g} g")
    for name, value in (("claims", recipe.claimed), ("measure", recipe.serving_measure)):
        if value:
            out.append(f"# {name}: {value}")
    if recipe.method:
        out.append(f"# method: {recipe.method}")
    for text, choice in recipe.choices.items():
        out.append(f"# taken: {text} => {choice.food or '-'}" + (f", {choice.grams:g} g" if choice.grams is not None else ""))
    out += recipe.lines
    out += [f"-- {line}" for line in shared.instructions.splitlines()]
    return "\n".join(out) + "\n"


def to_csv(shared: Shared) -> str:
    """RFC 4180, a row for every line and every other thing the recipe holds."""
    recipe = shared.recipe
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(CSV_COLUMNS)
    for name, value in (
        ("title", recipe.title), ("role", shared.role), ("servings", f"{recipe.servings:g}"),
        ("measured_g", "" if recipe.batch_g is None else f"{recipe.batch_g:g}"), ("method", recipe.method),
        ("claims", recipe.claimed), ("serving_measure", recipe.serving_measure), ("instructions", shared.instructions),
    ):  # fmt: skip
        writer.writerow((name, value, "", ""))
    for text in recipe.lines:
        choice = recipe.choices.get(text, Choice())
        writer.writerow(("line", text, choice.food or "", "" if choice.grams is None else f"{choice.grams:g}"))
    return out.getvalue()


def read_shared(text: str, name: str = "") -> Shared:
    """A recipe from JSON-LD, CSV or plain text, told by what it is, not by what it is called. `name` is the file's, if it had one.

    Raises UnreadableRecipe with the reason: too big, not text, not what its name says, no recipe in it.
    """
    if len(text) > MOST_CHARACTERS:
        raise UnreadableRecipe(f"it is over {MOST_CHARACTERS:,} characters: that is no recipe")
    if "\x00" in text:
        raise UnreadableRecipe("it is not text")
    start = text.lstrip("\ufeff \t\r\n")
    if start.startswith(("{", "[")):
        return read_json_ld(start)
    if name.lower().endswith((".json", ".jsonld")):
        raise UnreadableRecipe("its name says JSON, but it is not")
    if start.lower().startswith("field,text"):
        return read_csv(start)
    if name.lower().endswith(".csv"):
        raise UnreadableRecipe(f"a CSV file begins with the columns {', '.join(CSV_COLUMNS)}")
    return read_text(start)


def read_json_ld(text: str) -> Shared:
    """Raises UnreadableRecipe."""
    recipe = parse_schema_org(text)
    found = find_recipe(json.loads(text)) or {}
    extra: dict[str, Any] = {}
    stated = found.get("additionalProperty")
    for row in stated if isinstance(stated, list) else []:
        if isinstance(row, dict) and isinstance(row.get("name"), str):
            extra[row["name"]] = row.get("value")
    servings, batch = _positive(extra.get("servings")), _positive(extra.get("batch_g"))
    recipe = replace(
        recipe,
        servings=servings or recipe.servings,
        batch_g=batch,
        method=_word(extra, "cooked_by"),
        claimed=_word(extra, "claims") if "servings" in extra else recipe.claimed,
        serving_measure=_word(extra, "serving_measure"),
    )
    choices = {}
    for line, row in (extra["choices"] if isinstance(extra.get("choices"), dict) else {}).items():
        if isinstance(row, dict):
            food = row.get("food")
            choices[str(line)] = Choice(food if isinstance(food, str) else None, _positive(row.get("grams")))
    role = _word(extra, "role") or "dish"
    return _with_choices(Shared(recipe, role, instructions_of(found.get("recipeInstructions")), choices))


def instructions_of(stated: object, depth: int = 0) -> str:
    """The steps as lines of text, from a string, HowToStep objects, or sections of them."""
    if isinstance(stated, str):
        return re.sub(r"<[^>]{0,200}>", " ", stated).strip()
    if depth > 4:
        return ""
    if isinstance(stated, dict):
        inner = stated.get("itemListElement") or stated.get("text") or stated.get("name")
        return instructions_of(inner, depth + 1)
    if isinstance(stated, list):
        return "\n".join(line for line in (instructions_of(part, depth + 1) for part in stated[:MAX_LINES]) if line)
    return ""


def _word(extra: Mapping[str, Any], name: str) -> str:
    value = extra.get(name)
    return value if isinstance(value, str) else ""


def _positive(value: object) -> float | None:
    if isinstance(value, bool) or not isinstance(value, int | float) or not 0 < value < 1e6:
        return None
    return float(value)


def read_csv(text: str) -> Shared:
    """Raises UnreadableRecipe."""
    head: dict[str, str] = {}
    lines, choices = [], {}
    try:
        for row in csv.DictReader(io.StringIO(text, newline=""), strict=True):
            name, said = (row.get("field") or "").strip(), row.get("text") or ""
            if name != "line":
                head[name] = said
                continue
            lines.append(said.strip()[:MAX_LINE_LENGTH])
            food, grams = (row.get("food") or "").strip(), (row.get("grams") or "").strip()
            if food or grams:
                choices[lines[-1]] = Choice(food or None, float(grams) if grams else None)
        servings, batch = float(head.get("servings") or 1), float(head["measured_g"]) if head.get("measured_g") else None
    except (csv.Error, ValueError) as error:
        raise UnreadableRecipe(f"a row cannot be read: {error}") from None
    if not any(lines) or servings <= 0 or (batch is not None and batch <= 0):
        raise UnreadableRecipe("it needs lines, and servings and a weight above zero")
    recipe = Recipe(
        tuple(lines[:MAX_LINES]), head.get("title", ""), servings, batch, method=head.get("method", ""),
        claimed=head.get("claims", ""), serving_measure=head.get("serving_measure", ""),
    )  # fmt: skip
    return _with_choices(Shared(recipe, head.get("role") or "dish", head.get("instructions", ""), choices))


def read_text(text: str) -> Shared:
    """Raises UnreadableRecipe."""
    told: dict[str, str] = {}
    steps, choices, rest = [], {}, []
    for line in text.splitlines():
        taken = _TAKEN.match(line)
        stated = re.match(r"^#\s*(role|claims|measure)\s*:\s*(.+?)\s*$", line, re.I)
        if line.startswith("--"):
            steps.append(line[2:].strip())
        elif taken:
            food = taken[2] if taken[2] and taken[2] not in ("-", "-,") else None
            choices[taken[1]] = Choice(food.rstrip(",") if food else None, float(taken[3]) if taken[3] else None)
        elif stated:
            told[stated[1].lower()] = stated[2]
        else:
            rest.append(line)
    recipe = parse_text("\n".join(rest))
    # "# servings: 4 to 6" is a claim, "# servings: 4" is not
    claims = told.get("claims", recipe.claimed if not re.fullmatch(r"[\d.]+", recipe.claimed) else "")
    recipe = replace(recipe, claimed=claims, serving_measure=told.get("measure", recipe.serving_measure))
    return _with_choices(Shared(recipe, told.get("role", "dish"), "\n".join(steps), choices))
