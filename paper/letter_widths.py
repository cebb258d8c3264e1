"""How wide words are in the typeface of everything printed, and how many lines they take."""

from __future__ import annotations

import re
from functools import lru_cache
from typing import cast

from django.contrib.staticfiles import finders
from PIL import ImageFont

MM_PER_POINT = 25.4 / 72
PLAIN, BOLD = 400, 600
# At which size the letters are measured; it cancels out.
OF_FONT = 1000
# The space before it, and what is not broken: a word, or a part of one with its hyphen.
_PIECE = re.compile(r"(\s*)([^\s-]+-*|-+)")


def width_of(words: str, points: float, weight: int = PLAIN) -> float:
    """How wide words are in one line, at a size [pt] and weight of the letters. [mm]"""
    return _letters(weight).getlength(words) / OF_FONT * points * MM_PER_POINT


def lines_of(words: str, wide: float, points: float, weight: int = PLAIN) -> int:
    """How many lines words take in a column so wide [mm], broken between words, behind a hyphen,
    and within a word that is wider than the column; at least one."""
    lines, used = 1, 0.0
    for space, word in _PIECE.findall(words.strip()):
        long = width_of(word, points, weight)
        before = width_of(" ", points, weight) if space and used else 0.0
        if used and used + before + long > wide:
            lines, used, before = lines + 1, 0.0, 0.0
        used += before + long
        while used > wide:
            lines, used = lines + 1, used - wide
    return lines


@lru_cache(maxsize=4)
def _letters(weight: int) -> ImageFont.FreeTypeFont:
    font = ImageFont.truetype(cast(str, finders.find("vendor/atkinson-latin.woff2")), OF_FONT)
    font.set_variation_by_axes([weight])
    return font
