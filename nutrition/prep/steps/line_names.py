"""Which lines of a recipe a step means: by the words of the food, or by what kind of food it is
called ("the roots", "the herbs")."""

from __future__ import annotations

import re
from collections.abc import Sequence

from nutrition.composition.food_words import words
from nutrition.recipe.method_steps import line_words, meant
from nutrition.written.line import Line

# What a step may call foods together: their groups, or a pattern of their slugs.
CALLED: dict[str, tuple[frozenset[str], re.Pattern[str] | None]] = {
    "vegetable": (frozenset({"vegetable", "starchy vegetable", "leafy green", "mushroom"}), None),
    "root": (
        frozenset(),
        re.compile(r"carrot|parsnip|celeriac|beet|turnip|rutabaga|potato|kohlrabi|radish|salsify"),
    ),
    "leaf": (frozenset({"leafy green"}), None),
    "greens": (frozenset({"leafy green"}), None),
    "stem": (frozenset({"leafy green"}), None),
    "nut": (frozenset({"nut"}), None),
    "seed": (frozenset({"seed"}), re.compile(r".*-seeds?")),
    "herb": (frozenset({"fresh herb", "dried herb"}), None),
    "spice": (frozenset({"spice"}), None),
    "grain": (frozenset({"grain"}), None),
    "berry": (frozenset(), re.compile(r".*berr")),
    "fruit": (frozenset({"fruit", "dried fruit"}), None),
    "bean": (frozenset(), re.compile(r".*beans?(-|$)|chickpeas")),
    "floret": (frozenset(), re.compile(r"cauliflower|broccoli")),
    "bulb": (frozenset(), re.compile(r"fennel")),
    "broth": (frozenset({"broth"}), None),
    "stock": (frozenset({"broth"}), None),
    "milk": (frozenset({"plant milk"}), None),
    "peel": (frozenset(), re.compile(r".*-zest")),
    "zest": (frozenset(), re.compile(r".*-zest")),
    "salt": (frozenset({"salt"}), None),
    "oil": (frozenset({"oil"}), None),
    "pasta": (frozenset({"pasta"}), None),
    "noodle": (frozenset(), re.compile(r".*noodle")),
    "sprout": (frozenset({"legume"}), None),
}
ALL = re.compile(
    r"\beverything\b|\bit all\b|\bremaining ingredients\b|\ball (?:the )?(?:other )?ingredients\b"
    r"|\bthe rest\b|\ball together\b|\bboth\b|\bjoin\b|^\W*together with\b"
    r"|\ball\b(?=\s*(?:$|[.,;])| (?:and|but|in|of (?:it|them))\b)",
    re.I,
)
TOGETHER = re.compile(r"\btogether\b", re.I)
_SOAKED = re.compile(r"\b(?:pre-?)?soaked\b(?! in (?:oil|brine))", re.I)


# Words of a line that a step uses for something else: measures, sizes, states.
NOT_NAMES = frozenset(
    "cup tbsp tsp tablespoon teaspoon clove bunch can jar piece head stalk bulb handful pinch "
    "slice large small medium big boiling warm half whole low no added sodium reduced packed "
    "minute hour and the with from for into each about plus more fine finely well water".split()
)


def lines_named(text: str, lines: Sequence[Line]) -> tuple[int, ...]:
    """The places of the lines that a clause names, without what it says is not meant: by the words
    that were written of them, else by those of the food, else by what such foods are called."""
    written = [_own_words(line.text, line) for line in lines]
    known = [line_words(line) - NOT_NAMES for line in lines]
    out: set[int] = set()
    for word in set(words(meant(text))) - NOT_NAMES:
        found = {at for at, own in enumerate(written) if word in own}
        found = found or {at for at, own in enumerate(known) if {word, f"{word}seed"} & own}
        if not found and word in CALLED:
            found = {at for at, line in enumerate(lines) if _is_called(line, word)}
        out |= found
    return tuple(sorted(out))


def _own_words(text: str, line: Line) -> set[str]:
    return (set(words(text)) & line_words(line)) - NOT_NAMES


def _is_called(line: Line, word: str) -> bool:
    if line.food is None:
        return False
    groups, slugs = CALLED[word]
    return line.food.group in groups or (
        slugs is not None and slugs.match(line.food.slug) is not None
    )


def says_all(text: str) -> bool:
    """Whether a clause is about all that there is, or all the rest."""
    return ALL.search(meant(text)) is not None


def says_soaked(text: str) -> bool:
    """Whether a line says that it is soaked before anything is done: not kept in oil or brine."""
    return _SOAKED.search(text) is not None


def says_together(text: str) -> bool:
    """Whether a clause puts together what it does not name, or what there is with what it names."""
    return TOGETHER.search(text) is not None


def left_out(text: str, lines: Sequence[Line]) -> tuple[int, ...]:
    """The lines that a clause says are not meant: "everything but the lemon"."""
    if meant(text) == text:
        return ()
    dropped = set(words(text)) - set(words(meant(text)))
    return tuple(at for at, line in enumerate(lines) if line_words(line) & dropped)
