"""What somebody says they ate, "half the stew, an apple, 2 handfuls walnuts": in pieces, each with
how much of what, for those who know which dishes there were."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

from rapidfuzz import fuzz

# How much "most of it" is, with the range that people mean by it. Common practice, no source.
_SHARES: tuple[tuple[str, float, float, float], ...] = (
    (r"three[- ]quarters|3/4|¾", 0.75, 0.65, 0.85),
    (r"two[- ]thirds|2/3|⅔", 0.667, 0.57, 0.77),
    (r"(?:a |one )?half|1/2|½", 0.5, 0.4, 0.6),
    (r"(?:a |one )?third|1/3|⅓", 0.333, 0.25, 0.42),
    (r"(?:a |one )?quarter|1/4|¼", 0.25, 0.18, 0.33),
    (r"almost all|nearly all", 0.9, 0.8, 1.0),
    (r"most", 0.8, 0.65, 0.95),
    (r"some", 0.4, 0.2, 0.65),
    (r"(?:a )?(?:little )?bit|(?:a )?little", 0.2, 0.08, 0.35),
    (r"(?:a |one )?(?:bite|taste|spoonful)", 0.08, 0.03, 0.15),
    (r"double|twice", 2.0, 1.7, 2.3),
    (r"all|the whole|whole", 1.0, 0.9, 1.05),
)
_OF = r"(?:\s+of)?(?:\s+(?:the|my|his|her|their|that|a))?\s+"
_SHARE = [
    (re.compile(rf"^(?:{words}){_OF}(.+)$", re.I), share, low, high)
    for words, share, low, high in _SHARES
]
_COUNT = re.compile(
    r"^(\d+(?:[.,]\d+)?|an?|one|two|three|four)(\s+and a half)?\s+"
    r"(?:small |big |large |little )?"
    r"(?:servings?|portions?|bowls?|plates?|helpings?|containers?)\s+(?:of\s+)?(?:the\s+)?(.+)$",
    re.I,
)
_NUMBERS = {"a": 1.0, "an": 1.0, "one": 1.0, "two": 2.0, "three": 3.0, "four": 4.0}
_NOT = re.compile(
    r"^(?:no|not|skipped|without|left out|left|didn['’]t (?:eat|have)|did not (?:eat|have))\s+"
    r"(?:the\s+|any\s+|my\s+)?(.+)$",
    re.I,
)
_INSTEAD = re.compile(r"^(.+?)\s+instead of\s+(?:the\s+|my\s+)?(.+)$", re.I)
_AS_PLANNED = re.compile(r"^(?:(?:all |everything )?as planned|everything|all of it)$", re.I)
_SPLIT = re.compile(r"\s*(?:;|\n|,(?!\d)|(?<!\d),|\s\+\s)\s*")
_AND = re.compile(r"\s+(?:and|plus|&|then|but)\s+(?!a half)", re.I)
_WITH_AMOUNT = re.compile(r"\s+with\s+(?=(?:\d|an?\s|half\s|one\s|two\s|some\s))", re.I)
_LEADING = re.compile(
    r"^(?:(?:then|also|and|plus|i had|i ate|had|ate|only|just|about|roughly|maybe|perhaps)\s+)+",
    re.I,
)
# Words that tell nothing of a dish.
_EMPTY = frozenset("the a an of with and my in on for from".split())
LIKE = 86.0
ALL, PART, LEFT_OUT, INSTEAD = "as planned", "part", "left out", "instead"


@dataclass(frozen=True, kw_only=True)
class Piece:
    """One thing that was said: `words` for what it is, `share` of it with its range where a share
    was said, what it stands in the place of, and whether it was left out, or all was as planned.
    `line` is what is read as a food with its amount."""

    text: str
    words: str
    line: str = ""
    kind: str = PART
    share: float | None = None
    low: float = 1.0
    high: float = 1.0
    instead_of: str = ""


_MEALS = {"supper": "dinner", "snacks": "snack", "between meals": "snack"}
_MEAL = re.compile(
    r"(?:^|(?<=[\n;,.]))\s*(?:for |at )?(breakfast|lunch|dinner|supper|snacks?|between meals)"
    r"\s*[:–-]\s*",
    re.I,
)


def by_meal(text: str) -> list[tuple[str, str]]:
    """A text in its meals, where it names them: "lunch: half the stew; dinner: soup". The meal of
    what stands before the first is empty."""
    out, meal, begin = [], "", 0
    for found in _MEAL.finditer(text):
        if text[begin : found.start()].strip(" ,;.\n"):
            out.append((meal, text[begin : found.start()]))
        name = found[1].lower()
        meal, begin = _MEALS.get(name, name), found.end()
    if text[begin:].strip(" ,;.\n") or not out:
        out.append((meal, text[begin:]))
    return out


def pieces(text: str, known: Sequence[str] = ()) -> list[Piece]:
    """What a line says, in its order. Names in `known` keep the "and" that they hold."""
    out = []
    for chunk in _SPLIT.split(text.strip()):
        for part in _parted(chunk.strip(" ."), known):
            part = _LEADING.sub("", part).strip(" .")
            if part:
                out.append(_piece(part))
    return out


def _parted(chunk: str, known: Sequence[str]) -> list[str]:
    """A chunk at its "and", unless it is all one name."""
    halves = _AND.split(chunk)
    if len(halves) > 1:
        said = _piece(chunk).words
        if any(_whole_name(said, name) for name in known):
            return [chunk]
    return [one for half in halves for one in _WITH_AMOUNT.split(half)]


def _whole_name(said: str, name: str) -> bool:
    words = [word for word in _tokens(said) if word not in _EMPTY]
    return len(words) > 1 and all(_among(word, _tokens(name)) for word in words)


def _piece(text: str) -> Piece:
    if _AS_PLANNED.match(text):
        return Piece(text=text, words="", kind=ALL)
    instead = _INSTEAD.match(text)
    if instead:
        inner = _piece(instead[1])
        return Piece(
            text=text,
            words=inner.words,
            line=instead[1],
            kind=INSTEAD,
            share=inner.share,
            low=inner.low,
            high=inner.high,
            instead_of=instead[2],
        )
    left_out = _NOT.match(text)
    if left_out:
        return Piece(
            text=text,
            words=left_out[1],
            line=left_out[1],
            kind=LEFT_OUT,
            share=0.0,
            low=0.0,
            high=0.0,
        )
    counted = _COUNT.match(text)
    if counted:
        number = counted[1].lower().replace(",", ".")
        count = _NUMBERS.get(number) or float(number)
        count += 0.5 if counted[2] else 0.0
        return Piece(
            text=text, line=text, words=counted[3], share=count, low=count * 0.85, high=count * 1.15
        )
    for pattern, share, low, high in _SHARE:
        found = pattern.match(text)
        if found:
            return Piece(text=text, line=text, words=found[1], share=share, low=low, high=high)
    bare = re.sub(r"^(?:the|my)\s+", "", text, flags=re.I)
    return Piece(text=text, line=text, words=bare)


def _tokens(text: str) -> list[str]:
    return [_stem(word) for word in re.findall(r"[^\W_]+", text.lower())]


def _stem(word: str) -> str:
    for end in ("ies", "es", "s"):
        if len(word) > len(end) + 2 and word.endswith(end):
            return word[: -len(end)] + ("y" if end == "ies" else "")
    return word


def _among(word: str, others: Sequence[str]) -> bool:
    return any(
        word == other or (len(word) > 3 and fuzz.ratio(word, other) >= LIKE) for other in others
    )


def named_in(words: str, names: Sequence[str]) -> list[int]:
    """Which of some names have every word that tells something, by place; those that have nothing
    more than these words alone, if there are any."""
    asked = [word for word in _tokens(words) if word not in _EMPTY]
    if not asked:
        return []
    found = [i for i, name in enumerate(names) if all(_among(one, _tokens(name)) for one in asked)]
    exact = [
        i
        for i in found
        if len([one for one in _tokens(names[i]) if one not in _EMPTY]) == len(asked)
    ]
    return exact or found
