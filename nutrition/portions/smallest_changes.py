"""The best single change, the best pair, and the best of all portions, by what portions.judge
counts."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import combinations
from typing import Any

import numpy as np

from nutrition.composition.amounts import DENSITY
from nutrition.portions.judge import A_STEP, NEAR, Judge, Ways
from nutrition.portions.solver import SCALE, Model, total_of
from nutrition.portions.work import Work
from nutrition.targets.aim import SLACK

# Of a part so many of its steps are looked at beside another's, and so many rounds better what was
# found.
MOST_STEPS_PAIRED, ROUNDS = 14, 60
# What the search among all portions may take.
WHOLE_WORK = 0.06


def _steps(judge: Judge, at: int, most: int) -> Ways:
    """Steps of one part away from where it is, no more than so many of them, the nearest and the
    furthest among them."""
    low, high = int(judge.least[at]), int(judge.most[at])
    every = np.array([n for n in range(low, high + 1) if n], dtype=np.int64)
    if len(every) <= most:
        return every
    return np.unique(every[np.linspace(0, len(every) - 1, most).round().astype(int)])


def singles(judge: Judge) -> Ways:
    """Every change of one part."""
    rows = []
    parts = len(judge.grid.free)
    for at in range(parts):
        steps = _steps(judge, at, 10_000)
        block = np.zeros((len(steps), parts), dtype=np.int64)
        block[:, at] = steps
        rows.append(block)
    return np.concatenate(rows) if rows else np.zeros((0, 0), dtype=np.int64)


def pairs(judge: Judge) -> Ways:
    """Changes of two parts, a few of many steps."""
    rows = []
    parts = len(judge.grid.free)
    few = [_steps(judge, at, MOST_STEPS_PAIRED) for at in range(parts)]
    for one, two in combinations(range(parts), 2):
        first, second = np.meshgrid(few[one], few[two], indexing="ij")
        block = np.zeros((first.size, parts), dtype=np.int64)
        block[:, one], block[:, two] = first.ravel(), second.ravel()
        rows.append(block)
    return np.concatenate(rows) if rows else np.zeros((0, parts), dtype=np.int64)


def _around(judge: Judge, way: Ways, keep: bool) -> Ways:
    """Ways one change away from one: a part back where it was, a few steps more or less of one or
    of two. With `keep` only parts that move already are moved."""
    parts = len(judge.grid.free)
    rows = [way]
    movable = [at for at in range(parts) if way[at] or not keep]
    for at in movable:
        back = way.copy()
        back[at] = 0
        rows.append(back)
        for by in (-4, -2, -1, 1, 2, 4):
            other = way.copy()
            other[at] += by
            rows.append(other)
    for one, two in combinations(movable, 2):
        for first, second in ((1, -1), (-1, 1), (1, 1), (-1, -1), (2, -1), (-2, 1), (1, -2)):
            other = way.copy()
            other[one] += first
            other[two] += second
            rows.append(other)
    return np.unique(np.array(rows), axis=0)


def bettered(judge: Judge, way: Ways, keep: bool = False) -> Ways:
    """A way bettered step by step as long as something gets better."""
    cost = float(judge.cost(way[None, :])[0])
    for _ in range(ROUNDS):
        found = judge.best(_around(judge, way, keep))
        if found is None:
            break
        now = float(judge.cost(found[None, :])[0])
        if not now < cost - 1e-12:
            break
        way, cost = found, now
    return way


def best_single(judge: Judge) -> Ways | None:
    """The change of one part that costs least; None where no part can move."""
    return judge.best(singles(judge))


def best_pair(judge: Judge) -> Ways | None:
    """The change of two parts that costs least; None where there are no two."""
    found = judge.best(pairs(judge))
    return None if found is None else bettered(judge, found, keep=True)


def best_of_all(judge: Judge, begin: Ways, work: Work | None = None) -> tuple[Ways, bool]:
    """The portions that cost least, begun from a good way, and whether it is proved that none cost
    less. A calorie density among the wishes is a ratio: with one nothing is proved."""
    best = bettered(judge, begin)
    model = Model(judge.grid, frozenset(row.name for row in judge.grid.rows))
    terms: list[Any] = list(model.misses)
    moves = [_move(judge, model, at) for at in range(len(model.steps))]
    terms += [term for one in moves for term in one.terms]
    _kept_mosts(judge, model)
    _in_order(judge, model, [one.smaller for one in moves])
    terms += _broken(judge, model, [one.more for one in moves])
    if judge.energy_at is not None:
        terms.append(_near_energy(judge, model))
    work = Work.of(WHOLE_WORK) if work is None else work
    status, found, _least = model.solve(total_of(terms), work, judge.begin + best)
    if found is not None:
        other = bettered(judge, np.asarray(found - judge.begin))
        best = min((best, other), key=lambda way: float(judge.cost(way[None, :])[0]))
    return best, status == "optimal" and not judge.density.any() and not work.stopped


@dataclass(frozen=True)
class _Move:
    """How a part moves, for the solver: what it costs, by how many steps it is larger, and whether
    it is smaller."""

    terms: list[Any]
    more: Any
    smaller: Any


def _move(judge: Judge, model: Model, at: int) -> _Move:
    cp, terms = model.model, []
    most = max(int(judge.most[at]), 0), max(int(-judge.least[at]), 0)
    more, less = (cp.new_int_var(0, one, "") for one in most)
    larger, smaller = cp.new_bool_var(""), cp.new_bool_var("")
    cp.add(more - less == model.steps[at] - int(judge.begin[at]))
    cp.add(larger + smaller <= 1)
    for far, moved, reach, costs, each in (
        (more, larger, most[0], judge.up[at], judge.step_up[at]),
        (less, smaller, most[1], judge.down[at], A_STEP),
    ):
        cp.add(far <= reach * moved)
        terms += [moved * int(costs * SCALE), far * int(each * SCALE)]
    return _Move(terms, more, smaller)


def _kept_mosts(judge: Judge, model: Model) -> None:
    """A most that is kept stays kept."""
    grid, start = judge.grid, judge.begin
    for at, wish in enumerate(grid.soft):
        if wish.aim.key == DENSITY or not wish.aim.weight or wish.aim.high is None:
            continue
        room = float(grid.high[at] - grid.start[at])
        if float(grid.per_step[at] @ start) <= room + SLACK:
            each = np.rint(grid.per_step[at] * SCALE).astype(int)
            model.model.add(model.sum_of(each) <= int(np.floor(room * SCALE)) + len(grid.free))


def _in_order(judge: Judge, model: Model, smaller: list[Any]) -> None:
    """What goes first has gone far enough before anything else is smaller."""
    for at in np.flatnonzero(judge.first):
        enough = int(judge.begin[at] + judge.enough[at])
        for other, moved in enumerate(smaller):
            if not judge.first[other]:
                model.model.add(model.steps[at] <= enough).only_enforce_if(moved)


def _broken(judge: Judge, model: Model, more: list[Any]) -> list[Any]:
    """By how much each limit is broken, weighed; what matters little to it is not counted, up to
    what is harmless."""
    cp, out = model.model, []
    for at, row in enumerate(judge.grid.rows):
        each = np.rint(row.per_step * SCALE).astype(int)
        over = cp.new_int_var(0, int(np.ceil(judge.broken_now[at] * SCALE)), "")
        room = len(judge.grid.free)
        light = [int(one) for one in np.rint(judge.light[at] * SCALE)]
        passed = sum(far * one for far, one in zip(more, light, strict=True) if one)
        if any(light):
            cp.add(passed <= int(judge.harmless[at] * SCALE))
        cp.add(over >= model.sum_of(each) - passed - int(np.floor(row.most * SCALE)) - room)
        out.append(over * int(judge.row_weight[at]))
    return out


def _near_energy(judge: Judge, model: Model) -> Any:
    """How far the energy is from its aim, for the solver."""
    at = judge.energy_at
    assert at is not None
    per = judge.per[at] / (NEAR * SCALE)
    each = np.rint(judge.each[at] / per).astype(int)
    start = (judge.start[at] - float(judge.each[at] @ judge.begin) - judge.aims[at].aim) / per
    reach = int(np.abs(each * judge.grid.steps).sum() + abs(start)) + 1
    far = model.model.new_int_var(0, reach, "")
    total = int(np.rint(start)) + model.sum_of(each)
    model.model.add(far >= total)
    model.model.add(far >= -total)
    return far
