"""The problem with portions of any size: its answer, rounded, is a good place to begin, and no
portions can miss less than it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from nutrition.composition.profile import Vector
from nutrition.portions.local_search import score, search
from nutrition.portions.problem import Grid, npt_ints
from nutrition.portions.work import Work

# A part is rounded up with the chance of its fraction, until so many roundings in a row bettered
# nothing.
SEED, MOST_IN_VAIN = 0, 12
# What the linear solver's own tolerance may hide of the first sum.
HELD = 1e-7


@dataclass(frozen=True)
class Relaxed:
    """Steps that need not be whole, and the sum (2) below which no portions come."""

    steps: Vector
    violation: float


def relaxed(grid: Grid) -> Relaxed | None:
    """The sum (2), and then (3), made smallest without whole steps, by OR-Tools' linear solver.
    None where the limits collide."""
    from ortools.linear_solver import pywraplp

    solver: Any = pywraplp.Solver.CreateSolver("GLOP")
    far = solver.infinity()
    steps = [solver.NumVar(0, int(most), "") for most in grid.steps]
    misses = [solver.NumVar(0, far, "") for _ in grid.soft]
    distances = [solver.NumVar(0, far, "") for _ in grid.soft]

    def constrain(low: float, high: float, each: Vector) -> Any:
        row = solver.Constraint(float(low), float(high))
        for step, value in zip(steps, each, strict=True):
            row.SetCoefficient(step, float(value))
        return row

    for limit in grid.rows:
        constrain(-far, limit.most, limit.per_step)
    for i in range(len(grid.soft)):
        for bound, sign, over in (
            (grid.low[i], 1.0, misses[i]),
            (grid.high[i], -1.0, misses[i]),
            (grid.aim[i], 1.0, distances[i]),
            (grid.aim[i], -1.0, distances[i]),
        ):
            if not np.isnan(bound):
                constrain(
                    sign * (bound - grid.start[i]), far, sign * grid.per_step[i]
                ).SetCoefficient(over, 1.0)
    objective = solver.Objective()
    objective.SetMinimization()
    for miss, weight in zip(misses, grid.weight, strict=True):
        objective.SetCoefficient(miss, float(weight))
    if solver.Solve() != pywraplp.Solver.OPTIMAL:
        return None
    least = float(objective.Value())
    first = np.array([step.solution_value() for step in steps])
    held = solver.Constraint(-far, least + HELD)
    for miss, distance, weight, counted in zip(
        misses, distances, grid.weight, grid.far, strict=True
    ):
        held.SetCoefficient(miss, float(weight))
        objective.SetCoefficient(miss, 0.0)
        objective.SetCoefficient(distance, float(counted))
    if solver.Solve() != pywraplp.Solver.OPTIMAL:
        return Relaxed(first, least)
    return Relaxed(np.array([step.solution_value() for step in steps]), least)


def rounded(grid: Grid, found: Relaxed, work: Work) -> npt_ints:
    """The best whole steps reached from the relaxed ones within some work: nearest first, then by
    chance (seed 0)."""
    rng = np.random.default_rng(SEED)
    whole = np.floor(found.steps + 1e-9)
    fraction = found.steps - whole
    best: npt_ints | None = None
    in_vain = 0
    while best is None or (work.left > 0 and not work.stopped and in_vain < MOST_IN_VAIN):
        up = fraction > 0.5 if best is None else rng.random(len(whole)) < fraction
        begin: npt_ints = np.clip(whole + up, 0, grid.steps).astype(np.int64)
        reached = search(grid, work, 1, begin)
        better = best is None or score(grid, reached) < score(grid, best)
        best, in_vain = (reached, 0) if better or best is None else (best, in_vain + 1)
    return best
