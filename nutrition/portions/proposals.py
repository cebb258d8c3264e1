"""Up to three different answers to one problem, each with what changed, by how much, and what
limits it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from nutrition.composition.plausible import WORTH_SAYING, Unknown, names_unknown
from nutrition.composition.profile import Vector
from nutrition.portions.problem import BadProblem, Grid, Problem, name_of, npt_ints
from nutrition.portions.solver import SCALE, Answer, Model, answer_from, balance, total_of
from nutrition.portions.work import Work
from nutrition.safety.gate import Gate
from nutrition.targets.aim import SLACK

# How much further from the aims another answer may be: a share of the first one's distances, and a
# bit. Misses must not grow.
GIVE_SHARE, GIVE = 0.15, 0.05
# What another answer may take. [s, as work is counted]
OTHER_WORK = 0.08
CLOSEST, MOST_FOOD, LEAST_SAUCE = (
    "Closest to what is there",
    "Most food for the calories",
    "Least sauce and topping",
)
SAUCES = ("sauce", "topping")


@dataclass(frozen=True, kw_only=True)
class PortionChange:
    """A part's portion before and after [g], and what keeps it from going further."""

    id: str
    name: str
    before: float
    after: float
    limited_by: str

    @property
    def by(self) -> float:
        return self.after - self.before


@dataclass(frozen=True)
class Proposal:
    """An answer with its name and its changes, largest first."""

    name: str
    answer: Answer
    changes: tuple[PortionChange, ...]


def limited_by(grid: Grid, steps: npt_ints, at: int, direction: int) -> str:
    """What one step more in this direction would run into, in words."""
    if direction > 0 and steps[at] >= grid.steps[at]:
        return "its largest portion"
    if direction < 0 and steps[at] <= 0:
        return "its smallest portion"
    further = steps.copy()
    further[at] += direction
    broken = [name for name in grid.broken(further) if name not in grid.broken(steps)]
    if broken:
        return name_of(broken[0]).lower()
    here, there = grid.totals(steps), grid.totals(further)

    def missed(totals: Vector) -> Vector:
        return np.asarray(
            np.nan_to_num(np.maximum(grid.low - totals, 0.0))
            + np.nan_to_num(np.maximum(totals - grid.high, 0.0))
        )

    worse = grid.weight * (missed(there) - missed(here))
    if len(worse) and worse.max() > SLACK:
        return name_of(grid.soft[int(worse.argmax())].aim.key).lower()
    away = grid.far * (np.abs(there - grid.aim) - np.abs(here - grid.aim))
    if not len(away) or away.max() <= SLACK:
        return "nothing: it is a matter of taste"
    return f"the aim of {name_of(grid.soft[int(away.argmax())].aim.key).lower()}"


def _changes(grid: Grid, answer: Answer, steps: npt_ints) -> tuple[PortionChange, ...]:
    out = []
    for at, part in enumerate(grid.free):
        after = answer.portions[part.key]
        if abs(after - part.grams) < 0.05:
            continue
        why = limited_by(grid, steps, at, 1 if after > part.grams else -1)
        out.append(
            PortionChange(
                id=part.key, name=part.name, before=part.grams, after=after, limited_by=why
            )
        )
    out += [
        PortionChange(
            id=part.key,
            name=part.name,
            before=part.grams,
            after=grams,
            limited_by="what is allowed",
        )
        for part, grams in grid.fixed
        if abs(grams - part.grams) >= 0.05
    ]
    return tuple(sorted(out, key=lambda change: -abs(change.by)))


def proposals(problem: Problem, work: Work | None = None) -> list[Proposal]:
    """The answer that comes first, and, where they differ from it: the one with the most food for
    no more calories, and the one with the least sauce and topping. These miss the targets no more,
    and may be a little further from the aims.
    """
    first = balance(problem, work)
    # a calorie density is looked at around the portions that were found
    grid = Grid.around(problem, first.portions)
    steps = grid.steps_of(first.portions)
    out = [Proposal(CLOSEST, first, _changes(grid, first, steps))]
    if first.status == "infeasible" or not len(grid.free):
        return out
    for name, per_step in ((MOST_FOOD, _food(grid)), (LEAST_SAUCE, _sauce(grid))):
        found = (
            _other(grid, first, steps, per_step, keep_energy=name == MOST_FOOD)
            if per_step is not None
            else None
        )
        if found is not None and not any(_same(found, told.answer) for told in out):
            out.append(Proposal(name, found, _changes(grid, found, grid.steps_of(found.portions))))
    return out


def _same(one: Answer, other: Answer) -> bool:
    return all(abs(one.portions[name] - other.portions[name]) < 0.05 for name in one.portions)


def _food(grid: Grid) -> npt_ints:
    """What to make smallest for the most food: volume, less. [mL]"""
    each: npt_ints = np.array(
        [-round(part.ml_per_gram * part.limits.step * 100) for part in grid.free], dtype=np.int64
    )
    return each


def _sauce(grid: Grid) -> npt_ints | None:
    """What to make smallest for the least sauce and topping: their weight. [g] None where there is
    none."""
    each: npt_ints = np.array(
        [round(part.limits.step * 100) if part.role in SAUCES else 0 for part in grid.free],
        dtype=np.int64,
    )
    return each if each.any() else None


def _other(
    grid: Grid, first: Answer, steps: npt_ints, per_step: npt_ints, keep_energy: bool
) -> Answer | None:
    model = Model(grid)
    room = len(grid.free)
    if model.misses:
        model.model.add(total_of(model.misses) <= int(grid.violation(steps) * SCALE) + room)
    model.model.add(
        total_of(model.distances)
        <= int((grid.deviation(steps) * (1 + GIVE_SHARE) + GIVE) * SCALE) + room
    )
    if keep_energy:
        kcal = [round(part.amount("energy_kcal") * part.limits.step * 100) for part in grid.free]
        model.model.add(model.sum_of(kcal) <= int(np.dot(kcal, steps)))
    _status, found, _value = model.solve(model.sum_of(per_step), Work.of(OTHER_WORK), steps)
    if found is None or grid.broken(found):
        return None
    if float(np.dot(per_step, found)) >= float(np.dot(per_step, steps)):
        return None
    other = answer_from(grid, found, "feasible")
    return other if other.violation <= first.violation + 1e-6 else None


def allowed(problem: Problem, gate: Gate) -> list[Proposal]:
    """The proposals that bring nothing to stop and ask about that is not there now: amounts that
    only count together. Raises BadProblem where there are none."""
    out = [one for one in proposals(problem) if not _newly_barred(one, problem, gate)]
    if not out:
        raise BadProblem(
            "parts",
            "Every proposal would bring together what is to be asked about first: change the "
            "parts.",
        )
    return out


def _newly_barred(proposal: Proposal, problem: Problem, gate: Gate) -> bool:
    def codes(portions: Mapping[str, float] | None) -> set[str]:
        foods = [
            one.times(1.0 if portions is None else portions[part.key] / part.profile.grams)
            for part in problem.parts
            if part.profile.grams > 0
            for one in part.foods
        ]
        return {bar.code for bar in gate.bars([one for one in foods if one.grams > 0])}

    return bool(codes(proposal.answer.portions) - codes(None))


def unknown_of(answer: Answer, problem: Problem) -> list[Unknown]:
    """What is not known of each target with a most, where it is worth saying: in which foods, and
    between what it then lies."""
    out = []
    for aim in problem.aims:
        known, most = answer.totals[aim.key], answer.at_most[aim.key]
        if aim.high is None or not aim.weight or most - known < WORTH_SAYING * aim.per:
            continue
        names = dict.fromkeys(
            name
            for part in problem.parts
            if answer.portions.get(part.key, 0.0) > 0
            for name in names_unknown(part.foods, aim.key)
        )
        out.append(Unknown(aim.key, tuple(names), (known, most)))
    return out
