"""Where a day came from, and whether it still is what it was there: asked of the later stages."""

from __future__ import annotations

from dataclasses import dataclass

from planner.models import Day
from webkit.extension_points import Question


@dataclass(frozen=True)
class Origin:
    """What a day was made from, where that is, and whether the day was changed from it."""

    name: str
    url: str
    changed: bool


# Where did a day come from? None where it did not come from there.
ORIGIN: Question[[Day], Origin | None] = Question()


def origin_of(day: Day) -> Origin | None:
    """Where a day came from; None for one that was planned by itself."""
    return ORIGIN.first(day)
