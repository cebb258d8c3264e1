"""Recipes as CSV: with a row for every line and every other thing a recipe holds, or, coming in, a
plain table of ingredients.

References: RFC 4180.
"""

from __future__ import annotations

import csv
import io

from nutrition.formats.csv_cells import SafeWriter, plain_cell
from nutrition.formats.shared import Shared, exact, stated, with_known_choices
from nutrition.recipe.model import (
    BATCH_G,
    LINE_G,
    REDUCED,
    SERVINGS,
    Recipe,
    UnreadableRecipe,
    choice_keys,
    fitting,
)
from nutrition.written.line import Choice
from nutrition.written.pasted_recipe import decoded, printable

CSV_COLUMNS = ("field", "text", "food", "grams")
# What the columns of a plain table may be called.
TABLE_COLUMNS = {
    "ingredient": ("ingredient", "ingredients", "food", "item", "name", "product"),
    "quantity": ("quantity", "amount", "qty", "number", "value"),
    "unit": ("unit", "units", "measure", "uom"),
    "note": ("note", "notes", "preparation", "prep", "comment"),
}


def to_csv(shared: Shared) -> str:
    """A row for every line and every other thing the recipe holds."""
    recipe = shared.recipe
    out = io.StringIO()
    writer = SafeWriter(out)
    writer.writerow(CSV_COLUMNS)
    for name, value in (
        ("title", recipe.title),
        ("role", shared.role),
        ("servings", exact(recipe.servings)),
        ("measured_g", "" if recipe.batch_g is None else exact(recipe.batch_g)),
        ("method", recipe.method),
        ("claims", recipe.claimed),
        ("serving_measure", recipe.serving_measure),
        ("instructions", shared.instructions),
        ("reduced", "" if recipe.reduced is None else exact(recipe.reduced)),
        ("measures", shared.measures),
    ):
        writer.writerow((name, value, "", ""))
    for text, key in zip(recipe.lines, choice_keys(recipe.lines), strict=True):
        choice = recipe.choices.get(key, Choice())
        grams = "" if choice.grams is None else exact(choice.grams)
        writer.writerow(("line", text, choice.food or "", grams))
    return out.getvalue()


def is_csv(text: str) -> bool:
    """Whether a text begins like a recipe in CSV."""
    return text.lower().startswith("field,text")


def read_csv(text: str) -> Shared:
    """A recipe from what `to_csv` wrote. Raises UnreadableRecipe."""
    head: dict[str, str] = {}
    lines: list[str] = []
    taken: dict[int, Choice] = {}
    try:
        for row in csv.DictReader(io.StringIO(text, newline=""), strict=True):
            if None in row:
                raise UnreadableRecipe(
                    f"the row “{(row.get('text') or '')[:40]}” has more cells than the first row "
                    f"names: put what holds a comma in quotes"
                )
            name = (row.get("field") or "").strip()
            said = plain_cell(printable(row.get("text") or ""))
            if name != "line":
                head[name] = said
                continue
            lines.append(said.strip())
            food, grams = (row.get("food") or "").strip(), (row.get("grams") or "").strip()
            if food or grams:
                taken[len(lines) - 1] = Choice(food or None, stated(grams, LINE_G, "grams"))
    except csv.Error as error:
        raise UnreadableRecipe(f"a row cannot be read: {error}") from None
    if not any(lines):
        raise UnreadableRecipe("it needs lines")
    keys = choice_keys(lines)
    recipe = Recipe(
        fitting(lines),
        title=head.get("title", ""),
        servings=stated(head.get("servings", ""), SERVINGS, "servings") or 1.0,
        batch_g=stated(head.get("measured_g", ""), BATCH_G, "measured_g"),
        method=head.get("method", ""),
        reduced=stated(head.get("reduced", ""), REDUCED, "reduced"),
        claimed=head.get("claims", ""),
        serving_measure=head.get("serving_measure", ""),
        choices={keys[at]: choice for at, choice in taken.items()},
    )
    return Shared(
        recipe=with_known_choices(recipe),
        role=head.get("role") or "dish",
        instructions=head.get("instructions", ""),
        measures=head.get("measures", ""),
    )


def is_table(text: str) -> bool:
    """Whether the first row names a column of ingredients and one of quantities."""
    return {"ingredient", "quantity"} <= set(_places(text)[1])


def read_table(text: str) -> Shared:
    """A table with a row an ingredient and columns for ingredient, quantity and, mostly, unit.
    Raises UnreadableRecipe."""
    mark, at = _places(text)

    def cell(row: list[str], what: str) -> str:
        place = at.get(what)
        there = place is not None and place < len(row)
        return plain_cell(decoded(row[place or 0]).strip()) if there else ""

    try:
        rows = list(csv.reader(io.StringIO(text, newline=""), delimiter=mark, strict=True))[1:]
    except csv.Error as error:
        raise UnreadableRecipe(f"a row cannot be read: {error}") from None
    lines = []
    for row in rows:
        cells = (cell(row, what) for what in ("quantity", "unit", "ingredient"))
        said = " ".join(part for part in cells if part)
        if said:
            lines.append(f"{said}, {cell(row, 'note')}" if cell(row, "note") else said)
    return Shared(recipe=Recipe(fitting(lines)))


def _places(text: str) -> tuple[str, dict[str, int]]:
    """What parts the cells, and where the columns that are known stand."""
    first = text.partition("\n")[0]
    mark = max(",;\t", key=first.count)
    heads = [cell.strip().strip('"').lower() for cell in first.split(mark)]
    at = {
        what: next(i for i, head in enumerate(heads) if head in names)
        for what, names in TABLE_COLUMNS.items()
        if not set(names).isdisjoint(heads)
    }
    return mark, at
