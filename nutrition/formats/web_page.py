"""A recipe out of a saved web page: the schema.org data it carries, or else the list of ingredients
that it shows. Nothing is fetched."""

from __future__ import annotations

import json
import re
from dataclasses import replace

from lxml import etree, html

from nutrition.formats.bare_page import text_of
from nutrition.formats.recipe_text import read_text
from nutrition.formats.schema_org import find_recipe, shared_from
from nutrition.formats.shared import Shared
from nutrition.recipe.model import UnreadableRecipe

_BEGINS = ("<!doctype html", "<html", "<head", "<?xml", "<body")
# How a piece of a page begins; what stands in a line of its own there; and what is no text.
_PIECE = re.compile(r"<(?:li|ul|ol|p|div|h[1-6]|br|td|tr|table|section|span)\b", re.I)
_BLOCK = re.compile(r"</?(?:li|ul|ol|p|div|h[1-6]|br|tr|table|section)\b[^<>]{0,300}>", re.I)
_TAG = re.compile(r"</?[a-z][^<>]{0,300}>", re.I)
DATA_TYPE = "application/ld+json"
# What some pages put around their data: comments of a script, and of a page.
_AROUND = re.compile(r"^\s*(?:<!--|//.*|/\*.*?\*/)*|(?:-->|//.*)\s*$")


def is_web_page(text: str) -> bool:
    """Whether a text begins like a saved page."""
    return text[:400].lower().startswith(_BEGINS)


def is_piece(text: str) -> bool:
    """Whether a text begins like a piece copied out of a page's source."""
    return _PIECE.match(text) is not None


def without_tags(text: str) -> str:
    """The piece as its lines."""
    return _TAG.sub(" ", _BLOCK.sub("\n", text))


def read_web_page(text: str) -> Shared:
    """The recipe that a page carries as data. Raises UnreadableRecipe."""
    parser = html.HTMLParser(encoding="utf-8")
    try:
        page = html.document_fromstring(text.encode("utf-8", "replace"), parser=parser)
    except (ValueError, etree.LxmlError):
        raise UnreadableRecipe("the recipe data in the page cannot be read") from None
    scripts = [one for one in page.iter("script") if one.get("type") == DATA_TYPE]
    stated = [_data(script.text or "") for script in scripts]
    found = find_recipe([data for data in stated if data is not None])
    if found is not None:
        return shared_from(found)
    bare = text_of(page)
    if bare:
        read = read_text(bare)
        told = "the page carries no data: its list of ingredients was read; hold it against it"
        return replace(read, told=(*read.told, told))
    if None in stated:
        raise UnreadableRecipe("the recipe data in the page cannot be read")
    raise UnreadableRecipe(
        "the page carries no schema.org Recipe, and no list of ingredients: paste them"
    )


def _data(text: str) -> object:
    """What a script holds; None where it cannot be read."""
    for said in (text, _AROUND.sub("", text)):
        try:
            return json.loads(said, strict=False)
        except (ValueError, RecursionError):
            continue
    return None
