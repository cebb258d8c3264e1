"""The line of weigh-ins: one dot each, the line between them, the weight that is aimed at."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

WIDTH, HEIGHT, LEFT, BOTTOM, TOP = 340.0, 170.0, 40.0, 22.0, 8.0
# The scale shows at least so much, so that what mornings differ by looks like little. [kg]
LEAST_SPAN_KG = 2.0
TICKS = 4


@dataclass(frozen=True, kw_only=True)
class WeightLine:
    """Positions of the drawing. [px]"""

    width: float
    height: float
    left: float
    base: float
    points: list[tuple[float, float, str]]
    path: str
    ticks: list[tuple[float, str]]
    dates: list[tuple[float, str]]
    target_y: float | None


def weight_line(
    weighed: Sequence[tuple[date, float]], target_kg: float | None = None
) -> WeightLine | None:
    """The drawing of weigh-ins, oldest first [kg]; None for fewer than two. A target far off is not
    drawn: it would flatten the line."""
    if len(weighed) < 2:
        return None
    weights = [kg for _on, kg in weighed]
    low, high = min(weights), max(weights)
    if target_kg is not None and low - 3 <= target_kg <= high + 3:
        low, high = min(low, target_kg), max(high, target_kg)
    spare = max(LEAST_SPAN_KG - (high - low), 0.0) / 2 + 0.1
    low, high = low - spare, high + spare
    first, last = weighed[0][0], weighed[-1][0]
    days = max((last - first).days, 1)

    def y(kg: float) -> float:
        return round(TOP + (HEIGHT - TOP - BOTTOM) * (high - kg) / (high - low), 1)

    def x(on: date) -> float:
        return round(LEFT + 6 + (WIDTH - LEFT - 14) * (on - first).days / days, 1)

    points = [(x(on), y(kg), f"{on:%b} {on.day}: {kg:.1f} kg") for on, kg in weighed]
    step = (high - low) / TICKS
    drawn = target_kg is not None and low <= target_kg <= high
    return WeightLine(
        width=WIDTH,
        height=HEIGHT,
        left=LEFT,
        base=HEIGHT - BOTTOM,
        points=points,
        path="M" + "L".join(f"{px} {py}" for px, py, _said in points),
        ticks=[(y(low + step * n), f"{low + step * n:.1f}") for n in range(TICKS + 1)],
        dates=[(x(first), f"{first:%b} {first.day}"), (x(last), f"{last:%b} {last.day}")],
        target_y=y(target_kg) if drawn and target_kg is not None else None,
    )
