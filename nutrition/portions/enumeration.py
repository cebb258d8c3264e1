"""Portions judged by the sums as they are defined: all ways to portion where there are few, and
steps bettered where there are many.

A calorie density that is wished for is a ratio, which no linear solver takes exactly.
"""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt

from nutrition.composition.amounts import DENSITY
from nutrition.composition.portion import Portion
from nutrition.composition.profile import Vector
from nutrition.portions.local_search import moves
from nutrition.portions.problem import Grid, Problem, based_on, npt_ints
from nutrition.targets.aim import SLACK

# So many ways to portion are all looked at. [1]
COUNTED_OUT = 60_000


def is_wished(problem: Problem) -> bool:
    """Whether a calorie density counts in the sums (2) and (3)."""
    return any(aim.key == DENSITY and aim.weight > 0 for aim in problem.aims)


def can_count_out(grid: Grid) -> bool:
    """Whether there are few enough ways to portion to look at all of them."""
    return math.prod(int(most) + 1 for most in grid.steps) <= COUNTED_OUT


def counted_out(grid: Grid) -> npt_ints | None:
    """The steps that come first of all there are, the density as the ratio it is. None where none
    keep the hard limits."""
    choices = [int(most) + 1 for most in grid.steps]
    ways = np.indices(choices).reshape(len(choices), math.prod(choices)).astype(np.int64)
    return _first(grid, ways)


def bettered(grid: Grid, steps: npt_ints, rounds: int) -> npt_ints:
    """Steps bettered one and two at a time, the density as the ratio it is, as long as something
    gets better, in so many rounds at most."""
    around = moves(len(grid.free), np.random.default_rng(0))
    best = steps
    for _ in range(rounds):
        ways = np.concatenate([best[None, :], best + around]).T
        ways = ways[:, ((ways >= 0) & (ways <= grid.steps[:, None])).all(axis=0)]
        found = _first(grid, ways)
        if found is None or (found == best).all():
            break
        best = found
    return best


def _first(grid: Grid, ways: npt.NDArray[np.int64]) -> npt_ints | None:
    """Which of some ways to portion (one a column) keeps the hard limits and comes first; None
    where none keeps them."""
    for row in grid.rows:
        ways = ways[:, row.per_step @ ways <= row.most + SLACK]
    if not ways.shape[1]:
        return None
    portions = grid.least[:, None] + ways * grid.step_g[:, None]
    is_food = np.array([part.is_food for part in grid.free])
    grams = (
        grid.problem.base_grams
        + sum(part.is_food * portion for part, portion in grid.fixed)
        + (is_food[:, None] * portions).sum(axis=0)
    )
    violation, deviation = np.zeros(ways.shape[1]), np.zeros(ways.shape[1])
    for aim in grid.problem.aims:
        if aim.weight <= 0:
            continue
        total = _totals(grid, aim.key, ways)
        if aim.key == DENSITY:
            total = np.divide(total, grams, out=np.zeros_like(total), where=grams > 0)
        most = (
            total + _totals(grid, aim.key, ways, unknown=True)
            if grid.problem.is_unknown(aim)
            else total
        )
        for missed in (
            total * 0.0 if aim.low is None else aim.low - total,
            total * 0.0 if aim.high is None else most - aim.high,
        ):
            violation += aim.weight * np.where(missed > SLACK * aim.per, missed / aim.per, 0.0)
        deviation += aim.weight * np.abs(total - aim.aim) / aim.per
    moved = (np.abs(portions - grid.own[:, None]) / grid.step_g[:, None]).sum(axis=0)
    # what only the last digits tell apart is the same
    first = int(np.lexsort((moved, np.round(deviation, 9), np.round(violation, 9)))[0])
    best: npt_ints = ways[:, first]
    return best


def _totals(grid: Grid, key: str, ways: npt.NDArray[np.int64], unknown: bool = False) -> Vector:
    """What each way to portion brings of a key; or, of what is unknown of it, at most."""

    def each(part: Portion) -> float:
        return part.unknown.get(key, 0.0) if unknown else part.toward(key)

    start = 0.0 if unknown else based_on(grid.problem, key)
    start += sum(each(part) * portion for part, portion in grid.fixed) + sum(
        each(part) * part.limits.least for part in grid.free
    )
    return np.asarray(
        start + np.array([each(part) * part.limits.step for part in grid.free]) @ ways
    )
