"""Weigh-ins -> the pace of change."""

from collections.abc import Sequence

import numpy as np

MIN_POINTS = 3


def weekly_change(points: Sequence[tuple[float, float]]) -> float | None:
    """Slope of weight over time by least squares. [kg/week] from (day [d], weight [kg]) pairs; None
    for under three weigh-ins or a single day."""
    if len(points) < MIN_POINTS:
        return None
    days, weights = np.array(points, dtype=float).T
    if np.ptp(days) == 0:
        return None
    return float(np.polyfit(days, weights, 1)[0]) * 7.0
