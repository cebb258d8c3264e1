"""How hard words are to read: the school grade at which most people read them with ease."""

from __future__ import annotations

import re
from collections.abc import Sequence
from functools import lru_cache

import pyphen

# What is handed to people should not read above this grade. Sixth to eighth grade is what health
# agencies of the United States advise for patients' texts; from memory.
MOST_GRADE = 8.0
# Fewer words than this say nothing of how a text reads.
LEAST_WORDS = 30
_WORD = re.compile(r"[A-Za-z][A-Za-z'’-]*")


@lru_cache(maxsize=1)
def _hyphens() -> pyphen.Pyphen:
    return pyphen.Pyphen(lang="en_US", left=1, right=1)


def syllables(word: str) -> int:
    """The syllables of an English word, by where it can be hyphenated: close, and seldom too
    many."""
    return len(_hyphens().positions(word.lower())) + 1


def grade(sentences: Sequence[str]) -> float | None:
    """The grade by Flesch and Kincaid, 0.39 words a sentence + 11.8 syllables a word − 15.59; None
    for a text too short to tell.

    Holds for running text in English.
    Source: Kincaid, Fishburne, Rogers and Chissom 1975, Research Branch Report 8-75.
    """
    words = [_WORD.findall(one) for one in sentences]
    words = [found for found in words if found]
    count = sum(len(found) for found in words)
    if count < LEAST_WORDS:
        return None
    spoken = sum(syllables(word) for found in words for word in found)
    return 0.39 * count / len(words) + 11.8 * spoken / count - 15.59


def sentences_in(text: str) -> list[str]:
    """The sentences of a text; what is in a line of its own ends there."""
    found = (one for line in text.splitlines() for one in re.split(r"(?<=[.!?:;])\s+", line))
    return [one.strip() for one in found if one.strip()]
