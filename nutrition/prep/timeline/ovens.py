"""How long a tray takes at another heat than the one that was written."""

from __future__ import annotations

import math

# A tray takes the longer the nearer the oven is to this: at 180 in place of 200 degrees thirty
# minutes become forty. Common practice, no source. [degrees Celsius]
NO_HEAT_C = 120.0
# Below this another heat is not reckoned with. Common practice, no source. [degrees Celsius]
LEAST_C = 150


def minutes_at(minutes: float, written: int, celsius: int) -> int:
    """How long a tray takes at a heat, of which so many minutes at another were written. [min],
    [degrees Celsius] Raises ValueError for a heat at which nothing bakes."""
    if celsius == written:
        return math.ceil(minutes)
    if min(celsius, written) < LEAST_C:
        raise ValueError(f"nothing is reckoned below {LEAST_C} degrees Celsius")
    return math.ceil(minutes * (written - NO_HEAT_C) / (celsius - NO_HEAT_C) - 1e-9)


def choices(minutes: float, written: int, spread: int) -> list[tuple[int, int]]:
    """The heats that a tray can be baked at, the written one first, each with its minutes. [degrees
    Celsius], [min]"""
    others = (
        range(written - spread, written + spread + 1, 10) if written - spread >= LEAST_C else ()
    )
    heats = [written, *(one for one in others if one != written and one <= 260)]
    return [(one, minutes_at(minutes, written, one)) for one in heats]
