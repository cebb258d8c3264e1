"""A recipe out of a saved web page: the schema.org data it carries. Nothing is fetched."""

import json

from extruct.jsonld import JsonLdExtractor
from lxml.etree import ParserError

from nutrition.exchange import Shared, read_json_ld, read_shared
from nutrition.recipe import UnreadableRecipe, find_recipe


def is_web_page(text: str) -> bool:
    return text.lstrip("\ufeff \t\r\n")[:400].lower().startswith(("<!doctype html", "<html", "<head", "<?xml", "<body"))


def read_anything(text: str, name: str = "") -> Shared:
    """A saved web page, JSON-LD, CSV or plain text. Raises UnreadableRecipe with the reason."""
    if not is_web_page(text):
        if name.lower().endswith((".html", ".htm")):
            raise UnreadableRecipe("its name says web page, but it is none")
        return read_shared(text, name)
    try:
        found = find_recipe(JsonLdExtractor().extract(text))
    except (ValueError, RecursionError, ParserError):
        raise UnreadableRecipe("the recipe data in the page cannot be read") from None
    if found is None:
        raise UnreadableRecipe("the page carries no schema.org Recipe: copy its ingredients and paste them")
    return read_json_ld(json.dumps(found))
