"""The target track: a short scale with the allowed band, a notch at the aim, a marker and its
whisker."""

from dataclasses import dataclass

WIDTH = 240.0
INSET = 6.0


@dataclass(frozen=True, kw_only=True)
class Track:
    """Positions along the track. [px]"""

    band_x: float
    band_width: float
    aim_x: float
    marker_x: float | None
    whisker_x: float
    whisker_width: float


def track(
    low: float | None,
    aim: float,
    high: float | None,
    value: float | None,
    value_low: float = 0.0,
    value_high: float = 0.0,
) -> Track:
    """Lay out one target. The scale runs from zero, or from under a band below zero, to a little
    past the band and the aim."""
    bottom = min(low if low is not None else 0.0, aim, 0.0) * 1.1
    top = max(high if high is not None else aim * 1.5, aim * 1.25, -bottom / 2, 1e-9) * 1.2
    span = WIDTH - 2 * INSET

    def x(amount: float) -> float:
        return INSET + span * min(max((amount - bottom) / (top - bottom), 0.0), 1.0)

    left = x(low) if low is not None else INSET
    right = x(high) if high is not None else WIDTH - INSET
    return Track(
        band_x=round(left, 1),
        band_width=round(right - left, 1),
        aim_x=round(x(aim), 1),
        marker_x=None if value is None else round(x(value), 1),
        whisker_x=round(x(value_low), 1),
        whisker_width=round(max(x(value_high) - x(value_low), 0.0), 1),
    )
