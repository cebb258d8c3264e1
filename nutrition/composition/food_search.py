"""Find a food by what people call it: other names, plurals, misspellings; the plain form first."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cached_property, lru_cache

from rapidfuzz.distance import OSA

from nutrition.composition.food_names import TABLES_KEPT, food_names, other_names
from nutrition.composition.food_words import words
from nutrition.composition.foods import Food, FoodTable, food_table
from nutrition.composition.measured_state import plain_state

STATE_WORDS = frozenset(
    "raw cooked dry dried canned drained undrained rinsed frozen fresh ready pickled boiled baked "
    "roasted".split()
)
# Nobody says these of the usual kind.
SILENT_WORDS = frozenset({"fortified", "enriched"})
# What a word of a name costs that was not asked for.
EXTRA_WORD = 0.11
SPARE = 6
# Letters from which on a beginning may hold a wrong one.
LEAST_BEGINNING = 4
WHOLE_ALIAS_LIFT = 0.2


@dataclass(frozen=True)
class Match:
    food: Food
    score: float


class FoodIndex:
    """Search over a food table. Building it takes some milliseconds; keep one."""

    def __init__(self, table: FoodTable) -> None:
        self.table = table
        self.foods = [food for food in table if not food.retired]
        self.words = [words(food.name) for food in self.foods]
        self.by_word: dict[str, set[int]] = {}
        for i, names in enumerate(self.words):
            for word in names:
                self.by_word.setdefault(word, set()).add(i)
        self.vocabulary = sorted(self.by_word)
        self.aliases: dict[tuple[str, ...], list[str]] = {}
        for name, other in other_names().items():
            self.aliases[name] = list(other.means)
        self.longest_alias = max(len(alias) for alias in self.aliases)

    def expand(self, names: list[str], state: str | None = None) -> list[str]:
        """Put our names for other people's names, the longest first. A `state` that was said stands
        for the one a name implies."""
        out: list[str] = []
        i = 0
        while i < len(names):
            for length in range(min(self.longest_alias, len(names) - i), 0, -1):
                means = self.aliases.get(tuple(names[i : i + length]))
                if means:
                    # "raw" said or implied must not stand against what the cook wrote
                    if state or any(word in STATE_WORDS for word in names):
                        means = [word for word in means if word not in STATE_WORDS] or means
                    out += [word for word in means if word not in out]
                    i += length
                    break
            else:
                if names[i] not in out:
                    out.append(names[i])
                i += 1
        return out

    def _spelled(self, word: str) -> str:
        """The known word nearest to this one, or the word itself."""
        if word in self.by_word:
            return word
        return food_names().mended(word) or word

    @cached_property
    def _beginnings(self) -> list[str]:
        """The single words that find something: those of names, and other people's."""
        return sorted({*self.vocabulary, *(alias[0] for alias in self.aliases if len(alias) == 1)})

    def _beginning(self, word: str) -> str:
        """The known word that begins most like a beginning that is typed: a letter may be wrong.
        Only ever offered; nothing settles by it."""
        if len(word) < LEAST_BEGINNING:
            return word
        near = [
            (min(OSA.distance(one[: len(word) + more], word) for more in (0, 1)), len(one), one)
            for one in self._beginnings
            if len(one) >= len(word) and one[0] == word[0]
        ]
        least = min(near, default=(len(word), 0, word))
        return least[2] if least[0] <= 1 else word

    def _hits(self, word: str, prefix: bool) -> dict[int, float]:
        hits = dict.fromkeys(self.by_word.get(word, ()), 1.0)
        if prefix and len(word) >= 2:
            for known in self.vocabulary:
                if known.startswith(word) and known != word:
                    for i in self.by_word[known]:
                        hits[i] = max(hits.get(i, 0.0), 0.7 + 0.3 * len(word) / len(known))
        return hits

    def search(
        self,
        query: str,
        limit: int = 12,
        state: str | None = None,
        *,
        typing: bool = False,
    ) -> list[Match]:
        """The best matches, best first.

        `typing` lets the last word be a beginning of one. `state` (dry, cooked, canned, drained
        ...) lifts foods that are so.
        """
        written = words(query)
        asked = list(written)
        if not asked:
            return []
        if not typing or not self._hits(asked[-1], prefix=True):
            asked = [self._spelled(word) for word in asked]
            if typing and asked[-1] not in self.by_word:
                asked[-1] = self._beginning(asked[-1])
        expanded = self.expand(asked, state)
        # another name for all that was asked stands before what only shares words with it
        lift = WHOLE_ALIAS_LIFT if tuple(asked) in self.aliases else 0.0
        best = {i: score + lift for i, score in self._scored(expanded, state, typing).items()}
        literal = [self._spelled(word) for word in written]
        if expanded != literal and (
            state or len([word for word in literal if word not in STATE_WORDS]) > 1
        ):
            # what was written may itself be a food's name: "smoked tofu", though tofu alone means
            # firm tofu
            for i, score in self._scored(literal, state, typing).items():
                best[i] = max(best.get(i, score), score)
        out = [Match(self.foods[i], score) for i, score in best.items()]
        out.sort(key=lambda match: (-match.score, len(match.food.name), match.food.slug))
        return out[:limit]

    def _scored(self, expanded: list[str], state: str | None, typing: bool) -> dict[int, float]:
        scores: dict[int, float] = {}
        content = [word for word in expanded if word not in STATE_WORDS] or expanded
        for word in expanded:
            weight = 0.35 if word in STATE_WORDS and word not in content else 1.0
            prefix = typing and word == expanded[-1]
            hits = self._hits(word, prefix) or {}
            for i, value in hits.items():
                scores[i] = scores.get(i, 0.0) + weight * value
        wanted = {word for word in expanded if word in STATE_WORDS}
        out = {}
        for i, score in scores.items():
            food, names = self.foods[i], self.words[i]
            extra = [
                word
                for word in names
                if word not in expanded and word not in STATE_WORDS and word not in SILENT_WORDS
            ]
            total = score / len(content) - EXTRA_WORD * len(extra)
            # the head noun said outright counts more than one met in passing
            if names[0] in expanded:
                total += 0.10
            total += self._state_bonus(food, wanted, state)
            if food.comparator:
                total -= 0.3
            # a measured row before one we computed
            if food.source.startswith("computed"):
                total -= 0.03
            out[i] = total
        return out

    def usable(
        self,
        query: str,
        limit: int = 12,
        state: str | None = None,
        *,
        typing: bool = False,
    ) -> list[Match]:
        """As `search`, without the comparators: what a recipe, bowl or day may hold."""
        # asked for with room to spare, so that leaving comparators out leaves enough
        found = self.search(query, limit + SPARE, state, typing=typing)
        return [match for match in found if not match.food.comparator][:limit]

    def _state_bonus(self, food: Food, wanted: set[str], state: str | None) -> float:
        said = set(wanted)
        if state:
            said |= set(re.findall(r"[a-z]+", state))
        if said:
            have = set(re.findall(r"[a-z]+", food.state)) | {
                word for word in words(food.name) if word in STATE_WORDS
            }
            if "dried" in said:
                said = said - {"dried"} | {"dry"}
            if "dried" in have:
                have |= {"dry"}
            if "fresh" in said:
                said = said - {"fresh"} | {"raw"}
            if "frozen" in said and "frozen" not in have and "raw" in have:
                return 0.05
            # a drained or rinsed bean that is not said to be canned may still be canned
            agree, miss, over = (
                len(said & have),
                len(said - have),
                len(have - said - {"and", "ready", "fresh"}),
            )
            return 0.16 * agree - 0.08 * miss - 0.04 * over
        plain = plain_state(food)
        if plain is None or food.state == plain:
            return 0.05
        return -0.05 if food.state in ("dry", "cooked", "raw") else -0.10


def food_index() -> FoodIndex:
    """The index over the foods that hold here."""
    return _index_of(food_table())


@lru_cache(maxsize=TABLES_KEPT)
def _index_of(table: FoodTable) -> FoodIndex:
    return FoodIndex(table)
