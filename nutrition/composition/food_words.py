"""What the words of a food's name mean: which name it, which say how it is, and which change
nothing."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache

from nutrition.composition.tables import BadTable, csv_rows

Words = tuple[str, ...]
NOTHING, MAYBE, TOKEN = "nothing", "maybe", "="
AXES = (
    *("state", "liquid", "salt", "sugar", "fat", "fort", "enrich", "smoke", "sprout", "heat"),
    *("wet", "grind", "mash", "skin", "flavor", "in", "plant", "ready", "then"),
)
# Plural in form only, or another word without its ending.
_KEEP = frozenset(
    "molasses hummus couscous swiss brussels asparagus citrus bulgur lemongrass watercress cress "
    "greens acai less grits aminos schnapps".split()
)
_IRREGULAR = {
    "chilies": "chili",
    "chillies": "chilli",
    "leaves": "leaf",
    "halves": "half",
    "loaves": "loaf",
    "oats": "oat",
    "peas": "pea",
}


def singular(word: str) -> str:
    """The word without its plural ending, near enough to compare two words."""
    if word in _KEEP or word in _IRREGULAR:
        return _IRREGULAR.get(word, word)
    if len(word) < 4 or not word.endswith("s") or word.endswith("ss"):
        return word
    if word.endswith("ies"):
        return word[:-3] + "y" if len(word) > 5 else word[:-1]
    if word.endswith(("oes", "shes", "ches", "sses")):
        return word[:-2]
    return word[:-1]


def words(text: str) -> list[str]:
    """Plain lower-case words, singular, without accents."""
    plain = (
        unicodedata.normalize("NFKD", text)
        .encode("ascii", "ignore")
        .decode()
        .lower()
        .replace("'", "")
    )
    mended = misspellings()
    return [singular(mended.get(word, word)) for word in re.findall(r"[a-z0-9]+", plain)]


@lru_cache(maxsize=1)
def misspellings() -> Mapping[str, str]:
    """The commonest misspellings, and the word each is meant for: data/misspellings.csv, common
    practice, no source."""
    return {row["word"]: row["means"] for row in csv_rows("misspellings.csv", ("word", "means"))}


_NONE: frozenset[str] = frozenset()


@dataclass(frozen=True, kw_only=True)
class Apart:
    """A name taken apart: the words that `name` a food, in order; those that `may` name it or mean
    nothing; and how it is said to be, as pairs of an axis and a value."""

    name: Words = ()
    may: Words = ()
    marks: tuple[tuple[str, str], ...] = ()

    @cached_property
    def _by_axis(self) -> Mapping[str, frozenset[str]]:
        axes = {axis for axis, _value in self.marks}
        return {axis: frozenset(value for of, value in self.marks if of == axis) for axis in axes}

    def values(self, axis: str) -> frozenset[str]:
        return self._by_axis.get(axis, _NONE)

    def said(self, axis: str, value: str) -> bool:
        return (axis, value) in self.marks


@dataclass(frozen=True)
class Lexicon:
    """What each run of words means, the longest run counting first."""

    meanings: Mapping[Words, str]
    groups: Mapping[str, frozenset[str]]
    longest: int

    def take_apart(self, said: Sequence[str]) -> Apart:
        """Words as `words` gives them, taken apart."""
        name: list[str] = []
        may: list[str] = []
        marks: list[tuple[str, str]] = []
        for run, meaning in self._runs(said):
            if not meaning:
                name += run
            elif meaning == MAYBE:
                may += run
            elif meaning.startswith(TOKEN):
                name.append(meaning[1:])
            elif meaning != NOTHING:
                axis, _colon, value = meaning.partition(":")
                marks.append((axis, value))
        return Apart(
            name=tuple(dict.fromkeys(name)),
            may=tuple(dict.fromkeys(may)),
            marks=tuple(dict.fromkeys(marks)),
        )

    def joined(self, said: Sequence[str]) -> list[str]:
        """Words with every run that is one word to us put as that word: "whole meal" and "whole
        wheat" alike."""
        out: list[str] = []
        for run, meaning in self._runs(said):
            out += [meaning[1:]] if meaning.startswith(TOKEN) else run
        return out

    def _runs(self, said: Sequence[str]) -> Iterator[tuple[Words, str]]:
        at = 0
        while at < len(said):
            for length in range(min(self.longest, len(said) - at), 0, -1):
                run = tuple(said[at : at + length])
                if run in self.meanings:
                    yield run, self.meanings[run]
                    at += length
                    break
            else:
                yield (said[at],), ""
                at += 1

    def may_be_dropped(self, word: str, group: str) -> bool:
        """Whether a word that may mean nothing does so of a food of this group: a leaf of kale is
        kale, one of fenugreek is not its seed."""
        return word not in self.groups or group in self.groups[word]


@lru_cache(maxsize=1)
def lexicon() -> Lexicon:
    """The lexicon of data/words.csv. Raises BadTable for a meaning that nothing reads."""
    meanings: dict[Words, str] = {}
    groups: dict[str, frozenset[str]] = {}
    for row in csv_rows("words.csv", ("words", "means", "groups")):
        meaning = row["means"]
        if row["groups"]:
            groups |= dict.fromkeys(words(row["words"]), frozenset(row["groups"].split("|")))
        if meaning not in (NOTHING, MAYBE) and not meaning.startswith(TOKEN):
            axis, colon, value = meaning.partition(":")
            if axis not in AXES or not colon or not value:
                raise BadTable(f"words.csv, {row['words']}: nothing reads {meaning}", meaning)
        meanings[tuple(words(row["words"]))] = meaning
    return Lexicon(meanings, groups, max(len(run) for run in meanings))


@lru_cache(maxsize=1)
def varieties() -> tuple[tuple[frozenset[str], tuple[Words, ...]], ...]:
    """Words that name a variety of a food and change little of what is in it, each with the words
    of the food they belong to: data/varieties.csv, common practice, no source."""
    return tuple(
        (
            frozenset(words(row["food"])),
            tuple(sorted((tuple(words(one)) for one in row["words"].split("|")), key=len))[::-1],
        )
        for row in csv_rows("varieties.csv", ("food", "words"))
    )


def take_apart(text: str) -> Apart:
    """A name or phrase taken apart by the lexicon."""
    return lexicon().take_apart(words(text))
