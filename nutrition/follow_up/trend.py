"""Weigh-ins -> the trend of weight with its own uncertainty, and the pace.

A weigh-in is taken as trend + water + what the morning adds. The trend is a straight line whose
slope wanders (an integrated Wiener process: its best estimate is a cubic smoothing spline, and the
spline's band is Wahba's); water is a correlated excursion that fades within days; what the morning
adds has the heavy tails of Student's t, so that a single odd morning is hardly followed. How large
each of the three is, is not chosen but averaged over, each choice by how well it explains the
weigh-ins.

References
----------
Wahba, J R Stat Soc B 45:133 (1983): the smoothing spline as a Bayesian estimate, and its band.
Lange, Little and Taylor, J Am Stat Assoc 84:881 (1989): robust estimates by Student's t.
Rasmussen and Williams, Gaussian Processes for Machine Learning (2006), ch. 2 and 6.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from functools import lru_cache

import numpy as np
import numpy.typing as npt

from nutrition.follow_up.weigh_in import Weighed

Array = npt.NDArray[np.float64]

MIN_POINTS = 3
# The trend is that of the last half year, and of so many weigh-ins at most: what is older says
# nothing of now. [d]
LOOKED_BACK_DAYS, MOST_POINTS = 182, 200
# Water comes and goes within days. [d] Common practice, no source.
WATER_DAYS = 6.0
# What is averaged over: the morning's own part and the water's [kg], how the slope wanders
# [kg/d^1.5]. Mornings of one person differ by about half a kilogram: common practice, no source.
MORNING_KG = (0.12, 0.25, 0.45, 0.8)
WATER_KG = (0.25, 0.5, 0.9)
WANDERS = (0.0008, 0.003, 0.008, 0.02)
# What is thought of the slope before any weigh-in: a kilogram and a half a week. [kg/d]
SLOPE_KG = 0.2
# How surely mornings are thought to differ by about that, before any of them: in logarithms.
MORNING_GUESS, MORNING_GUESS_SD, WATER_GUESS = 0.4, 0.6, 0.6
DEGREES, ROUNDS = 4.0, 2
# A choice that is less likely than this is left out of the average. [share]
COUNTS = 0.005
# 95 % of a normal distribution lie within so many standard deviations.
Z95 = 1.96


@dataclass(frozen=True)
class Pace:
    """Change of weight with the range that holds it in 19 of 20 cases. [kg/week], over `days`
    [d]."""

    kg_per_week: float
    low: float
    high: float
    days: int

    @property
    def half(self) -> float:
        """Half the width of the range. [kg/week]"""
        return (self.high - self.low) / 2.0


@dataclass(frozen=True, kw_only=True)
class Trend:
    """The trend on each day from `first` on: its `level` and how sure it is, `sd`. [kg]

    `covariance` is of the days with each other [kg^2]; `odd` are the days whose weigh-in the
    trend hardly follows; `scatter` is what a single weigh-in lies off it, by one standard
    deviation. [kg]
    """

    first: date
    level: Array
    covariance: Array
    scatter: float
    odd: tuple[date, ...]

    @property
    def last(self) -> date:
        return self.first + timedelta(days=len(self.level) - 1)

    @property
    def sd(self) -> Array:
        return np.sqrt(np.maximum(np.diag(self.covariance), 0.0))

    @property
    def now(self) -> float:
        """The trend's weight on the last day. [kg]"""
        return float(self.level[-1])

    def at(self, on: date) -> tuple[float, float]:
        """The trend on a day of it and its standard deviation. [kg]"""
        place = min(max((on - self.first).days, 0), len(self.level) - 1)
        return float(self.level[place]), float(self.sd[place])

    def pace(self, days: int) -> Pace | None:
        """The pace over the last `days`; None where the trend is shorter than three quarters of
        them."""
        there = len(self.level) - 1
        if there < 0.75 * days or there < 1:
            return None
        over = min(days, there)
        return self._between(there - over, there, days)

    @property
    def lately(self) -> Pace | None:
        """The pace of the last four weeks, or of two where there are no four."""
        return self.pace(28) or self.pace(14)

    def pace_between(self, start: date, end: date) -> Pace | None:
        """The pace between two days of the trend; None for less than a week."""
        one = max((start - self.first).days, 0)
        other = min((end - self.first).days, len(self.level) - 1)
        return self._between(one, other, other - one) if other - one >= 7 else None

    def _between(self, one: int, other: int, days: int) -> Pace:
        cov, weeks = self.covariance, (other - one) / 7.0
        change = float(self.level[other] - self.level[one])
        variance = float(cov[one, one] + cov[other, other] - 2.0 * cov[one, other])
        sd = math.sqrt(max(variance, 0.0))
        return Pace(change / weeks, (change - Z95 * sd) / weeks, (change + Z95 * sd) / weeks, days)


def _wander(one: Array, other: Array) -> Array:
    """Covariance of an integrated Wiener process of unit intensity, from the first day on. [d]"""
    low = np.minimum.outer(one, other)
    high = np.maximum.outer(one, other)
    return np.asarray(low**2 * (high / 2.0 - low / 6.0))


def _line(one: Array, other: Array) -> Array:
    """Covariance of a straight line of which almost nothing is known beforehand."""
    return np.asarray(100.0 + SLOPE_KG**2 * np.outer(one, other))


@dataclass(frozen=True)
class _Fit:
    """One choice of sizes: how well it explains, and what follows from it."""

    score: float
    choice: tuple[float, float, float]


def _grid() -> list[tuple[float, float, float]]:
    return [
        (morning, water, wander)
        for morning in MORNING_KG
        for water in WATER_KG
        for wander in WANDERS
    ]


def trend_of(weighed: Sequence[Weighed]) -> Trend | None:
    """The trend of some weigh-ins, in any order; None for fewer than three, or of fewer than two
    days."""
    rows = sorted(weighed, key=lambda one: one.on)
    if rows:
        rows = [one for one in rows if (rows[-1].on - one.on).days <= LOOKED_BACK_DAYS]
    rows = rows[-MOST_POINTS:]
    if len(rows) < MIN_POINTS or rows[0].on == rows[-1].on:
        return None
    return _kept(tuple((one.on, one.kg) for one in rows))


@lru_cache(maxsize=256)
def _kept(rows: tuple[tuple[date, float], ...]) -> Trend:
    """The same weigh-ins have the same trend: a page asks for it more than once."""
    first = rows[0][0]
    at = np.array([float((on - first).days) for on, _kg in rows])
    kg = np.array([kg for _on, kg in rows])
    middle = float(np.median(kg))
    weights = np.ones(len(rows))
    parts = _line(at, at), np.exp(-np.abs(np.subtract.outer(at, at)) / WATER_DAYS), _wander(at, at)
    best = _fits(parts, kg - middle, weights)[0].choice
    for _round in range(ROUNDS):
        weights = _weights(parts, kg - middle, weights, best)
        best = max(_fits(parts, kg - middle, weights), key=lambda one: one.score).choice
    fits = _fits(parts, kg - middle, weights)
    return _averaged(at, kg - middle, middle, weights, parts, fits, first)


_Parts = tuple[Array, Array, Array]


def _covariance(parts: _Parts, weights: Array, choice: tuple[float, float, float]) -> Array:
    line, water, wander = parts
    morning, water_kg, wanders = choice
    return np.asarray(
        line + water_kg**2 * water + wanders**2 * wander + np.diag(morning**2 / weights)
    )


def _fits(parts: _Parts, kg: Array, weights: Array) -> list[_Fit]:
    """Every choice with the logarithm of how likely it makes the weigh-ins."""
    out = []
    for choice in _grid():
        lower = np.linalg.cholesky(_covariance(parts, weights, choice))
        half = np.linalg.solve(lower, kg)
        guess = ((math.log(choice[0]) - math.log(MORNING_GUESS)) / MORNING_GUESS_SD) ** 2 / 2.0
        guess += (choice[1] / WATER_GUESS) ** 2 / 8.0
        score = -0.5 * float(half @ half) - float(np.log(np.diag(lower)).sum()) - guess
        out.append(_Fit(score, choice))
    return out


def _weights(parts: _Parts, kg: Array, weights: Array, choice: tuple[float, float, float]) -> Array:
    """What each weigh-in counts, by how far it lies off what the others say."""
    covariance = _covariance(parts, weights, choice)
    noise = choice[0] ** 2 / weights
    inverse = np.linalg.inv(covariance)
    # what is left of each, and how sure that is
    off = noise * (inverse @ kg)
    spread = noise - noise**2 * np.diag(inverse)
    square = (off**2 + spread) / choice[0] ** 2
    return np.asarray((DEGREES + 1.0) / (DEGREES + square))


def _averaged(
    at: Array,
    kg: Array,
    middle: float,
    weights: Array,
    parts: _Parts,
    fits: Sequence[_Fit],
    first: date,
) -> Trend:
    days = np.arange(int(at[-1]) + 1, dtype=np.float64)
    line, wander = (_line(days, at), _line(days, days)), (_wander(days, at), _wander(days, days))
    best = max(one.score for one in fits)
    shares = np.array([math.exp(one.score - best) for one in fits])
    shares /= shares.sum()
    mean, second = np.zeros(len(days)), np.zeros((len(days), len(days)))
    scatter2 = 0.0
    for share, fit in zip(shares, fits, strict=True):
        if share < COUNTS:
            continue
        morning, water, wanders = fit.choice
        across = line[0] + wanders**2 * wander[0]
        own = line[1] + wanders**2 * wander[1]
        solved = np.linalg.solve(_covariance(parts, weights, fit.choice), np.c_[kg, across.T])
        here = across @ solved[:, 0]
        mean += share * here
        second += share * (own - across @ solved[:, 1:] + np.outer(here, here))
        scatter2 += share * (morning**2 * DEGREES / (DEGREES - 2.0) + water**2)
    total = shares[shares >= COUNTS].sum()
    mean, second, scatter2 = mean / total, second / total, scatter2 / total
    off = np.abs(kg - mean[at.astype(int)])
    far = np.flatnonzero((weights < 0.35) & (off > 1.0))
    return Trend(
        first=first,
        level=mean + middle,
        covariance=second - np.outer(mean, mean),
        scatter=math.sqrt(scatter2),
        odd=tuple(first + timedelta(days=int(at[i])) for i in far),
    )
