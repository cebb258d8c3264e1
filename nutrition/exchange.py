"""Recipes in and out: schema.org Recipe as JSON-LD, plain text, CSV. What goes out and comes back
in has lost nothing."""

from __future__ import annotations

import csv
import io
import json
import math
import re
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from nutrition.lines import Choice
from nutrition.pasted import decoded, parted
from nutrition.profile import Profile
from nutrition.recipe import (
    BATCH_G,
    LINE_G,
    MAX_LINES,
    SERVINGS,
    Facts,
    Recipe,
    UnreadableRecipe,
    choice_keys,
    find_recipe,
    fitting,
    parse_schema_org,
    parse_text,
    within,
)
from nutrition.units import SYSTEM_WORDS

MOST_CHARACTERS = 1_000_000
CSV_COLUMNS = ("field", "text", "food", "grams")
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
_TAKEN = re.compile(
    r"^#\s*taken\s*:\s*(.*?)\s*=>\s*(\S+)?\s*(?:,?\s*(\d+(?:\.\d+)?)\s*g)?\s*$", re.I
)


@dataclass(frozen=True)
class Shared:
    """A recipe as it travels: what the core reckons, its part in a bowl, and how it is made in
    words.

    `told` says what of it was not understood and where it went: nothing is lost in silence.
    `measures` are whose cups it is written in, empty where it does not say.
    """

    recipe: Recipe
    role: str = "dish"
    instructions: str = ""
    choices: Mapping[str, Choice] = field(default_factory=dict)
    told: tuple[str, ...] = ()
    measures: str = ""


def _with_choices(shared: Shared) -> Shared:
    keys = set(choice_keys(shared.recipe.lines))
    kept = {key: choice for key, choice in shared.choices.items() if key in keys}
    return replace(shared, recipe=replace(shared.recipe, choices=kept), choices=kept)


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


def to_json_ld(facts: Facts, shared: Shared) -> str:
    """A schema.org Recipe with its NutritionInformation per serving.

    References: schema.org Recipe and NutritionInformation; what they have no property for stands in
    additionalProperty.
    """
    recipe = shared.recipe
    extra: dict[str, Any] = {
        "role": shared.role,
        "cooked_by": recipe.method,
        "batch_g": recipe.batch_g,
        "servings": recipe.servings,
    }
    extra |= {
        "claims": recipe.claimed,
        "serving_measure": recipe.serving_measure,
        "reduced": recipe.reduced,
        "measures": shared.measures,
    }
    extra["choices"] = {
        text: {"food": choice.food, "grams": choice.grams}
        for text, choice in recipe.choices.items()
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


def to_text(shared: Shared) -> str:
    """Plain text with `#` headers, a line an ingredient, and the instructions after `--`."""
    recipe = shared.recipe
    out = [f"# title: {recipe.title}", f"# servings: {recipe.servings:g}", f"# role: {shared.role}"]
    if recipe.batch_g is not None:
        out.append(f"# measured: {recipe.batch_g:g} g")
    for name, value in (("claims", recipe.claimed), ("measure", recipe.serving_measure)):
        if value:
            out.append(f"# {name}: {value}")
    reduced = f"reduced by {recipe.reduced * 100:g} %" if recipe.reduced is not None else ""
    if recipe.method or reduced:
        out.append(f"# method: {', '.join(part for part in (recipe.method, reduced) if part)}")
    if shared.measures:
        out.append(f"# measures: {shared.measures}")
    for text, choice in recipe.choices.items():
        out.append(
            f"# taken: {text} => {choice.food or '-'}"
            + (f", {choice.grams:g} g" if choice.grams is not None else "")
        )
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
        ("title", recipe.title),
        ("role", shared.role),
        ("servings", f"{recipe.servings:g}"),
        ("measured_g", "" if recipe.batch_g is None else f"{recipe.batch_g:g}"),
        ("method", recipe.method),
        ("claims", recipe.claimed),
        ("serving_measure", recipe.serving_measure),
        ("instructions", shared.instructions),
        ("reduced", "" if recipe.reduced is None else f"{recipe.reduced:g}"),
        ("measures", shared.measures),
    ):
        writer.writerow((name, value, "", ""))
    for text, key in zip(recipe.lines, choice_keys(recipe.lines), strict=True):
        choice = recipe.choices.get(key, Choice())
        writer.writerow(
            ("line", text, choice.food or "", "" if choice.grams is None else f"{choice.grams:g}")
        )
    return out.getvalue()


def read_shared(text: str, name: str = "") -> Shared:
    """A recipe from JSON-LD, CSV or plain text, told by what it is, not by what it is called.
    `name` is the file's, if it had one.

    Raises UnreadableRecipe with the reason: too big, not text, not what its name says, no recipe in
    it.
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
    table = _plain_table(start)
    if table is not None:
        return table
    if name.lower().endswith(".csv"):
        raise UnreadableRecipe(
            f"a CSV file begins with the columns {', '.join(CSV_COLUMNS)}, or with ingredient, "
            f"quantity and unit"
        )
    return read_text(start)


# What the columns of a plain table may be called.
_COLUMNS = {
    "ingredient": ("ingredient", "ingredients", "food", "item", "name", "product"),
    "quantity": ("quantity", "amount", "qty", "number", "value"),
    "unit": ("unit", "units", "measure", "uom"),
    "note": ("note", "notes", "preparation", "prep", "comment"),
}


def _plain_table(text: str) -> Shared | None:
    """A table with a row an ingredient and columns for ingredient, quantity and, mostly, unit; None
    where it is none.

    Raises UnreadableRecipe."""
    first = text.partition("\n")[0]
    mark = max(",;\t", key=first.count)
    heads = [cell.strip().strip('"').lower() for cell in first.split(mark)]
    at = {
        what: next((i for i, head in enumerate(heads) if head in names), None)
        for what, names in _COLUMNS.items()
    }
    if at["ingredient"] is None or at["quantity"] is None:
        return None

    def cell(row: list[str], what: str) -> str:
        place = at[what]
        return decoded(row[place]).strip() if place is not None and place < len(row) else ""

    try:
        rows = list(csv.reader(io.StringIO(text, newline=""), delimiter=mark, strict=True))[1:]
    except csv.Error as error:
        raise UnreadableRecipe(f"a row cannot be read: {error}") from None
    lines = []
    for row in rows:
        said = " ".join(
            part
            for part in (cell(row, "quantity"), cell(row, "unit"), cell(row, "ingredient"))
            if part
        )
        if said:
            lines.append(f"{said}, {cell(row, 'note')}" if cell(row, "note") else said)
    return Shared(Recipe(fitting(lines)))


def read_json_ld(text: str) -> Shared:
    """Raises UnreadableRecipe."""
    recipe = parse_schema_org(text)
    found = find_recipe(json.loads(text)) or {}
    told = []
    extra: dict[str, Any] = {}
    stated = found.get("additionalProperty")
    for row in stated if isinstance(stated, list) else []:
        if isinstance(row, dict) and isinstance(row.get("name"), str):
            extra[row["name"]] = row.get("value")
    servings, batch = (
        _positive(extra.get("servings"), SERVINGS),
        _positive(extra.get("batch_g"), BATCH_G),
    )
    for name, value, used in (
        ("servings", extra.get("servings"), servings),
        ("batch_g", extra.get("batch_g"), batch),
    ):
        if value is not None and used is None:
            told.append(f"its {name} of {str(value)[:40]} cannot be, and is left out")
    recipe = replace(
        recipe,
        servings=servings or recipe.servings,
        batch_g=batch,
        method=_word(extra, "cooked_by"),
        claimed=_word(extra, "claims") if "servings" in extra else recipe.claimed,
        serving_measure=_word(extra, "serving_measure"),
        reduced=_positive(extra.get("reduced"), (0.0, 0.99)),
    )
    choices = {}
    for line, row in (extra["choices"] if isinstance(extra.get("choices"), dict) else {}).items():
        if isinstance(row, dict):
            food = row.get("food")
            choices[str(line)] = Choice(
                food if isinstance(food, str) else None, _positive(row.get("grams"), LINE_G)
            )
    role = _word(extra, "role") or "dish"
    steps = instructions_of(found.get("recipeInstructions"))
    return _with_choices(
        Shared(recipe, role, steps, choices, tuple(told), _word(extra, "measures"))
    )


def instructions_of(stated: object, depth: int = 0) -> str:
    """The steps as lines of text, from a string, HowToStep objects, or sections of them."""
    if isinstance(stated, str):
        return decoded(re.sub(r"<[^>]{0,200}>", " ", stated)).strip()
    if depth > 4:
        return ""
    if isinstance(stated, dict):
        inner = stated.get("itemListElement") or stated.get("text") or stated.get("name")
        return instructions_of(inner, depth + 1)
    if isinstance(stated, list):
        return "\n".join(
            line
            for line in (instructions_of(part, depth + 1) for part in stated[:MAX_LINES])
            if line
        )
    return ""


def _word(extra: Mapping[str, Any], name: str) -> str:
    value = extra.get(name)
    return decoded(value) if isinstance(value, str) else ""


def _positive(value: object, limits: tuple[float, float]) -> float | None:
    if (
        isinstance(value, bool)
        or not isinstance(value, int | float)
        or not value > 0
        or not within(value, limits)
    ):
        return None
    return float(value)


def read_csv(text: str) -> Shared:
    """Raises UnreadableRecipe."""
    head: dict[str, str] = {}
    lines: list[str] = []
    taken: dict[int, Choice] = {}
    try:
        for row in csv.DictReader(io.StringIO(text, newline=""), strict=True):
            name, said = (row.get("field") or "").strip(), decoded(row.get("text") or "")
            if name != "line":
                head[name] = said
                continue
            lines.append(said.strip())
            food, grams = (row.get("food") or "").strip(), (row.get("grams") or "").strip()
            if food or grams:
                taken[len(lines) - 1] = Choice(food or None, _stated(grams, LINE_G, "grams"))
    except csv.Error as error:
        raise UnreadableRecipe(f"a row cannot be read: {error}") from None
    if not any(lines):
        raise UnreadableRecipe("it needs lines")
    servings = _stated(head.get("servings", ""), SERVINGS, "servings") or 1.0
    batch, reduced = (
        _stated(head.get("measured_g", ""), BATCH_G, "measured_g"),
        _stated(head.get("reduced", ""), (0.0, 0.99), "reduced"),
    )
    recipe = Recipe(
        fitting(lines),
        head.get("title", ""),
        servings,
        batch,
        method=head.get("method", ""),
        reduced=reduced,
        claimed=head.get("claims", ""),
        serving_measure=head.get("serving_measure", ""),
    )
    keys = choice_keys(lines)
    choices = {keys[at]: choice for at, choice in taken.items()}
    return _with_choices(
        Shared(
            recipe,
            head.get("role") or "dish",
            head.get("instructions", ""),
            choices,
            measures=head.get("measures", ""),
        )
    )


def _stated(text: str, limits: tuple[float, float], what: str) -> float | None:
    """A number that a cell states, None for an empty one. Raises UnreadableRecipe for one that
    cannot be."""
    if not text.strip():
        return None
    try:
        value = float(text)
    except ValueError:
        value = math.nan
    if not value > 0 or not within(value, limits):
        raise UnreadableRecipe(
            f"{what} of {text.strip()[:40]} cannot be: it is above {limits[0]:g} and up to "
            f"{limits[1]:g}"
        )
    return value


def read_text(text: str) -> Shared:
    """Raises UnreadableRecipe."""
    told: dict[str, str] = {}
    steps: list[str] = []
    remarks: list[str] = []
    choices: dict[str, Choice] = {}
    rest = []
    for line in text.splitlines():
        taken = _TAKEN.match(line)
        stated = re.match(r"^#\s*(role|claims|measure|measures)\s*:\s*(.+?)\s*$", line, re.I)
        if line.startswith("--"):
            steps.append(decoded(line[2:]).strip())
        elif taken:
            food = taken[2] if taken[2] and taken[2] not in ("-", "-,") else None
            choices[taken[1]] = Choice(
                food.rstrip(",") if food else None, float(taken[3]) if taken[3] else None
            )
        elif stated:
            told[stated[1].lower()] = decoded(stated[2])
        elif line.lstrip().startswith("#") and not re.match(
            r"^\s*#\s*(title|servings|batch|measured|yield|method)\s*:", line, re.I
        ):
            # a remark of the cook's own stays with the steps
            remarks.append(decoded(line.lstrip("# \t")).strip())
        else:
            rest.append(line)
    recipe = parse_text("\n".join(rest))
    if not within(recipe.servings, SERVINGS) or (
        recipe.batch_g is not None and not within(recipe.batch_g, BATCH_G)
    ):
        raise UnreadableRecipe(
            f"servings are {SERVINGS[0]:g} to {SERVINGS[1]:g}, and a batch weighs up to "
            f"{BATCH_G[1] / 1000:g} kg"
        )
    found = parted("\n".join(row for row in rest if not row.lstrip().startswith("#")))
    notes = [f"Note: {remark}" for remark in (*remarks, *found.passed_over) if remark]
    # "# servings: 4 to 6" is a claim, "# servings: 4" is not
    claims = told.get(
        "claims", recipe.claimed if not re.fullmatch(r"[\d.]+", recipe.claimed) else ""
    )
    recipe = replace(
        recipe, claimed=claims, serving_measure=told.get("measure", recipe.serving_measure)
    )
    said = ("what is no ingredient and no step stands under the method as a note",) if notes else ()
    instructions = "\n".join((*steps, *found.steps, *notes))
    return _with_choices(
        Shared(
            recipe, told.get("role", "dish"), instructions, choices, said, told.get("measures", "")
        )
    )


def known_measures(name: str) -> str:
    """Whose cups are meant, if it is a system that is known; empty otherwise."""
    return name if name in SYSTEM_WORDS else ""
