"""Where the weight is asked to be on each day: the corridor of a pace, which bends near the goal,
and that of usual guidance; and where it is heading, with its spread."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from nutrition.follow_up.trend import Z95, Trend
from nutrition.targets.body import least_weight
from nutrition.targets.energy_plan import fastest_loss, held_because
from nutrition.targets.person import Person
from nutrition.targets.schools import GENERAL_PACE, USUAL_LOSS, School
from nutrition.targets.weight_forecast import HALF_LIFE_DAYS

# A corridor is a fifth of the pace to either side. Common practice, no source.
TO_EITHER_SIDE = 0.2
AHEAD_DAYS = 56
# Usual guidance of gaining. [kg/week] Common practice, no source.
USUAL_GAIN = (0.1, 0.5)
# What a pace may change by, by itself, within as many weeks as are forecast. [kg/week] Common
# practice, no source.
PACE_DRIFT = 0.1


@dataclass(frozen=True)
class Corridor:
    """Least and most weight asked for on some days. [kg] `says` whose it is and how fast."""

    says: str
    days: tuple[date, ...]
    low: tuple[float, ...]
    high: tuple[float, ...]

    def at(self, on: date) -> tuple[float, float]:
        """The least and the most of a day. [kg]"""
        place = min(max((on - self.days[0]).days, 0), len(self.days) - 1)
        return self.low[place], self.high[place]


@dataclass(frozen=True, kw_only=True)
class Heading:
    """The weight ahead: what is expected of each day, and the range that holds it in 19 of 20
    cases. [kg]"""

    days: tuple[date, ...]
    kg: tuple[float, ...]
    low: tuple[float, ...]
    high: tuple[float, ...]
    ends_at: float | None


def walk(
    start_kg: float, days: int, goal_kg: float | None, pace: Callable[[float | None], float]
) -> list[float]:
    """The weight day by day at a pace that may depend on how far the goal is. [kg] `pace` takes
    what is left to go [kg] or None, and gives the signed change [kg/week]; nothing goes past the
    goal."""
    out = [start_kg]
    for _day in range(days):
        now = out[-1]
        left = None if goal_kg is None else abs(now - goal_kg)
        step = pace(left) / 7.0
        after = now + step
        if goal_kg is not None and (now - goal_kg) * (after - goal_kg) <= 0 and step:
            after = goal_kg
        out.append(after)
    return out


def asked_pace(person: Person, school: School | None) -> Callable[[float | None], float] | None:
    """The signed pace that is asked for, by what is left to go [kg]; never faster than is planned
    without an order. None where no change of weight is. [kg/week]"""
    if person.goal == "hold" or person.pregnant or held_because(person):
        return None
    fastest, _why = fastest_loss(person)
    sign = -1.0 if person.goal == "lose" else 1.0

    def pace(left: float | None) -> float:
        if person.pace_kg_per_week is not None:
            own = person.pace_kg_per_week
        elif school is not None:
            own = school.pace.of(person.goal, left)
        else:
            own = GENERAL_PACE[person.goal]
        return sign * (min(own, fastest) if person.goal == "lose" else own)

    return pace


def _goal_of(person: Person) -> float | None:
    if person.goal == "lose":
        least = least_weight(person)
        return max(least, person.target_weight_kg or least)
    return person.target_weight_kg


def _is_there(person: Person, kg: float, goal: float | None) -> bool:
    """Whether a weight is at the goal or beyond it, or at the least that is safe: nothing more is
    asked for. [kg]"""
    if goal is None:
        return False
    return kg <= goal if person.goal == "lose" else kg >= goal


def asked_corridor(
    person: Person, school: School | None, start: date, start_kg: float, days: int
) -> Corridor | None:
    """The corridor of the pace in force from a day's weight on; None where no change is planned, or
    none is left to make. [kg]"""
    pace = asked_pace(person, school)
    if pace is None:
        return None
    goal = _goal_of(person)
    if _is_there(person, start_kg, goal):
        return None
    left = None if goal is None else abs(start_kg - goal)
    slow = walk(start_kg, days, goal, lambda left: pace(left) * (1.0 - TO_EITHER_SIDE))
    fast = walk(start_kg, days, goal, lambda left: pace(left) * (1.0 + TO_EITHER_SIDE))
    if person.pace_kg_per_week is not None:
        whose = "the pace that was agreed on"
    else:
        whose = school.name if school is not None else "the usual pace"
    words = f"{whose}: {abs(pace(left)):.2g} kg a week"
    near = school.pace.near_kg if school is not None and person.pace_kg_per_week is None else None
    if near is not None and person.goal == "lose" and person.target_weight_kg is not None:
        words += f", {abs(pace(0.0)):.2g} kg within {near:g} kg of the goal"
    own = person.pace_kg_per_week or (school.pace.lose if school is not None else 0.0)
    fastest, why = fastest_loss(person)
    if person.goal == "lose" and own > fastest:
        words += f" (asked were {own:.2g} kg; held at {why})"
    return _between(words, start, slow, fast)


def usual_corridor(person: Person, start: date, start_kg: float, days: int) -> Corridor | None:
    """The corridor of usual guidance: half a pound to two pounds a week, from memory. [kg]"""
    if asked_pace(person, None) is None:
        return None
    low, high = USUAL_LOSS if person.goal == "lose" else USUAL_GAIN
    sign = -1.0 if person.goal == "lose" else 1.0
    goal = _goal_of(person)
    if _is_there(person, start_kg, goal):
        return None
    slow, fast = (
        walk(start_kg, days, goal, lambda _left, pace=pace: sign * pace)  # type: ignore[misc]
        for pace in (low, high)
    )
    return _between(f"usual guidance: {low:g} to {high:g} kg a week", start, slow, fast)


def _between(says: str, start: date, one: Sequence[float], other: Sequence[float]) -> Corridor:
    days = tuple(start + timedelta(days=at) for at in range(len(one)))
    low = tuple(min(pair) for pair in zip(one, other, strict=True))
    high = tuple(max(pair) for pair in zip(one, other, strict=True))
    return Corridor(says, days, low, high)


def heading(trend: Trend, person: Person, days: int = AHEAD_DAYS) -> Heading | None:
    """Where the trend leads if nothing changes: the pace of four weeks, slowing as a lighter body
    needs less; nothing is forecast beyond the goal, or beyond what is safe. None without a pace, or
    where a loss is beyond it already.

    References: Hall et al., Lancet 378:826 (2011), for how a pace slows: half in a year.
    """
    pace = trend.lately
    if pace is None or person.pregnant:
        return None
    tau = HALF_LIFE_DAYS / math.log(2.0)
    now, sd = trend.at(trend.last)
    if pace.kg_per_week < 0 and now <= least_weight(person):
        # nothing is forecast beyond what is safe
        return None
    sd_pace = pace.half / Z95
    losing = pace.kg_per_week < 0
    ends = [least_weight(person)] if losing else []
    goal = person.target_weight_kg
    if goal is not None and (goal < now) == losing and abs(goal - now) > 0.1:
        ends.append(goal)
    end = (max(ends) if losing else min(ends)) if ends else None
    mean, low, high = [], [], []
    for day in range(days + 1):
        way = tau * (1.0 - math.exp(-day / tau)) / 7.0
        wide = Z95 * math.hypot(sd, way * math.hypot(sd_pace, PACE_DRIFT * day / days))
        there = now + pace.kg_per_week * way
        if end is not None:
            there = max(there, end) if losing else min(there, end)
        mean.append(there)
        low.append(max(there - wide, least_weight(person) if losing else 0.0))
        high.append(there + wide)
    dates = tuple(trend.last + timedelta(days=at) for at in range(days + 1))
    return Heading(days=dates, kg=tuple(mean), low=tuple(low), high=tuple(high), ends_at=end)
