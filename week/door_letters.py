"""How large the letters of the door page may be, so that its days stay on one sheet."""

from __future__ import annotations

from collections.abc import Sequence

from paper.letter_widths import BOLD, MM_PER_POINT, lines_of
from week.door import DoorDay, DoorMeal

# What is eaten, the small print, what is between meals, from the largest on. A capital of 15 points
# is 3.7 mm high: at two meters six minutes of arc, where a letter of five is what a healthy eye
# just reads. The small print is read from near, and gives way before a day goes to another sheet.
# [pt]
SIZES = tuple((size, 8.5, 11.0) for size in (20, 18, 17, 16, 15))
TIGHT = (15, 7.5, 9.5)
# The name of a day, which "Mon 30" leaves room for. [pt]
DAY = 15.0
# A sheet across, without its margins: as wide as letter paper and as high as A4, so that either
# holds it; the days, the notes and a lesser meal; what the head, the names of the meals and the
# caution take, and that something is to be asked about first; a cell's padding and line, across and
# down. [mm]
PAGE = (265.0, 196.0)
DAY_WIDTH, NOTES_SHARE, LESSER_SHARE = 22.0, 0.16, 0.14
HEAD, ASKED, PADDING = 22.0, 11.0, (2.7, 1.5)
LINE, SMALL_LINE = 1.1, 1.12


def letters_for(days: Sequence[DoorDay], *, asked: bool = False) -> str:
    """The largest letters at which the days stay on the sheet, by the name that the page has for
    them; the smallest where none does. `asked`: it says to ask first."""
    head = HEAD + (ASKED if asked else 0.0)
    for sizes in SIZES:
        if head + sum(_height(day, sizes) for day in days) <= PAGE[1]:
            return f"door-{sizes[0]}"
    return f"door-{TIGHT[0]} door-tight"


def _height(day: DoorDay, sizes: tuple[int, float, float]) -> float:
    """What a day takes, down the sheet. [mm]"""
    size, small, between = sizes
    if not day.meals:
        return _down(DAY, LINE) + PADDING[1]
    lesser = sum(meal.lesser for meal in day.meals)
    shared = PAGE[0] * (1 - NOTES_SHARE - lesser * LESSER_SHARE) - DAY_WIDTH
    wide = shared / max(len(day.meals) - lesser, 1)
    cells = [
        _cell(meal, PAGE[0] * LESSER_SHARE, between, small)
        if meal.lesser
        else _cell(meal, wide, size, small)
        for meal in day.meals
    ]
    return max(*cells, _notes(day, small)) + PADDING[1]


def _notes(day: DoorDay, small: float) -> float:
    tasks = (("Cook:", day.cooks), ("Thaw overnight:", day.thaws))
    said = " ".join(f"{task} {', '.join(names)}." for task, names in tasks if names)
    wide = PAGE[0] * NOTES_SHARE - PADDING[0]
    return lines_of(said, wide, small) * _down(small, SMALL_LINE)


def _cell(meal: DoorMeal, wide: float, size: float, small: float) -> float:
    if meal.main is None:
        return _down(size, LINE)
    wide -= PADDING[0]
    said = "; ".join([meal.main.said, *(f"{one.name} {one.said}" for one in meal.beside)])
    packed = ", packed" if meal.packed else ""
    return lines_of(meal.main.name, wide, size, BOLD) * _down(size, LINE) + lines_of(
        said + packed, wide, small
    ) * _down(small, SMALL_LINE)


def _down(size: float, line: float) -> float:
    return size * MM_PER_POINT * line
