"""Where a day came from, and whether it still is what it was there: asked of the later stages."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from planner.models import Day


@dataclass(frozen=True)
class Origin:
    """What a day was made from, where that is, and whether the day was changed from it."""

    name: str
    url: str
    changed: bool


_ASKED: list[Callable[[Day], Origin | None]] = []


def says_origin(ask: Callable[[Day], Origin | None]) -> None:
    """A later stage registers when it starts."""
    if ask not in _ASKED:
        _ASKED.append(ask)


def origin_of(day: Day) -> Origin | None:
    """Where a day came from; None for one that was planned by itself."""
    return next((found for ask in _ASKED if (found := ask(day)) is not None), None)
