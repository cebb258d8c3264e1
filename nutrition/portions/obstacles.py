"""What stands in the way when portions cannot meet the targets: which miss, why, what collides."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from nutrition.composition.amounts import DENSITY
from nutrition.composition.nutrients import NUTRIENT
from nutrition.portions.local_search import score, search
from nutrition.portions.problem import Grid, Problem, at_most, name_of, npt_ints, sums, totals
from nutrition.portions.solver import Answer, Model, total_of
from nutrition.portions.work import Work
from nutrition.targets.aim import SLACK, Aim

# What one of them may take to be solved again. [s, as work is counted]
SOLVE_WORK = 0.15


@dataclass(frozen=True)
class Miss:
    """A target that is missed: by how much, under zero for under (in the key's unit), and why no
    portions meet it."""

    key: str
    by: float
    why: str

    @property
    def name(self) -> str:
        return NUTRIENT[self.key].name


def misses(problem: Problem, answer: Answer, asked: Problem | None = None) -> list[Miss]:
    """The targets that the answer misses, each with the reason. `asked`: the problem with all that
    its parts may be, where some are held for a cook's sake."""
    out = []
    for aim in problem.aims:
        by = aim.miss(answer.totals[aim.key], answer.at_most[aim.key])
        if by:
            out.append(Miss(aim.key, by, _why(problem, aim, by, asked or problem)))
    return sorted(
        out,
        key=lambda miss: (
            -abs(miss.by) / next(aim.per for aim in problem.aims if aim.key == miss.key)
        ),
    )


def _why(problem: Problem, aim: Aim, by: float, asked: Problem) -> str:
    """The bounds of the parts themselves, or the targets that pull the other way."""
    alone = replace(asked, aims=(aim.softened(1.0),), vessel_ml=None, rooms=(), plate=())
    alone = replace(alone, parts=tuple(replace(part, star=False) for part in alone.parts))
    best, violation = least_missed(alone)
    if violation > SLACK:
        if aim.key == DENSITY:
            # a ratio is at its end with some parts large and others small
            side = "denser" if by < 0 else "lighter"
            return f"no portions of these parts, within what each may be, are {side}"
        side, least = ("largest", "under") if by < 0 else ("smallest", "over")
        reached = total(alone, best, aim.key, largest=by > 0)
        return (
            f"even with every part at its {side} it is {least}: {NUTRIENT[aim.key].said(reached)}"
        )
    against = []
    for other in problem.aims:
        if other.key != aim.key and (other.low is not None or other.high is not None):
            _steps, both = least_missed(replace(alone, aims=(alone.aims[0], other.softened(1.0))))
            if both > SLACK:
                against.append(name_of(other.key))
    if problem.cooks and least_missed(problem)[1] <= SLACK:
        return "a further change would close it, and is not worth its while"
    if against:
        return f"it cannot be met together with {', '.join(against[:3])}"
    stars = any(part.star for part in problem.parts)
    if problem.vessel_ml is not None or problem.rooms or problem.plate or stars:
        _steps, free = least_missed(replace(alone, aims=problem.aims))
        if free <= SLACK and problem.rooms:
            return "what a stomach holds after surgery stands in the way"
        if free <= SLACK:
            return "what the vessel holds, the plate's proportions or the star stand in the way"
    return "all targets together leave no room for it"


def least_missed(problem: Problem, size: float = SOLVE_WORK) -> tuple[Sequence[int], float]:
    """The steps with the smallest sum of misses, and that sum."""
    grid = Grid(problem)
    found = search(grid, Work.of(size * 0.2), 3)
    if not len(grid.free):
        return list(found), _missed(grid, found)
    if score(grid, found)[:2] > (0.0, 0.0):
        model = Model(grid)
        _status, better, _least = model.solve(total_of(model.misses), Work.of(size), found)
        if better is not None:
            found = min((found, better), key=lambda steps: score(grid, steps))
    return [int(one) for one in found], _missed(grid, found) if not grid.broken(found) else float(
        "inf"
    )


def _missed(grid: Grid, steps: npt_ints) -> float:
    """The sum (2) as it is defined."""
    portions = grid.portions(steps)
    return sums(grid.problem, totals(grid.problem, portions), at_most(grid.problem, portions))[0]


def total(problem: Problem, steps: Sequence[int], key: str, largest: bool = False) -> float:
    """A key's total, or what it could be at most."""
    grid = Grid(problem)
    return (at_most if largest else totals)(
        problem, grid.portions(np.array(steps, dtype=np.int64))
    )[key]


def colliding(problem: Problem) -> list[str]:
    """The hard limits that no portions keep by themselves; or else those that cannot be kept
    together: without any one of them the others could be."""
    grid = Grid(problem)
    names = list(dict.fromkeys(row.name for row in grid.rows))

    def possible(without: Iterable[str]) -> bool:
        if not len(grid.free):
            return not set(grid.broken(grid.own_steps())) - set(without)
        status, _found, _value = Model(grid, frozenset(without)).solve(None, Work.of(SOLVE_WORK))
        return status in ("optimal", "feasible")

    if possible(()):
        return []
    alone = [name for name in names if not possible(other for other in names if other != name)]
    if alone:
        return alone
    left_out: list[str] = []
    for name in names:
        if not possible([*left_out, name]):
            left_out.append(name)
    return [name for name in names if name not in left_out]


def closest(problem: Problem, name: str) -> float | None:
    """The closest that a hard target's total can come to its limit while the other limits are kept,
    as far as they can be. In its unit. None for what is no target."""
    aim = next((aim for aim in problem.aims if aim.key == name), None)
    if aim is None:
        return None
    loud = tuple(
        one.softened(1.0 if one.key == name else 1000.0) for one in problem.aims if one.firm
    )
    steps, _violation = least_missed(replace(problem, aims=loud))
    return total(problem, steps, name, largest=True)
