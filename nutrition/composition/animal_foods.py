"""Animal foods named in a line, from data/animal_foods.toml: never taken for a plant that only
sounds alike, and never silently replaced."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.food_words import words
from nutrition.composition.foods import food_table
from nutrition.composition.tables import BadTable, needs, toml_rows

USUAL = "usual"
USUAL_KEYS = ("instead", "broth", "broth_words", "words", "plant_words")


@dataclass(frozen=True, kw_only=True)
class AnimalFoods:
    """The words for animal foods, each with the slugs of what may stand in its place; the words
    with which one is a plant after all; and what is said of a broth."""

    instead: dict[str, tuple[str, ...]]
    plant_words: frozenset[str]
    broth_words: frozenset[str]
    broth: tuple[str, ...]

    def instead_of(self, word: str, phrase: str) -> tuple[str, tuple[str, ...]]:
        """The animal food as it was named, or the broth of it, and the slugs of what may stand in
        its place."""
        if not self.broth_words.isdisjoint(words(phrase)):
            return phrase, self.broth
        return word, self.instead[word]


@lru_cache(maxsize=1)
def animal_foods() -> AnimalFoods:
    """The table. Raises BadTable for a row that cannot be read, or a slug the food table lacks."""
    rows = toml_rows("animal_foods.toml", USUAL_KEYS, ("instead",))
    usual = rows.pop(USUAL, {})
    needs(usual, USUAL_KEYS, f"animal_foods.toml, {USUAL}")
    instead = {word: tuple(usual["instead"]) for word in usual["words"]}
    instead |= {word: tuple(row["instead"]) for word, row in rows.items()}
    for word, slugs in (*instead.items(), ("broth", usual["broth"])):
        for slug in slugs:
            if slug not in food_table():
                raise BadTable(f"animal_foods.toml, {word}: there is no food “{slug}”", slug)
    return AnimalFoods(
        instead=instead,
        plant_words=frozenset(usual["plant_words"]),
        broth_words=frozenset(usual["broth_words"]),
        broth=tuple(usual["broth"]),
    )
