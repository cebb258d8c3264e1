"""Numbers in words and digits: the one place where anything is rounded."""

from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Amount
from nutrition.targets.standing import Standing


def digits(value: float, decimals: int = 0) -> str:
    """A number as people write it: thin grouping, no minus zero."""
    text = f"{value:,.{decimals}f}"
    return text[1:] if text.startswith("-") and not text.strip("-0.,") else text


def amount(value: Amount, key: str) -> str:
    """ "31 g", or "at least 31 g" where something is unknown, or "unknown" where nothing is
    known."""
    nutrient = NUTRIENT[key]
    if value.known <= 0 and value.amount == 0:
        return "unknown"
    # what is unknown can only add to an amount, but moves an index either way
    prefix = "" if value.complete else "about " if nutrient.group == "indices" else "at least "
    return f"{prefix}{digits(value.amount, nutrient.decimals)} {nutrient.unit}"


def span(value: Amount, key: str) -> str:
    """ "28-34": the range, empty where it would print the same number twice or nothing is known."""
    decimals = NUTRIENT[key].decimals
    low, high = digits(value.low, decimals), digits(value.high, decimals)
    joint = " to " if low.startswith("-") else "\u2013"
    return "" if low == high or value.known <= 0 else f"{low}{joint}{high}"


def unknown(value: Amount) -> str:
    """ "3 of 9 lines unknown", empty where all is known that could matter."""
    told = value.unknown_lines and not value.complete
    return f"{value.unknown_lines} of {value.lines} unknown" if told else ""


def grams(value: float) -> str:
    """Grams with a decimal only where it matters."""
    return f"{digits(value, 1 if value < 10 and round(value, 1) % 1 else 0)} g"


def standing(stands: Standing, key: str) -> str:
    """How a standing is said: "under by up to 12 g", "inside, near the edge"."""
    if stands.too_little:
        return "too little known to judge"
    if stands.could_be_over:
        return by_words("could be over", stands.could_be_over, key)
    if stands.state == "none":
        return "unknown"
    if stands.state == "near":
        return "inside, near the edge"
    word = "inside" if stands.state == "inside" else by_words(stands.state, stands.by, key)
    if stands.up_to:
        word = word.replace("under by", "under by up to")
    return f"{word}, part unknown" if stands.part_unknown else word


def by_words(side: str, by: float, key: str) -> str:
    """ "over by 12 g", or "just over" where the difference would print as nothing."""
    said = digits(by, NUTRIENT[key].decimals)
    return f"{side} by {said} {NUTRIENT[key].unit}" if said.strip("0.") else f"just {side}"
