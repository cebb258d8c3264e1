"""A meal that somebody else cooked, as it is written down: words, and a guess of its energy."""

from __future__ import annotations

import re
from dataclasses import dataclass

from nutrition.composition.errors import CoreError

# By eye a plate that somebody else cooked is off by so much, both ways. Common practice, no
# source. [share]
OFF = 0.35
LEAST_KCAL, MOST_KCAL, MOST_WORDS = 50.0, 10_000.0, 200
# "eaten out: noodles at the pier, about 700 kcal"
SAID_OUT = re.compile(r"^\s*(?:eaten out|ate out|out)\s*[:,]\s*", re.I)
_NUMBER = r"\d{1,2}[,.]?\d{3}|\d{1,5}"
_KCAL = re.compile(
    rf"(?:\b(?:about|around|roughly|some|circa|ca\.?|maybe)\s+|~\s*)?(?P<kcal>{_NUMBER})\s*"
    rf"(?:k?cal(?:ories)?)\b",
    re.I,
)
_SPAN = re.compile(
    rf"\(?\s*(?:between\s+|from\s+)?(?P<low>{_NUMBER})\s*(?:to|-|–|and)\s*(?P<high>{_NUMBER})"
    rf"\s*(?:k?cal(?:ories)?)?\s*\)?",
    re.I,
)


class UnreadableGuess(CoreError):
    """The guess cannot be used; the message says why."""


@dataclass(frozen=True, kw_only=True)
class Guess:
    """What was eaten out, in `words`, and its energy with the least and the most of it [kcal];
    None where nobody guessed."""

    words: str
    kcal: float | None = None
    low: float | None = None
    high: float | None = None

    @property
    def said(self) -> str:
        """ "about 700 kcal, 500 to 1,000" """
        if self.kcal is None:
            return "energy unknown"
        return f"about {self.kcal:,.0f} kcal, {self.low:,.0f} to {self.high:,.0f}"


def _number(text: str) -> float:
    return float(re.sub(r"[,.](?=\d{3}$)", "", text))


def read_guess(text: str) -> Guess:
    """What was eaten out, "pizza at the harbor, about 700 kcal, 500 to 1,000"; without a range it
    is off by a third or so. Raises UnreadableGuess."""
    text = " ".join(text.split())
    if len(text) > MOST_WORDS:
        raise UnreadableGuess(f"That is {len(text)} characters, and {MOST_WORDS} can be kept.")
    span = _SPAN.search(text)
    found = _KCAL.search(text)
    if span is not None and found is not None and span.start() <= found.start() < span.end():
        # "500 to 1,000 kcal": the middle is guessed, unless a number of its own stands after it
        found = _KCAL.search(text, span.end())
    if span is not None and found is None and "cal" not in span[0].lower():
        span = None
    if span is not None and _number(span["high"]) < LEAST_KCAL:
        # "a table for 2 to 4" is no energy
        span = None
    words = text
    for match in sorted(filter(None, (found, span)), key=lambda one: -one.start()):
        words = words[: match.start()] + words[match.end() :]
    words = SAID_OUT.sub("", words)
    words = re.sub(r"\s*,\s*(?=,|$)", "", words).strip(" ,;:()")
    if not words:
        raise UnreadableGuess("Say in words what it was: “pizza at the harbor, about 700 kcal”.")
    if found is None and span is None:
        return Guess(words=words)
    ends = sorted((_number(span["low"]), _number(span["high"]))) if span else []
    kcal = _number(found["kcal"]) if found else sum(ends) / 2
    low, high = ends or (kcal * (1 - OFF), kcal * (1 + OFF))
    if not 0 < kcal <= MOST_KCAL or not 0 <= low <= kcal <= high <= MOST_KCAL:
        raise UnreadableGuess(
            f"{kcal:,.0f} kcal, {low:,.0f} to {high:,.0f}, cannot be: the guess lies within its "
            f"range, up to {MOST_KCAL:,.0f} kcal."
        )
    return Guess(words=words, kcal=kcal, low=low, high=high)
