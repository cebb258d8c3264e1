"""A recipe out of a saved web page: the schema.org data it carries. Nothing is fetched."""

import json
import re

from extruct.jsonld import JsonLdExtractor
from lxml.etree import ParserError

from nutrition.exchange import Shared, read_json_ld, read_shared
from nutrition.recipe import UnreadableRecipe, find_recipe


def is_web_page(text: str) -> bool:
    return (
        text.lstrip("\ufeff \t\r\n")[:400]
        .lower()
        .startswith(("<!doctype html", "<html", "<head", "<?xml", "<body"))
    )


# How a piece of a page begins; what stands in a line of its own there; and what is no text.
_PIECE = re.compile(r"<(?:li|ul|ol|p|div|h[1-6]|br|td|tr|table|section|span)\b", re.I)
_BLOCK = re.compile(r"</?(?:li|ul|ol|p|div|h[1-6]|br|tr|table|section)\b[^<>]{0,300}>", re.I)
_TAG = re.compile(r"</?[a-z][^<>]{0,300}>", re.I)


def read_anything(text: str, name: str = "") -> Shared:
    """A saved web page, JSON-LD, CSV or plain text. Raises UnreadableRecipe with the reason."""
    if not is_web_page(text):
        if name.lower().endswith((".html", ".htm")):
            raise UnreadableRecipe("its name says web page, but it is none")
        if _PIECE.match(text.lstrip()):
            text = _TAG.sub(" ", _BLOCK.sub("\n", text))
        return read_shared(text, name)
    try:
        found = find_recipe(JsonLdExtractor().extract(text))
    except (ValueError, RecursionError, ParserError):
        raise UnreadableRecipe("the recipe data in the page cannot be read") from None
    if found is None:
        raise UnreadableRecipe(
            "the page carries no schema.org Recipe: copy its ingredients and paste them"
        )
    return read_json_ld(json.dumps(found))
