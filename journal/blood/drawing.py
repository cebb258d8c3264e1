"""Small lines of values over time."""

from __future__ import annotations

from dataclasses import dataclass

from journal.blood.values import Shown

WIDTH, HEIGHT, INSET = 150.0, 34.0, 4.0


@dataclass(frozen=True)
class Spark:
    """A line of the values, the band of the range, and dots. [px]"""

    path: str
    dots: list[tuple[float, float]]
    band: tuple[float, float] | None
    said: str


def spark(shown: Shown) -> Spark | None:
    """The values of a kind over time; None for fewer than two."""
    values = [*shown.before, shown.measured]
    if len(values) < 2:
        return None
    numbers = [one.compared for one in values]
    low, high = shown.measured.range
    inside = [edge for edge in (low, high) if edge is not None]
    bottom, top = min(numbers + inside), max(numbers + inside)
    span = (top - bottom) or 1.0
    first, last = values[0].on, values[-1].on
    days = max((last - first).days, 1)

    def y(value: float) -> float:
        return round(INSET + (HEIGHT - 2 * INSET) * (top - value) / span, 1)

    dots = [
        (round(INSET + (WIDTH - 2 * INSET) * (one.on - first).days / days, 1), y(number))
        for one, number in zip(values, numbers, strict=True)
    ]
    band = None
    if inside:
        upper = y(high) if high is not None else INSET
        lower = y(low) if low is not None else HEIGHT - INSET
        band = (upper, max(lower - upper, 1.0))
    said = "; ".join(f"{one.on:%b} {one.on.day}: {one.in_unit(one.unit)}" for one in values)
    return Spark("M" + "L".join(f"{x} {at}" for x, at in dots), dots, band, said)
