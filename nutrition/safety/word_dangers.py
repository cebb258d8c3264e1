"""Words that warn though no food of the table is found: data/word_dangers.toml against lines as
they were typed and names of foods."""

from __future__ import annotations

import re
from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.food_classes import food_classes, kinds_of
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.plain_words import on_whole_words, plain
from nutrition.composition.tables import BadTable, toml_rows
from nutrition.targets.conditions import conditions, of_the_kidneys, that_hold_potassium
from nutrition.targets.person import LIFE_STAGE_WORDS

# What stands in the table for several conditions.
KIDNEYS, POTASSIUM = "kidney_disease_any", "holds_potassium"
_KEYS = (
    *("words", "unless", "known_as", "whom", "stop_with", "uncooked"),
    *("level", "text", "why", "refer_to", "source", "client"),
)
_NEEDED = ("words", "level", "text", "why", "refer_to", "source")
KEPT = 8192


@dataclass(frozen=True, kw_only=True)
class WordDanger:
    """One row; the head of data/word_dangers.toml says what each field is."""

    code: str
    said: re.Pattern[str]
    cleared: re.Pattern[str] | None
    known_as: frozenset[str]
    whom: frozenset[str]
    stop_with: frozenset[str]
    uncooked: bool
    level: str
    text: str
    why: str
    refer_to: str
    source: str
    client: str

    def concerns(self, have: Collection[str]) -> bool:
        """Whether it harms somebody with these conditions and this life stage."""
        return not self.whom or not self.whom.isdisjoint(have)

    def stops(self, have: Collection[str]) -> bool:
        return not self.stop_with.isdisjoint(have)


@dataclass(frozen=True)
class Said:
    """A text that is looked through: what it is called where it is warned of, the text, whether it
    is of something cooked, and the kinds of food it is of."""

    name: str
    text: str
    cooked: bool = False
    kinds: frozenset[str] = frozenset()


def _codes(row: dict[str, list[str]], key: str, code: str) -> frozenset[str]:
    out: set[str] = set()
    for name in row.get(key, ()):
        if name == KIDNEYS:
            out |= of_the_kidneys()
        elif name == POTASSIUM:
            out |= that_hold_potassium()
        elif name in conditions() or any(one.startswith(name) for one in LIFE_STAGE_WORDS):
            out.add(name)
        else:
            raise BadTable(f"word_dangers.toml, {code}: there is no condition “{name}”", key)
    return frozenset(out)


@lru_cache(maxsize=1)
def word_dangers() -> dict[str, WordDanger]:
    """All rows by code. Raises BadTable for one that cannot be read, or that could never fire."""
    out = {}
    for code, row in toml_rows("word_dangers.toml", _KEYS, _NEEDED).items():
        for kind in row.get("known_as", ()):
            if kind not in food_classes():
                raise BadTable(f"word_dangers.toml, {code}: there is no kind “{kind}”", "known_as")
        out[code] = WordDanger(
            code=code,
            said=on_whole_words(row["words"]),
            cleared=on_whole_words(row["unless"]) if row.get("unless") else None,
            known_as=frozenset(row.get("known_as", ())),
            whom=_codes(row, "whom", code),
            stop_with=_codes(row, "stop_with", code),
            uncooked=bool(row.get("uncooked")),
            level=row["level"],
            text=row["text"],
            why=row["why"],
            refer_to=row["refer_to"],
            source=row["source"],
            client=row.get("client", ""),
        )
    return out


@lru_cache(maxsize=KEPT)
def dangers_in(text: str) -> tuple[str, ...]:
    """The codes of the rows whose words a text has, whoever it is for."""
    said = plain(text)
    return tuple(
        code
        for code, row in word_dangers().items()
        if row.said.search(said) and not (row.cleared and row.cleared.search(said))
    )


def said_of(foods: Sequence[Ingredient], lines: Sequence[str]) -> Iterator[Said]:
    """What is looked through: each food by its name and its line, and the lines that are no
    food."""
    for part in foods:
        text = f"{part.said} ({part.food.name})" if part.said else part.food.name
        yield Said(part.food.name, text, part.is_cooked, kinds_of(part))
        if part.food.listed:
            yield Said(part.food.name, part.food.listed, part.is_cooked)
    for line in lines:
        yield Said(line, line)


def found_words(
    said: Sequence[Said], have: Collection[str]
) -> list[tuple[WordDanger, bool, tuple[str, ...]]]:
    """Each danger that the words speak of for somebody with these conditions and this life stage,
    whether it stops, and the names of what has it."""
    found: dict[str, list[str]] = {}
    for one in said:
        for code in dangers_in(one.text):
            row = word_dangers()[code]
            if not row.concerns(have) or (row.uncooked and one.cooked):
                continue
            if row.known_as.isdisjoint(one.kinds):
                found.setdefault(code, []).append(one.name)
    rows = ((word_dangers()[code], names) for code, names in found.items())
    return [(row, row.stops(have), tuple(dict.fromkeys(names))) for row, names in rows]
