"""What foods are called: each row's name taken apart, other people's names, and the words that are
known at all."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache

from rapidfuzz import process
from rapidfuzz.distance import OSA

from nutrition.composition.food_words import (
    Apart,
    Words,
    lexicon,
    take_apart,
    varieties,
    words,
)
from nutrition.composition.foods import Food, FoodTable, food_table, shipped_foods
from nutrition.composition.tables import BadTable, csv_rows, word_list

# How another name is meant: the same food; the usual kind of it; a vague word, of which the
# likeliest is taken and asked about; something else that may stand in and never does by itself.
SAME, USUAL, ASK, STAND_IN = "same", "usual", "ask", "stand-in"
# Letters apart that a misspelling may be, by the length of the word; shorter words are never
# mended. Common practice, no source.
MEND_FROM, MEND_TWO_FROM = 5, 9
# So many words of the name of a practice's own food may be left unsaid.
OWN_WORDS_UNSAID = 1
# So many tables are kept ready: the shipped one, and those of the practices at work.
TABLES_KEPT = 32


@dataclass(frozen=True, kw_only=True)
class Named:
    """A row of the table as it is called: the words that name it, its head noun, and how it is."""

    food: Food
    name: frozenset[str]
    first: frozenset[str]
    head: str
    apart: Apart
    length: int


@dataclass(frozen=True)
class OtherName:
    """Another name for a food: the words it means and how it is meant."""

    means: Words
    kind: str


class FoodNames:
    """The names of a table's foods. Making it takes some milliseconds; keep one."""

    def __init__(self, table: FoodTable, shipped: FoodNames | None = None) -> None:
        self.table = table
        known: dict[int, Named] = {id(row.food): row for row in shipped.rows} if shipped else {}
        self.rows: list[Named] = [
            known.get(id(food)) or _named(food) for food in table if not food.comparator
        ]
        self.by_word: dict[str, list[int]] = {}
        for at, row in enumerate(self.rows):
            for word in row.name:
                self.by_word.setdefault(word, []).append(at)
        self.row_of = {row.food.slug: row for row in self.rows}
        self._heads: dict[Words, frozenset[str]] = {}
        self.others = other_names()
        self.longest = max(len(name) for name in self.others)

    @cached_property
    def known(self) -> frozenset[str]:
        """Every word that means something here, or names a food that is not in the table."""
        return self._meaning | {
            word for name in word_list("other_words.txt") for word in words(name)
        }

    @cached_property
    def _meaning(self) -> frozenset[str]:
        out = set(self.by_word)
        for name, other in self.others.items():
            out |= {*name, *other.means}
        for run in lexicon().meanings:
            out |= set(run)
        for food, kinds in varieties():
            out |= food | {word for kind in kinds for word in kind}
        for said in self.table.settled:
            out |= set(said)
        return frozenset(word for word in out if not word.isdigit())

    @cached_property
    def _spellings(self) -> list[str]:
        return sorted(word for word in self._meaning if len(word) >= MEND_FROM - 1)

    def mended(self, word: str) -> str | None:
        """The one known word that this unknown one is a misspelling of; None where it is known
        itself, where none is near, the first letters differ, or several are as near."""
        if word in self.known or len(word) < MEND_FROM or not word.isalpha():
            return None
        most = 2 if len(word) >= MEND_TWO_FROM else 1
        near = process.extract(
            word, self._spellings, scorer=OSA.distance, score_cutoff=most, limit=4
        )
        near = [row for row in near if row[0][0] == word[0]]
        if not near:
            return None
        least = min(row[1] for row in near)
        nearest = [row[0] for row in near if row[1] == least]
        return nearest[0] if len(nearest) == 1 else None

    def heads_of(self, said: Words) -> frozenset[str]:
        """The head nouns of the shipped rows whose names hold all of these words."""
        if said not in self._heads:
            rows = [set(self.by_word.get(word, ())) for word in said]
            found = [self.rows[at] for at in set.intersection(*rows)] if rows else []
            self._heads[said] = frozenset(row.head for row in found if not row.food.own)
        return self._heads[said]

    def sharing(self, said: Sequence[str]) -> Iterator[Named]:
        """The rows that share a word with what was said; of a practice's own foods those that all
        but one of their words were said of."""
        seen: set[int] = set()
        for word in said:
            for at in self.by_word.get(word, ()):
                if at not in seen:
                    seen.add(at)
                    row = self.rows[at]
                    if not row.food.own or len(row.name.difference(said)) <= OWN_WORDS_UNSAID:
                        yield row


def _named(food: Food) -> Named:
    plain = re.sub(r"\s*\([^)]*\)", "", food.name)
    segments = [take_apart(part) for part in plain.split(",")]
    whole = take_apart(plain)
    state = take_apart(food.state)
    first = segments[0].name + segments[0].may
    marks = tuple(dict.fromkeys([*whole.marks, *state.marks]))
    if ("liquid", "drained and rinsed") in marks:
        marks = (*marks, ("liquid", "drained"), ("liquid", "rinsed"))
    if "vegan" in words(food.name):
        first = ("vegan", *first)
    names = (*first, *(word for part in segments[1:] for word in part.name + part.may))
    return Named(
        food=food,
        name=frozenset(names),
        first=frozenset(first),
        head=_head(segments[0], words(_before_comma(plain))),
        apart=Apart(name=whole.name, may=whole.may, marks=marks),
        length=len(words(food.name)),
    )


def _before_comma(name: str) -> str:
    """The part of a name before its first comma and before "in": "Peaches in juice" are
    peaches."""
    return re.split(r",| in ", name)[0]


def _head(first: Apart, said: Sequence[str]) -> str:
    """The head noun: the last word of the first part that names the food."""
    naming = {*first.name, *first.may}
    return next((word for word in reversed(said) if word in naming), (first.name or ("",))[-1])


@lru_cache(maxsize=1)
def other_names() -> dict[Words, OtherName]:
    """Other people's names of data/aliases.csv. Raises BadTable for a kind that nothing reads."""
    out: dict[Words, OtherName] = {}
    for row in csv_rows("aliases.csv", ("alias", "means", "kind")):
        if row["kind"] not in (SAME, USUAL, ASK, STAND_IN):
            raise BadTable(f"aliases.csv, {row['alias']}: nothing reads {row['kind']}", row["kind"])
        alias, means = (lexicon().joined(words(row[side])) for side in ("alias", "means"))
        out[tuple(alias)] = OtherName(tuple(means), row["kind"])
    return out


def food_names() -> FoodNames:
    """The names of the foods that hold here."""
    return _names_of(food_table())


@lru_cache(maxsize=TABLES_KEPT)
def _names_of(table: FoodTable) -> FoodNames:
    shipped = shipped_foods()
    return FoodNames(table) if table is shipped else FoodNames(table, _names_of(shipped))
