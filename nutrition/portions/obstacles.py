"""What stands in the way when portions cannot meet the targets, and the smallest single change that
would help.

Every hint was solved again before it is given: what it promises is what came out.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.portion import Portion
from nutrition.portions.local_search import score, search
from nutrition.portions.problem import Grid, Problem, at_most, name_of, npt_ints, sums, totals
from nutrition.portions.solver import SCALE, Answer, Model, total_of
from nutrition.portions.work import Work
from nutrition.targets.aim import SLACK, Aim
from nutrition.written.plain import uncapitalized

# A larger part is tried up to so many times its most; a hint must take away at least this share of
# the misses.
LARGER, HELPS = 2.0, 0.1
# Misses that come to less than this, each over its aim, are none.
CLEARED = 1e-4
# What one of them may take to be solved again. [s, as work is counted]
SOLVE_WORK = 0.15
MOST_HINTS = 6


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


@dataclass(frozen=True, kw_only=True)
class Hint:
    """One change that would help. `kind`: "larger" (a part's most), "add" (a food), "loosen" (a
    target); `to` is its new figure [g or the key's unit], and `violation` what the misses then come
    to."""

    kind: str
    id: str
    to: float
    violation: float
    words: str

    @property
    def clears(self) -> bool:
        """Whether nothing is missed with it."""
        return self.violation < CLEARED


def _number(key: str, value: float) -> str:
    return f"{value:,.{NUTRIENT[key].decimals}f} {NUTRIENT[key].unit}"


def misses(problem: Problem, answer: Answer) -> list[Miss]:
    """The targets that the answer misses, each with the reason."""
    out = []
    for aim in problem.aims:
        by = aim.miss(answer.totals[aim.key], answer.at_most[aim.key])
        if by:
            out.append(Miss(aim.key, by, _why(problem, aim, by)))
    return sorted(
        out,
        key=lambda miss: (
            -abs(miss.by) / next(aim.per for aim in problem.aims if aim.key == miss.key)
        ),
    )


def _why(problem: Problem, aim: Aim, by: float) -> str:
    """The bounds of the parts themselves, or the targets that pull the other way."""
    alone = replace(problem, aims=(aim.softened(1.0),), vessel_ml=None, plate=())
    alone = replace(alone, parts=tuple(replace(part, star=False) for part in alone.parts))
    best, violation = _least_missed(alone)
    if violation > SLACK:
        side, least = ("largest", "under") if by < 0 else ("smallest", "over")
        reached = _total(alone, best, aim.key, largest=by > 0)
        return f"even with every part at its {side} it is {least}: {_number(aim.key, reached)}"
    against = []
    for other in problem.aims:
        if other.key != aim.key and (other.low is not None or other.high is not None):
            _steps, both = _least_missed(replace(alone, aims=(alone.aims[0], other.softened(1.0))))
            if both > SLACK:
                against.append(name_of(other.key))
    if against:
        return f"it collides with {', '.join(against[:3])}"
    if problem.vessel_ml is not None or problem.plate or any(part.star for part in problem.parts):
        _steps, free = _least_missed(replace(alone, aims=problem.aims))
        if free <= SLACK:
            return "what the vessel holds, the plate's proportions or the star stand in the way"
    return "all targets together leave no room for it"


def _least_missed(problem: Problem, size: float = SOLVE_WORK) -> tuple[Sequence[int], float]:
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


def _total(problem: Problem, steps: Sequence[int], key: str, largest: bool = False) -> float:
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
    steps, _violation = _least_missed(replace(problem, aims=loud))
    return _total(problem, steps, name, largest=True)


def hints(problem: Problem, answer: Answer, pantry: Sequence[Portion] = ()) -> list[Hint]:
    """The single changes that help most, each solved again. `pantry` are foods that may be added,
    with their sensible portions."""
    before = _gap(problem, answer)
    if before <= SLACK:
        return []
    found = [
        *_larger(problem, answer, before),
        *_added(problem, before, pantry),
        *_loosened(problem, answer),
    ]
    return sorted(found, key=lambda hint: (round(hint.violation, 6), hint.kind != "larger"))[
        :MOST_HINTS
    ]


def _gap(problem: Problem, answer: Answer) -> float:
    """The misses of an answer, hard limits that are broken counted in."""
    return sum(
        aim.missed(answer.totals[aim.key], answer.at_most[aim.key])
        / aim.per
        * max(aim.weight, 1.0 if aim.firm else 0.0)
        for aim in problem.aims
    )


def _soft(problem: Problem) -> Problem:
    """Hard targets as loud wishes, so that a hint can be judged where they collide. A limit that is
    no wish stays hard."""

    def softer(aim: Aim) -> Aim:
        return aim.softened(max(aim.weight, 1.0)) if aim.firm and aim.weight else aim

    return replace(problem, aims=tuple(softer(aim) for aim in problem.aims))


def _larger(problem: Problem, answer: Answer, before: float) -> list[Hint]:
    out = []
    asked = problem if answer.status != "infeasible" else _soft(problem)
    for part in problem.parts:
        if part.locked or answer.portions[part.key] < part.limits.most - part.limits.step:
            continue
        wider = part.within(
            most=min(max(part.limits.most, part.limits.step) * LARGER, part.limits.ceiling)
        )
        if wider.limits.most < part.limits.most + part.limits.step:
            continue
        steps, after = _least_missed(asked.with_part(wider))
        if not after < before * (1 - HELPS):
            continue
        most = _smallest(asked.with_part(wider), part.key, after, steps)
        _again, verified = _least_missed(asked.with_part(part.within(most=most)))
        words = f"{part.name}: up to {most:.0f} g instead of {part.limits.most:.0f} g"
        out.append(Hint(kind="larger", id=part.key, to=most, violation=verified, words=words))
    return out


def _smallest(problem: Problem, part_id: str, violation: float, steps: Sequence[int]) -> float:
    """The smallest portion of a part with which the misses are no more than `violation`. [g]"""
    grid = Grid(problem)
    at = next(i for i, part in enumerate(grid.free) if part.key == part_id)
    model = Model(grid)
    if model.misses:
        model.model.add(total_of(model.misses) <= int(np.ceil(violation * SCALE)) + len(grid.free))
    _status, found, _value = model.solve(
        model.steps[at], Work.of(SOLVE_WORK), np.array(steps, dtype=np.int64)
    )
    return grid.free[at].at(int(found[at] if found is not None else steps[at]))


def _added(problem: Problem, before: float, pantry: Sequence[Portion]) -> list[Hint]:
    asked = _soft(problem)
    tried = []
    for food in pantry:
        if any(part.key == food.key for part in problem.parts):
            continue
        steps, after = _least_missed(asked.with_part(food), SOLVE_WORK / 2)
        if after < before * (1 - HELPS):
            tried.append((after, food, steps))
    out = []
    for after, food, steps in sorted(tried, key=lambda row: row[0])[:2]:
        grams = _smallest(asked.with_part(food), food.key, after, steps)
        if grams > 0:
            _again, verified = _least_missed(
                asked.with_part(replace(food, grams=grams, locked=True))
            )
            out.append(
                Hint(
                    kind="add",
                    id=food.key,
                    to=grams,
                    violation=verified,
                    words=f"add {grams:.0f} g {uncapitalized(food.name)}",
                )
            )
    return out


def _loosened(problem: Problem, answer: Answer) -> list[Hint]:
    out = []
    for aim in problem.aims:
        by = aim.miss(answer.totals[aim.key], answer.at_most[aim.key])
        if not by or not aim.weight:
            continue
        # this target's own miss, as small as it can be while all the others are met as well as they
        # are
        others = replace(problem, aims=tuple(one for one in problem.aims if one.key != aim.key))
        _steps, rest = _least_missed(others if answer.status != "infeasible" else _soft(others))
        if rest == float("inf"):
            continue
        heard = tuple(
            aim.softened(1.0) if one.key == aim.key else replace(one, weight=one.weight * 1000.0)
            for one in problem.aims
        )
        steps, _loud = _least_missed(replace(problem, aims=heard))
        to = _total(problem, steps, aim.key, largest=by > 0)
        loose = (
            replace(aim.softened(), low=min(to, aim.low)) if by < 0 and aim.low is not None else aim
        )
        loose = (
            replace(aim.softened(), high=max(to, aim.high))
            if by > 0 and aim.high is not None
            else loose
        )
        _again, verified = _least_missed(
            problem.with_aim(loose)
            if answer.status != "infeasible"
            else _soft(problem.with_aim(loose))
        )
        side = "at least" if by < 0 else "at most"
        was = aim.low if by < 0 else aim.high
        firm = aim.firm_low if by < 0 else aim.firm_high
        note = "; only whoever set it can change it" if firm else ""
        words = (
            f"{name_of(aim.key)}: {side} {_number(aim.key, to)} instead of "
            f"{_number(aim.key, was or 0.0)}{note}"
        )
        out.append(Hint(kind="loosen", id=aim.key, to=to, violation=verified, words=words))
    return out
