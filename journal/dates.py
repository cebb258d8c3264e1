"""Dates as people write them."""

from __future__ import annotations

import re
from datetime import date, datetime

_ISO = re.compile(r"^(\d{4})-(\d{1,2})-(\d{1,2})")
# What the words alone settle. 3/4/2026 is March in one country and April in another: it is asked.
_SHAPES = ("%b %d, %Y", "%B %d, %Y", "%d %b %Y", "%d %B %Y", "%b %d %Y", "%Y/%m/%d", "%d.%m.%Y")
_SLASHED = re.compile(r"^(\d{1,2})[/-](\d{1,2})[/-](\d{4})")


def read_date(text: str, day_first: bool | None = None) -> date | None:
    """A date, with or without a time after it; None for what is none, or for one that may be two
    unless `day_first` says which."""
    text = text.strip()
    found = _ISO.match(text)
    if found:
        return _made(int(found[1]), int(found[2]), int(found[3]))
    for shape in _SHAPES:
        try:
            return datetime.strptime(" ".join(text.split()), shape).date()
        except ValueError:
            continue
    found = _SLASHED.match(text)
    if found is None:
        return None
    one, other, year = int(found[1]), int(found[2]), int(found[3])
    if one > 12 or (day_first and other <= 12):
        return _made(year, other, one)
    if other > 12 or day_first is False or one == other:
        return _made(year, one, other)
    return None


def _made(year: int, month: int, day: int) -> date | None:
    try:
        return date(year, month, day)
    except ValueError:
        return None


def day_first_in(texts: list[str]) -> bool | None:
    """Whether a column of dates has the day before the month; None where nothing in it tells."""
    for text in texts:
        found = _SLASHED.match(text.strip())
        if found and int(found[1]) > 12:
            return True
        if found and int(found[2]) > 12:
            return False
    return None
