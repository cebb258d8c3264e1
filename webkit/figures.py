"""Numbers in words and digits: the one place where anything is rounded."""

import math

from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Amount
from nutrition.targets.standing import Standing

# From here on decimals say nothing.
BARE = 100.0
MISSES, NEAR_WORDS = ("under", "over"), "inside, near the edge"


def digits(value: float, decimals: int = 0) -> str:
    """A number as people write it: thin grouping, no minus zero."""
    text = f"{value:,.{decimals}f}"
    return text[1:] if text.startswith("-") and not text.strip("-0.,") else text


def decimals(value: Amount, key: str) -> int:
    """How many decimals the range of an amount bears out, at most those of its nutrient."""
    most = 0 if abs(value.amount) >= BARE else NUTRIENT[key].decimals
    half = (value.high - value.low) / 2
    return most if half <= 0 else min(most, max(0, -math.floor(math.log10(half))))


def amount(value: Amount, key: str) -> str:
    """ "31 g", or "at least 31 g" where something is unknown, or "unknown" where nothing is
    known; no more digits than the range bears out."""
    nutrient = NUTRIENT[key]
    if value.known <= 0 and value.amount == 0:
        return "unknown"
    # what is unknown can only add to an amount, but moves an index either way
    prefix = "" if value.complete else "about " if nutrient.group == "indices" else "at least "
    return f"{prefix}{digits(value.amount, decimals(value, key))} {nutrient.unit}"


def brief(said: str) -> str:
    """An amount that is said, where there is little room: a sign for "at least" and "about"."""
    return said.replace("at least ", "\u2265 ").replace("about ", "\u2248 ")


def span(value: Amount, key: str) -> str:
    """ "28-34": the range, empty where it would print the same number twice or nothing is known."""
    places = decimals(value, key)
    low, high = digits(value.low, places), digits(value.high, places)
    joint = " to " if low.startswith("-") else "\u2013"
    return "" if low == high or value.known <= 0 else f"{low}{joint}{high}"


def unknown(value: Amount) -> str:
    """ "3 of 9 lines unknown", empty where all is known that could matter."""
    told = value.unknown_lines and not value.complete
    return f"{value.unknown_lines} of {value.lines} unknown" if told else ""


def grams(value: float) -> str:
    """Grams with a decimal only where it matters."""
    return f"{digits(value, 1 if value < 10 and round(value, 1) % 1 else 0)} g"


def prints(by: float, key: str) -> bool:
    """Whether a difference would print as anything but nothing."""
    return bool(digits(by, NUTRIENT[key].decimals).strip("0.,"))


def standing(stands: Standing, key: str) -> str:
    """How a standing is said: "under by up to 12 g", "inside, near the edge"."""
    if stands.too_little:
        return "too little known to judge"
    if stands.could_be_over:
        return by_words("could be over", stands.could_be_over, key)
    if stands.state == "none":
        return "unknown"
    if stands.state == "near" or (stands.state in MISSES and not prints(stands.by, key)):
        return NEAR_WORDS
    word = "inside" if stands.state == "inside" else by_words(stands.state, stands.by, key)
    if stands.up_to:
        word = word.replace("under by", "under by up to")
    return f"{word}, as far as known" if stands.part_unknown else word


def by_words(side: str, by: float, key: str) -> str:
    """ "over by 12 g", or "just over" where the difference would print as nothing."""
    said = digits(by, 0 if by >= BARE else NUTRIENT[key].decimals)
    return f"{side} by {said} {NUTRIENT[key].unit}" if prints(by, key) else f"just {side}"
