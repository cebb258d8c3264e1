"""How large the letters of the door page may be, so that its days stay on one sheet."""

from __future__ import annotations

import textwrap
from collections.abc import Sequence

from week.door import DoorDay, DoorMeal

# From the largest on. A capital of 15 points is 3.7 mm high: at two meters six minutes of arc,
# where a letter of five is what a healthy eye just reads. [pt]
SIZES = (20, 18, 17, 16, 15)
SMALL, LESSER = 8.5, 11.0
MM_PER_POINT = 0.3528
# A letter of this typeface is so wide, of its size: bold, and plain. Measured.
BOLD_EM, PLAIN_EM = 0.53, 0.45
# A letter sheet across, without its margins; the days, the notes and a lesser meal; what the head
# takes; a cell's padding, across and down. [mm]
PAGE = (265.0, 202.0)
DAY_WIDTH, NOTES_SHARE, LESSER_SHARE = 21.0, 0.16, 0.14
HEAD, PADDING = 11.0, (2.6, 1.5)
LINE, SMALL_LINE = 1.1, 1.12


def letters_for(days: Sequence[DoorDay]) -> int:
    """The largest size [pt] at which the days stay on the sheet; the smallest where none does."""
    for size in SIZES:
        if HEAD + sum(_height(day, size) for day in days) <= PAGE[1]:
            return size
    return SIZES[-1]


def _height(day: DoorDay, size: float) -> float:
    """What a day takes, down the sheet. [mm]"""
    notes = " ".join(["Cook:", *day.cooks, "Thaw overnight:", *day.thaws])
    if not day.meals:
        return _down(size, LINE) + PADDING[1]
    lesser = sum(meal.lesser for meal in day.meals)
    shared = PAGE[0] * (1 - NOTES_SHARE - lesser * LESSER_SHARE) - DAY_WIDTH
    wide = shared / max(len(day.meals) - lesser, 1)
    cells = [
        _cell(meal, PAGE[0] * LESSER_SHARE, LESSER) if meal.lesser else _cell(meal, wide, size)
        for meal in day.meals
    ]
    beside = _lines(notes, PAGE[0] * NOTES_SHARE, SMALL, PLAIN_EM) * _down(SMALL, SMALL_LINE)
    return max(*cells, beside) + PADDING[1]


def _cell(meal: DoorMeal, wide: float, size: float) -> float:
    if meal.main is None:
        return _down(size, LINE)
    small = "; ".join([meal.main.said, *(f"{one.name} {one.said}" for one in meal.beside)])
    packed = ", packed" if meal.packed else ""
    return _lines(meal.main.name, wide, size, BOLD_EM) * _down(size, LINE) + _lines(
        small + packed, wide, SMALL, PLAIN_EM
    ) * _down(SMALL, SMALL_LINE)


def _down(size: float, line: float) -> float:
    return size * MM_PER_POINT * line


def _lines(words: str, wide: float, size: float, em: float) -> int:
    letters = int((wide - PADDING[0]) / (size * MM_PER_POINT * em))
    return max(len(textwrap.wrap(words, max(letters, 1))), 1)
