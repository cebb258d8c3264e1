"""Any allergy that a client may have: those that labels must name, others from data/allergies.toml,
and, for what nobody foresaw, the word itself."""

from __future__ import annotations

import difflib
import re
from collections.abc import Hashable, Iterable
from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.allergens import (
    ALLERGENS,
    OTHER_WORDS,
    UnknownAllergen,
    listed_named,
    spellings,
)
from nutrition.composition.foods import Food, food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.plain_words import on_whole_words, plain
from nutrition.composition.tables import toml_rows

MOST_LETTERS = 60
# A word so like the name of a listed allergen is asked about: it may be a slip of the hand. Common
# practice, no source.
LIKE = 0.8
_AROUND = re.compile(r"^(an? )?allerg(y|ic) (to|of) |\b(allerg(y|ies)|allergic|intolerance)$")
_KEYS = ("names", "words", "unless", "cross_words", "cross_raw", "cross_level", "why", "source")


@dataclass(frozen=True, kw_only=True)
class Allergy:
    """What one allergy looks for; the head of data/allergies.toml says what each field is. `known`:
    it stands in a table, rather than being a word alone."""

    code: str
    names: tuple[str, ...]
    said: re.Pattern[str]
    cleared: re.Pattern[str] | None
    crossing: re.Pattern[str] | None
    crossing_raw: re.Pattern[str] | None
    cross_level: str
    why: str
    source: str
    known: bool

    @property
    def listed(self) -> bool:
        """Whether labels must name it, so that the table marks it on each food."""
        return self.code in ALLERGENS

    @property
    def kin(self) -> str:
        """How strongly what cross-reacts is told; empty where nothing does."""
        return self.cross_level if self.crossing or self.crossing_raw else ""

    def in_text(self, text: str) -> bool:
        """Whether a line, a name or a list of ingredients speaks of it."""
        said = plain(text)
        cleared = self.cleared is not None and self.cleared.search(said) is not None
        return self.said.search(said) is not None and not cleared

    def holds(self, part: Ingredient) -> bool:
        """Whether a food is or has what is not tolerated. What labels must name is told by the
        food's own marks."""
        if self.listed:
            return self.code in part.allergens
        return any(self.in_text(text) for text in texts_of(part))

    def crosses(self, text: str, cooked: bool) -> bool:
        """Whether a text speaks of something that cross-reacts."""
        said = plain(text)
        if self.cleared is not None and self.cleared.search(said):
            return False
        patterns = (self.crossing, None if cooked else self.crossing_raw)
        return any(one is not None and one.search(said) for one in patterns)


def texts_of(part: Ingredient) -> Iterable[str]:
    """The texts that tell what a food is: its name, its line, its list of ingredients."""
    return (text for text in (part.food.name, part.said, part.food.listed) if text)


@lru_cache(maxsize=1)
def _rows() -> dict[str, Allergy]:
    out = {}
    for row in toml_rows("allergies.toml", _KEYS, ("names", "words", "why", "source")).values():
        patterns = (
            on_whole_words(row[key]) if row.get(key) else None
            for key in ("unless", "cross_words", "cross_raw")
        )
        cleared, crossing, raw = patterns
        name = row["names"][0]
        out[name] = Allergy(
            code=name,
            names=tuple(row["names"]),
            said=on_whole_words(row["words"]),
            cleared=cleared,
            crossing=crossing,
            crossing_raw=raw,
            cross_level=row.get("cross_level", "note"),
            why=row["why"],
            source=row["source"],
            known=True,
        )
    return out


@lru_cache(maxsize=1)
def _by_name() -> dict[str, str]:
    return {name: code for code, one in _rows().items() for name in one.names}


def _by_the_word(word: str) -> re.Pattern[str]:
    """A pattern for a word that stands in no table, without the s of its plural."""
    return on_whole_words([re.escape(word.removesuffix("s") if len(word) > 3 else word)])


@lru_cache(maxsize=512)
def allergy(code: str) -> Allergy:
    """What an allergy looks for, by the code that `allergies_named` gave."""
    found = _rows().get(code)
    if found is not None:
        return found
    return Allergy(
        code=code,
        names=(code,),
        said=_by_the_word(code),
        cleared=None,
        crossing=None,
        crossing_raw=None,
        cross_level="note",
        why="It is looked for by its word, in names, lines and lists of ingredients.",
        source="common practice, no source",
        known=code in ALLERGENS,
    )


def allergies_named(word: str) -> tuple[str, ...]:
    """The codes of the allergies that a word means: listed ones, those of the table, or the word
    itself. Raises UnknownAllergen for nothing, for too much, and for a word so like a listed one
    that it may be a slip."""
    said = _AROUND.sub("", plain(word)).strip(" .")
    if not re.search(r"[a-z]", said):
        raise UnknownAllergen("Give what is not tolerated in a word.", "allergies")
    if len(said) > MOST_LETTERS:
        raise UnknownAllergen(
            f"An allergy is named in up to {MOST_LETTERS} letters: give each by itself.",
            "allergies",
        )
    listed = listed_named(said)
    if listed:
        return listed
    for one in spellings(said):
        if one in _by_name():
            return (_by_name()[one],)
    if not foods_called(said):
        near = difflib.get_close_matches(said, [*ALLERGENS, *OTHER_WORDS, *_by_name()], 1, LIKE)
        if near:
            meant = OTHER_WORDS.get(near[0], (near[0],))
            raise UnknownAllergen(
                f"There is no “{word}” here: did you mean {' and '.join(meant)}?", "allergies"
            )
    return (said,)


def foods_called(word: str) -> tuple[Food, ...]:
    """The foods of the table whose name has a word."""
    return _foods_called(word, food_table().key)


@lru_cache(maxsize=512)
def _foods_called(word: str, _table: Hashable) -> tuple[Food, ...]:
    pattern = _by_the_word(word)
    return tuple(food for food in food_table() if pattern.search(plain(food.name)))


def sees_no_more(code: str) -> bool:
    """Whether nothing in the tables matches an allergy, so that only its word is looked for."""
    return not allergy(code).known and not foods_called(code)


def refused_in(part: Ingredient, refused: Iterable[str]) -> list[str]:
    """The allergies of a client that a food is refused for."""
    return [code for code in sorted(refused) if allergy(code).holds(part)]


def found_in(parts: Iterable[Ingredient], refused: Iterable[str]) -> dict[str, list[str]]:
    """Each refused allergy that is there, with the names of the foods that hold it."""
    wanted = sorted(refused)
    out: dict[str, list[str]] = {}
    for part in parts:
        for code in refused_in(part, wanted):
            if part.food.name not in out.setdefault(code, []):
                out[code].append(part.food.name)
    return out
