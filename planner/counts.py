"""How many of a bowl or of servings, as it is typed."""

from nutrition.written.typed_amounts import UnreadableAmount
from nutrition.written.wording import number

MOST = 20.0


def count_in(text: str) -> float:
    """How many bowls or servings. Raises UnreadableAmount."""
    try:
        value = number(text.replace(",", "."))
    except (ValueError, OverflowError):
        value = 0.0
    if not 0 < value <= MOST:
        raise UnreadableAmount(
            f"“{text}” is not a count. Write a number such as 1, 1/2 or 1.5, up to {MOST:g}."
        )
    return value
