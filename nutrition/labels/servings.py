"""What is really eaten of a package, beside the serving on its label."""

from __future__ import annotations

import re

from nutrition.composition.food_words import words
from nutrition.labels.own_food import OwnFood
from nutrition.written.grammar import read
from nutrition.written.line import Line
from nutrition.written.typed_amounts import UnreadableAmount, read_amount

_WHOLE = re.compile(
    r"^(?:all|(?:the |a )?(?:whole|entire|full)\b(?: of)?(?: the)?(?: thing| lot)?)\s*", re.I
)
_PART_OF = re.compile(r"\b(?:of )?(?:the|it|this)\b", re.I)
_PACKAGE = "package"


def eaten(text: str, made: OwnFood, system: str = "us") -> Line:
    """The grams that are eaten of it: "80 g", "half the package", "2 servings", "5 crackers".
    Raises UnreadableAmount."""
    said = _WHOLE.sub("1 ", text.strip())
    part_only = said.strip() == "1" or re.fullmatch(r"[\w/ ]+ of (?:it|the lot)", said, re.I)
    said = " ".join(_PART_OF.sub(" ", said).split())
    if part_only:
        said = f"{said.removesuffix(' of')} {_PACKAGE}"
    reading = read(said)
    named = set(words(reading.phrase))
    its_words = set(words(made.label.label.serving)) | set(words(made.food.name))
    if reading.terms and named and named <= its_words:
        said = f"{reading.terms[0].best:g} {reading.terms[0].unit or 'piece'}"
    try:
        return read_amount(said, made.food, system)
    except UnreadableAmount:
        if _PACKAGE in said and made.label.servings is None:
            raise UnreadableAmount("Say how many servings the package holds.") from None
        raise
