"""Where the ticks of a scale stand: on round numbers, and on days that a calendar begins with."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date, timedelta
from math import ceil, floor, log10

# A step that the eye counts by is one of these times a power of ten. Heckbert, "Nice numbers for
# graph labels", in Glassner (ed.), Graphics Gems (1990), p. 61; from memory.
STEPS = (1.0, 2.0, 5.0, 10.0)
# Ticks on every so many years, months or days; days count anew from the first of each month.
YEARS, MONTHS, DAYS = (1, 2, 5, 10, 20), (1, 2, 3, 4, 6), (1, 2, 4, 7, 14)
# A scale of fewer years, or months, is told by what is smaller.
LEAST_TICKS = 3


def round_numbers(low: float, high: float, most: int) -> tuple[list[float], float]:
    """The round numbers within a span that take at most so many steps, and the step."""
    raw = (high - low) / most
    power = 10.0 ** floor(log10(raw))
    step = next(power * one for one in STEPS if power * one >= raw * (1 - 1e-9))
    first, last = ceil(low / step - 1e-9), floor(high / step + 1e-9)
    return [at * step for at in range(first, last + 1)], step


def calendar_days(first: date, last: date, most: int) -> list[tuple[date, str]]:
    """At most about so many days within a span, each with what a calendar calls it: "2026", "Nov"
    or "Nov 8"."""
    months = (last.year - first.year) * 12 + last.month - first.month - (last.day < first.day)
    if months >= 12 * LEAST_TICKS:
        every = _every(YEARS, months // 12, most)
        years = range(first.year, last.year + 1)
        found = [(date(year, 1, 1), f"{year}") for year in years if year % every == 0]
    elif months >= LEAST_TICKS:
        every = _every(MONTHS, months, most)
        found = [(on, f"{on:%b}") for on in _months(first, last) if (on.month - 1) % every == 0]
    else:
        every = _every(DAYS, (last - first).days, most)
        days = (first + timedelta(days=at) for at in range((last - first).days + 1))
        found = [(on, f"{on:%b} {on.day}") for on in days if _counts(on.day, every)]
    return [(on, said) for on, said in found if first <= on <= last]


def _every(steps: tuple[int, ...], span: int, most: int) -> int:
    return next((step for step in steps if span <= step * (most - 1)), steps[-1])


def _months(first: date, last: date) -> Iterator[date]:
    for at in range(first.year * 12 + first.month - 1, last.year * 12 + last.month):
        yield date(at // 12, at % 12 + 1, 1)


def _counts(day: int, every: int) -> bool:
    """Whether a day of the month has a tick: by weeks and fortnights there is none after the 22nd,
    which would stand too near to the first."""
    return (day - 1) % every == 0 and (every < 7 or day <= 22)
