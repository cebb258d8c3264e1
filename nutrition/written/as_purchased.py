"""Weighed as it was bought, with peel, core and stones, or as it is eaten: what a line says."""

from __future__ import annotations

import math
import re

from nutrition.composition.foods import Food, Share
from nutrition.written.grammar import Reading

# A row that says so counts the skin as eaten.
WITH_SKIN = re.compile(r"with (?:skin|peel)")
# What is taken off only after it was weighed: what nobody eats of it.
_TAKEN_OFF = re.compile(
    r"\b(?:cored|seeded|de-?seeded|pitted|stoned|destoned|shelled|shucked|hulled|husked|podded"
    r"|(?:stems?|stalks?|ribs?|seeds?|pits?|cores?|stones?|skins?|peel|rind|husks?|outer leaves)"
    r" (?:and \w+ )?(?:removed|discarded|cut out|scooped out|off)"
    r"|(?:cut|sliced|kernels) (?:off|from) the cob|kernels cut off)\b",
    re.I,
)
_PEELED = re.compile(r"\bpeeled\b", re.I)
_TRIMMED = re.compile(r"\btrimmed\b", re.I)
_AS_BOUGHT = re.compile(
    r"\b(?:with (?:the |its |their )?(?:skin|peel|rind|stone|pit|core|shell)s?(?: on)?|as bought"
    r"|gross|before peeling|unpeeled|untrimmed|whole)\b",
    re.I,
)
_DONE_BEFORE = re.compile(
    r"\b(?:pitted|peeled|shelled|seeded|stoned|hulled|cored|trimmed|podded)\b", re.I
)
_NET = re.compile(
    r"\b(?:net|peeled weight|trimmed weight|after peeling|edible|prepared weight|flesh)\b", re.I
)
# Where less than so much is eaten, "peeled" alone says that it was weighed before: nobody gives the
# weight of a melon without its rind; "trimmed" says so of leeks. Common practice, no source.
# [0 to 1]
MUCH_TAKEN_OFF, SOME_TAKEN_OFF, MOST_TAKEN_OFF = 0.75, 0.82, 0.5
# Of which so little is eaten, nobody weighs what is left of one.
HALF_EATEN = 0.6


def eaten_of(food: Food) -> Share | None:
    """The share of a bought weight that is eaten; None where all of it is, or nobody knows."""
    return None if WITH_SKIN.search(food.name) else food.share("edible")


def weighed_as_bought(reading: Reading, food: Food, grams: float) -> bool:
    """Whether a weight is that of the whole food, of which a share is eaten. [g]"""
    share = eaten_of(food)
    # what is said before the food's name was done before it was weighed
    later = reading.note
    if share is None or _NET.search(reading.text) or _DONE_BEFORE.search(reading.phrase):
        return False
    if _AS_BOUGHT.search(reading.text):
        return True
    if _TAKEN_OFF.search(later):
        return True
    peeled = SOME_TAKEN_OFF if reading.whole else MUCH_TAKEN_OFF
    if _PEELED.search(later) and share.share < peeled:
        return True
    if _TRIMMED.search(later) and share.share < MOST_TAKEN_OFF:
        return True
    if not reading.whole:
        return False
    return share.share < HALF_EATEN or (
        share.share < MUCH_TAKEN_OFF and _nearer_whole(reading, food, share, grams)
    )


def _nearer_whole(reading: Reading, food: Food, share: Share, grams: float) -> bool:
    """Whether one weighs more like one as it is bought than like what is eaten of one. [g]"""
    one = next((row.grams for row in food.measures if row.measure in ("medium", "head")), None)
    if one is None or reading.pieces <= 0:
        return False
    each = grams / reading.pieces
    return abs(math.log(each / (one / share.share))) < abs(math.log(each / one))
