"""A recipe from whatever comes in: told by what it is, not by what it is called."""

from __future__ import annotations

from nutrition.formats.recipe_csv import (
    CSV_COLUMNS,
    is_csv,
    is_table,
    read_csv,
    read_table,
)
from nutrition.formats.recipe_text import read_text
from nutrition.formats.schema_org import read_json_ld
from nutrition.formats.shared import Shared
from nutrition.formats.web_page import is_piece, is_web_page, read_web_page, without_tags
from nutrition.recipe.model import UnreadableRecipe

MOST_CHARACTERS = 1_000_000


def read_recipe(text: str, name: str = "") -> Shared:
    """A recipe from a saved web page, JSON-LD, CSV or plain text. `name` is the file's, if it had
    one.

    Raises UnreadableRecipe with the reason: too big, not text, not what its name says, no recipe in
    it.
    """
    named = name.lower()
    if len(text) > MOST_CHARACTERS:
        raise UnreadableRecipe(f"it is over {MOST_CHARACTERS:,} characters: that is no recipe")
    if "\x00" in text:
        raise UnreadableRecipe("it is not text")
    start = text.lstrip("\ufeff \t\r\n")
    if is_web_page(start):
        return read_web_page(text)
    if named.endswith((".html", ".htm")):
        raise UnreadableRecipe("its name says web page, but it is none")
    if is_piece(start):
        start = without_tags(start)
    if start.startswith(("{", "[")):
        return read_json_ld(start)
    if named.endswith((".json", ".jsonld")):
        raise UnreadableRecipe("its name says JSON, but it is not")
    if is_csv(start):
        return read_csv(start)
    if is_table(start):
        return read_table(start)
    if named.endswith(".csv"):
        raise UnreadableRecipe(
            f"a CSV file begins with the columns {', '.join(CSV_COLUMNS)}, or with ingredient, "
            f"quantity and unit"
        )
    return read_text(start)
