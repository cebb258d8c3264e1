"""Finding the portions: a quick search for good ones, then OR-Tools CP-SAT to better them and to
prove that nothing is better."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import TYPE_CHECKING, Any

import numpy as np

from nutrition.portions.enumeration import bettered, can_count_out, counted_out, is_wished
from nutrition.portions.local_search import score, search
from nutrition.portions.problem import Grid, Problem, at_most, npt_ints, sums, totals
from nutrition.portions.relaxation import relaxed, rounded
from nutrition.portions.work import Work

if TYPE_CHECKING:
    from ortools.sat.python import cp_model

# Whole numbers for the solver: so many to one aim.
SCALE = 10_000_000
# Rounding of the whole numbers that a proved sum may hide; the portions themselves are judged
# unrounded.
ROUNDING = 1e-6
# So much of its work done, the solver did not end by the clock.
NEARLY_ALL = 0.98
BOWL_PARTS = 14
BOWL_WORK, DAY_WORK = 0.11, 0.9
# What is spent on coming near to limits that collide. [s, as work is counted]
NEAREST_WORK = 0.2


@dataclass(frozen=True, kw_only=True)
class Answer:
    """Portions [g], the sums (2) and (3), the totals by key, as known and at most, and whether it
    is proved that nothing is better.

    `status`: "optimal" (proved), "feasible" (the best found within the work it may take),
    "infeasible" (the hard limits cannot all be kept; the portions then come nearest to keeping
    them). `stopped`: the clock cut it short, so that asked again it may come out otherwise.
    """

    status: str
    portions: dict[str, float]
    totals: dict[str, float]
    violation: float
    deviation: float
    change: float
    at_most: dict[str, float]
    stopped: bool = False


def work_for(problem: Problem) -> float:
    """The work that an answer may take: a bowl is answered while one looks, a day in under a
    second. [s, as work is counted]"""
    return BOWL_WORK if sum(part.choices > 0 for part in problem.parts) <= BOWL_PARTS else DAY_WORK


class Model:
    """The problem for CP-SAT. Totals over their aims are whole numbers; misses and distances are
    variables over them."""

    def __init__(self, grid: Grid, without: frozenset[str] = frozenset()) -> None:
        from ortools.sat.python import cp_model

        self.cp, self.grid = cp_model, grid
        self.model: Any = cp_model.CpModel()
        self.steps = [self.model.new_int_var(0, int(most), "") for most in grid.steps]
        for row in grid.rows:
            if row.name not in without:
                each = np.rint(row.per_step * SCALE).astype(int)
                # rounding is given room here; what breaks a limit for true is found when the answer
                # is judged
                room = len(grid.free)
                self.model.add(self.sum_of(each) <= int(np.floor(row.most * SCALE)) + room)
        self.misses: list[cp_model.IntVar] = []
        self.distances: list[cp_model.IntVar] = []
        self._targets()

    def sum_of(self, each: Sequence[int] | npt_ints) -> Any:
        """The sum of so much for each step of each part."""
        return self.cp.LinearExpr.weighted_sum(self.steps, [int(one) for one in each])

    def _targets(self) -> None:
        grid = self.grid
        for i in range(len(grid.soft)):
            by = grid.weight[i] * SCALE
            each = np.rint(grid.per_step[i] * by).astype(int)
            start = int(np.rint(grid.start[i] * by))
            reach = (
                int(np.maximum(each * grid.steps, 0).sum()),
                int(np.minimum(each * grid.steps, 0).sum()),
            )
            total = start + self.sum_of(each)
            target = int(np.rint(grid.aim[i] * by))
            if grid.far[i] > 0:
                distance = self.model.new_int_var(
                    0, max(abs(start + reach[0] - target), abs(start + reach[1] - target)), ""
                )
                self.model.add(distance >= total - target)
                self.model.add(distance >= target - total)
                self.distances.append(distance)
            bounds = [
                int(np.rint(value * by)) if not np.isnan(value) else None
                for value in (grid.low[i], grid.high[i])
            ]
            furthest = max([start + reach[0] - bounds[1]] if bounds[1] is not None else [0])
            nearest = max([bounds[0] - start - reach[1]] if bounds[0] is not None else [0])
            if max(furthest, nearest) <= 0:
                continue
            miss = self.model.new_int_var(0, max(furthest, nearest), "")
            if bounds[0] is not None:
                self.model.add(miss >= bounds[0] - total)
            if bounds[1] is not None:
                self.model.add(miss >= total - bounds[1])
            self.misses.append(miss)

    def solve(
        self, objective: Any, work: Work, hint: npt_ints | None = None
    ) -> tuple[str, npt_ints | None, int]:
        """The status ("optimal", "feasible", "infeasible", "unknown"), the steps, and the
        objective's value. What it took is spent."""
        self.model.clear_hints()
        for step, value in zip(self.steps, hint if hint is not None else (), strict=False):
            self.model.add_hint(step, int(value))
        if objective is None:
            self.model.clear_objective()
        else:
            self.model.minimize(objective)
        solver = self.cp.CpSolver()
        # one worker, a fixed seed and counted work: the same question has the same answer
        solver.parameters.num_workers = 1
        solver.parameters.random_seed = 1
        solver.parameters.max_deterministic_time = work.units()
        solver.parameters.max_time_in_seconds = work.seconds()
        status = solver.status_name(solver.solve(self.model)).lower()
        units = solver.response_proto.deterministic_time
        if status not in ("optimal", "infeasible") and units < work.units() * NEARLY_ALL:
            work.stopped = work.stopped or work.seconds() <= 0.005
        work.solved(units)
        if status not in ("optimal", "feasible"):
            return status, None, 0
        found = np.array([solver.value(step) for step in self.steps], dtype=np.int64)
        return status, found, 0 if objective is None else round(solver.objective_value)

    def change(self) -> Any:
        """The change from the practitioner's own portions, in thousandths of a step."""
        out = []
        for i, step in enumerate(self.steps):
            own = int(np.rint((self.grid.own[i] - self.grid.least[i]) / self.grid.step_g[i] * 1000))
            far = self.model.new_int_var(
                0, max(int(self.grid.steps[i]) * 1000 - own, own, 0) + 1000, ""
            )
            self.model.add(far >= 1000 * step - own)
            self.model.add(far >= own - 1000 * step)
            out.append(far)
        return total_of(out)


@lru_cache(maxsize=1)
def _wake() -> None:
    """Load the solver and let it solve something: the first time is slow, and is no part of the
    time for an answer."""
    from ortools.linear_solver import pywraplp
    from ortools.sat.python import cp_model

    pywraplp.Solver.CreateSolver("GLOP")
    model = cp_model.CpModel()
    model.minimize(model.new_int_var(0, 1, ""))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.solve(model)


def total_of(terms: Sequence[Any]) -> Any:
    """Their sum for the solver."""
    from ortools.sat.python import cp_model

    return cp_model.LinearExpr.sum(list(terms))


def answer_from(grid: Grid, steps: npt_ints, status: str) -> Answer:
    portions = grid.portions(steps)
    found, most = totals(grid.problem, portions), at_most(grid.problem, portions)
    violation, deviation = sums(grid.problem, found, most)
    return Answer(
        status=status,
        portions=portions,
        totals=found,
        violation=violation,
        deviation=deviation,
        change=grid.change(steps),
        at_most=most,
    )


# How the work goes over solving again, referred to the weight that was found.
SHARES_AGAIN, BETTERED_ROUNDS = (0.4, 0.5, 0.9), 40


def balance(problem: Problem, work: Work | None = None) -> Answer:
    """The portions that come first by the order told in portions.problem, within some `work`.

    Where there are few ways to portion, all of them are looked at. Otherwise portions of any size,
    rounded and bettered step by step, are where it starts; CP-SAT then makes the sums (2), (3) and
    (4) smallest one after the other, each held while the next is sought. An answer says "optimal"
    only if all of them were proved; with a calorie density among the wishes, which is a ratio, that
    is only so where all ways could be looked at.
    """
    found = _balanced(problem, work)
    unwished = frozenset(aim.key for aim in problem.aims if aim.weight <= 0)
    if found.status != "infeasible" or unwished <= problem.known_only:
        return found
    # what nobody knows alone must not make the rest impossible: it is told beside the answer
    again = _balanced(replace(problem, known_only=unwished), work)
    return found if again.status == "infeasible" else again


def _balanced(problem: Problem, work: Work | None) -> Answer:
    grid = Grid(problem)
    if can_count_out(grid):
        steps = counted_out(grid)
        return nearest(problem) if steps is None else answer_from(grid, steps, "optimal")
    _wake()
    work = Work.of(work_for(problem)) if work is None else work
    found = _again(grid, work) if is_wished(problem) else _linear(grid, work)
    return replace(found, stopped=work.stopped)


def _again(grid: Grid, work: Work) -> Answer:
    """As `_linear`, the calorie density referred to the weight that was found, again and again."""
    problem = grid.problem
    found: list[Answer] = []
    for share in SHARES_AGAIN:
        part = work.share(share)
        found.append(_linear(grid, part))
        work.settle(part)
        if found[-1].status == "infeasible":
            return found[-1]
        steps = bettered(grid, grid.steps_of(found[-1].portions), BETTERED_ROUNDS)
        found[-1] = answer_from(grid, steps, "feasible")
        grid = Grid.around(problem, found[-1].portions)
    return min(
        found,
        key=lambda answer: (
            round(answer.violation / ROUNDING),
            round(answer.deviation / ROUNDING),
            answer.change,
        ),
    )


def _searched(grid: Grid, work: Work, share: float, begin: npt_ints | None = None) -> npt_ints:
    """One search with a share of the work that is left."""
    part = work.share(share)
    steps = search(grid, part, 1, begin)
    work.settle(part)
    return steps


def _solved(
    model: Model, objective: Any, work: Work, share: float, hint: npt_ints
) -> tuple[str, npt_ints | None, int]:
    """One call of the solver with a share of the work that is left."""
    part = work.share(share)
    answer = model.solve(objective, part, hint)
    work.settle(part)
    return answer


def _linear(grid: Grid, work: Work) -> Answer:
    """The portions that come first by the grid's own linear sums, within some work."""
    problem = grid.problem
    loose = relaxed(grid)
    if loose is None:
        return nearest(problem)
    rounding = work.share(0.25)
    begun = [rounded(grid, loose, rounding)]
    work.settle(rounding)
    begun.append(_searched(grid, work, 0.1))
    best = min(begun, key=lambda steps: score(grid, steps))
    model = Model(grid)
    proved = True
    broken, missed = score(grid, best)[:2]
    if not broken and missed <= loose.violation + ROUNDING:
        # as good as portions of any size: nothing is left to prove of the first sum
        if model.misses:
            model.model.add(total_of(model.misses) <= int(np.ceil(missed * SCALE)) + len(grid.free))
    else:
        status, found, least = _solved(model, total_of(model.misses), work, 0.6, best)
        if status == "infeasible":
            return nearest(problem)
        proved = status == "optimal"
        if found is not None:
            best = min(
                (best, _searched(grid, work, 0.1, found), found),
                key=lambda steps: score(grid, steps),
            )
        if proved and model.misses:
            model.model.add(total_of(model.misses) <= least)
    if not proved and model.misses:
        model.model.add(
            total_of(model.misses) <= int(np.ceil(grid.violation(best) * SCALE)) + len(grid.free)
        )
    status, found, least = _solved(model, total_of(model.distances), work, 0.85, best)
    proved = proved and status == "optimal"
    if found is not None:
        best = min(
            (best, _searched(grid, work, 0.2, found), found),
            key=lambda steps: score(grid, steps),
        )
    if status == "optimal" and work.left > 0:
        model.model.add(total_of(model.distances) <= max(least, 0) + 2)
        status, found, _least = _solved(model, model.change(), work, 1.0, best)
        proved = proved and status == "optimal"
        if found is not None:
            best = min((best, found), key=lambda steps: _nearly(score(grid, steps)))
    elif grid.change(best) > 0:
        proved = False
    if grid.broken(best):
        return nearest(problem)
    return answer_from(grid, best, "optimal" if proved else "feasible")


def _nearly(found: tuple[float, float, float, float]) -> tuple[float, float, float, float]:
    """A score in which what only rounding tells apart is the same."""
    return found[0], round(found[1] / ROUNDING), round(found[2] / ROUNDING), found[3]


def nearest(problem: Problem) -> Answer:
    """What comes nearest to keeping hard limits that cannot all be kept: they are sought before
    everything else."""
    grid = Grid(problem)
    loud = tuple(
        aim.softened(max(aim.weight, 1.0) * 1000.0) if aim.firm else aim for aim in problem.aims
    )
    asked = replace(
        problem,
        aims=loud,
        vessel_ml=None,
        plate=(),
        parts=tuple(replace(part, star=False) for part in problem.parts),
    )
    softened = Grid(asked)
    steps = search(softened, Work.of(NEAREST_WORK / 4))
    if len(grid.free):
        model = Model(softened)
        work = Work.of(NEAREST_WORK)
        _status, found, _least = model.solve(total_of(model.misses), work, steps)
        steps = (
            min((steps, found), key=lambda one: score(softened, one))
            if found is not None
            else steps
        )
    return answer_from(grid, steps, "infeasible")
