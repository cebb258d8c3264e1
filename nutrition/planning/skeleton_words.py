"""What people write into the meals of a week, read as kinds of places: from
data/skeleton_words.toml, or by a food that is named."""

from __future__ import annotations

import re
from functools import lru_cache

from nutrition.composition.dish_names import KINDS
from nutrition.composition.food_search import food_index
from nutrition.composition.tables import BadTable, toml_rows
from nutrition.planning.kinds import kinds_of_food

AWAY = "away"
ROW = ("words",)
# How a food is made says nothing of where it stands.
COOKED = re.compile(
    r"^(steamed|cooked|raw|roast(ed)?|boiled|baked|fresh|plain|grilled|saut[eé]ed|mashed|some) "
)
# In the order of a menu a food that may stand in several places stands in the first of these.
AT_BREAKFAST = {"grain": "breakfast"}


@lru_cache(maxsize=1)
def skeleton_words() -> dict[str, str]:
    """The kind that each word means; AWAY for a meal that is not planned. Raises BadTable."""
    out: dict[str, str] = {}
    for kind, row in toml_rows("skeleton_words.toml", ROW, ROW).items():
        if kind not in (*KINDS, AWAY):
            raise BadTable(f"skeleton_words.toml, {kind}: no such kind", kind)
        for word in row["words"]:
            if word in KINDS or word in out:
                raise BadTable(f"skeleton_words.toml, {kind}: {word} stands there twice", kind)
            out[word] = kind
    return out


def _singular(word: str) -> list[str]:
    """A word, and what it could be the plural of."""
    return [word, word.removesuffix("s"), word.removesuffix("es")]


def kind_of_word(word: str, meal: str = "") -> str | None:
    """The kind of place that a word means at a meal, AWAY for none; None where it is not known."""
    said = re.sub(r"\s+", " ", re.sub(r"^(a|an|the|some|my) ", "", word.strip().lower()))
    for one in _singular(said):
        if one in KINDS:
            return one
    for one in _singular(said):
        if one in skeleton_words():
            return skeleton_words()[one]
    return _of_a_food(said, meal)


def _of_a_food(said: str, meal: str) -> str | None:
    """The kind of a food that is called so, word for word."""
    said = COOKED.sub("", said)
    for hit in food_index().search(said, 3):
        names = re.split(r"[,()]", hit.food.name.lower())
        kinds = [kind for kind in KINDS if kind in kinds_of_food(hit.food)]
        if kinds and any(one in _singular(said) for one in _singular(names[0].strip())):
            return AT_BREAKFAST.get(kinds[0], kinds[0]) if meal == "breakfast" else kinds[0]
    return None
