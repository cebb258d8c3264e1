"""Whether a weigh-in is what the scale showed: the questions that are asked before one is kept."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from nutrition.follow_up.trend import trend_of
from nutrition.follow_up.weigh_in import KG_PER_LB, Weighed

# A weigh-in that lies off by more than so many standard deviations, and by so much in any case, is
# asked about. [kg] Common practice, no source.
FAR_SD, FAR_KG = 3.5, 1.5
# A body may change by so much a day where nothing else is known of it. [kg/d] Common practice.
CHANGES_KG_A_DAY = 0.15
UNSEEN_SD_KG = 0.8
# A reading that another cause explains lies within so much of what was expected. [kg]
EXPLAINED_KG = 2.0


@dataclass(frozen=True)
class Doubt:
    """Why a weigh-in is asked about, what was expected, and the likelier reading if there is one.
    [kg]"""

    words: str
    expected: float
    likelier: float | None = None


def expected_on(before: Sequence[Weighed], on: date) -> tuple[float, float] | None:
    """What a weigh-in of a day would show by the others, and its standard deviation; None where
    there are none. [kg]"""
    others = [one for one in before if one.on != on]
    if not others:
        return None
    near = min(others, key=lambda one: abs((one.on - on).days))
    trend = trend_of(others)
    if trend is None:
        away = abs((near.on - on).days)
        return near.kg, UNSEEN_SD_KG + CHANGES_KG_A_DAY * away / 3.0
    level, sd = trend.at(on)
    beyond = max((on - trend.last).days, (trend.first - on).days, 0)
    spread = (sd**2 + trend.scatter**2) ** 0.5
    return level, spread + CHANGES_KG_A_DAY * beyond / 3.0


def doubt(before: Sequence[Weighed], new: Weighed) -> Doubt | None:
    """What is asked of a weigh-in, by the others; None where nothing is. Nothing is ever dropped:
    the answer decides."""
    known = expected_on(before, new.on)
    if known is None:
        return None
    expected, sd = known
    off = abs(new.kg - expected)
    if off <= FAR_SD * sd or off <= FAR_KG:
        return None
    likelier, why = _likelier(new.kg, expected)
    by = f"{off:.1f} kg {'over' if new.kg > expected else 'under'} what the others lead to expect"
    words = f"{new.kg:g} kg is {by} ({expected:.1f} kg). {why}"
    return Doubt(words, expected, likelier)


def _likelier(kg: float, expected: float) -> tuple[float | None, str]:
    """Another reading of the same number that fits, and the question."""
    readings = [(kg * KG_PER_LB, "Was it in pounds?")]
    readings += [(kg / 10.0, "Is the decimal point right?"), (kg * 10.0, "Is a digit missing?")]
    readings += [(swapped, "Are two digits swapped?") for swapped in _swapped(kg)]
    fitting = [one for one in readings if abs(one[0] - expected) <= EXPLAINED_KG]
    if fitting:
        nearest = min(fitting, key=lambda one: abs(one[0] - expected))
        return round(nearest[0], 1), f"{nearest[1]} That would be {nearest[0]:.1f} kg."
    return None, "Dressed, another scale, somebody else, or water after an illness?"


def _swapped(kg: float) -> list[float]:
    """The number with two neighboring digits exchanged."""
    text = f"{kg:.1f}"
    whole, tenth = text.split(".")
    digits = list(whole + tenth)
    out = []
    for at in range(len(digits) - 1):
        other = [*digits]
        other[at], other[at + 1] = other[at + 1], other[at]
        out.append(float("".join(other[:-1]) + "." + other[-1]))
    return [one for one in out if one != kg]
