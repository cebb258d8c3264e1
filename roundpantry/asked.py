"""What an address or a form asks for, taken with care: keys and numbers that nobody can break a
page with."""

import math

from django.http import QueryDict


def key_in(text: object) -> int | None:
    """The key of a record in "17"; None for anything else, digits of other scripts and endless ones
    among it."""
    said = str(text)
    return int(said) if said.isascii() and said.isdigit() and len(said) <= 15 else None


def number_in(text: object) -> float | None:
    """The finite number in "1.5" or "1,5"; None for anything else."""
    said = str(text).strip().replace(",", ".")
    if len(said) > 40:
        return None
    try:
        value = float(said)
    except ValueError:
        return None
    return value if math.isfinite(value) else None


def grams_in(text: object) -> float | None:
    """The grams in "80", "80 g" or "80,5g"; None for anything else. [g]"""
    return number_in(str(text).strip().lower().removesuffix("g"))


def short(data: QueryDict | dict, name: str, most: int = 80) -> str:
    """A word or two of what was sent, no longer than `most` characters."""
    return str(data.get(name, ""))[: most * 4].strip()[:most]
