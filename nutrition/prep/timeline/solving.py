"""The best timeline by an order of what counts: what spoils or burns is safe, ready on time, hot
things hot, the shortest time in the kitchen, the fewest heats of the oven. The first two are rules
of the model; the others are made small one after the other."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Any

from nutrition.portions.work import Work
from nutrition.prep.timeline.kitchen import BadKitchen, Session
from nutrition.prep.timeline.model import Model
from nutrition.prep.timeline.obstacles import missing_of, would_help
from nutrition.prep.timeline.rows import Placed, rows_of
from nutrition.prep.timeline.schedule import Timeline

# What all of it may take, and the share of what is left of it for each stage. [s, as work is
# counted]
ALL_WORK = 4.0
SHARES = {"first": 0.4, "hot": 0.45, "length": 0.75, "heats": 0.5, "freshness": 0.8}
# Fitting what does not fit, and what would help. [s, as work is counted]
HELP_WORK = 2.0
# Where linear programs help: elsewhere a long session comes out shorter without them. Measured.
LINEAR = frozenset({"hot", "freshness"})
# A later stage may not make an earlier one worse.
STAGES = ("hot", "length", "heats", "freshness")
# What is not proved of these is only a matter of taste.
TASTE = frozenset({"freshness"})
WORDS = {
    "hot": "minutes that hot things wait",
    "length": "minutes in the kitchen",
    "heats": "heats of the oven and washings of the blender",
}


@dataclass
class Found:
    """A solution: the value of each variable by its index, the value and the bound of what was made
    small."""

    values: list[int]
    value: int
    bound: int
    optimal: bool


def timeline(session: Session, work: Work | None = None) -> Timeline:
    """The best timeline of a session within some work. Dishes that do not fit are left out, told of
    with why, and what would make them fit. Raises BadKitchen for a session without dishes."""
    if not session.dishes:
        raise BadKitchen("dishes", "Choose at least one dish.")
    work = work or Work.of(ALL_WORK)
    whole = Solver(Model(session))
    found = whole.find(work.share(SHARES["first"]), work)
    if found is not None:
        return whole.improved(found, work)
    return _without_some(session, work)


def _without_some(session: Session, work: Work) -> Timeline:
    """As many of the dishes as fit; the earlier ones first where it is all one."""
    part = Solver(Model(session, whole=False))
    count = len(session.dishes)
    wanted = sum(
        part.model.present[dish.key] * (count * 2 + (count - at))
        for at, dish in enumerate(session.dishes)
    )
    found = part.find(work.share(0.5), work, most=wanted)
    cooked = (
        [dish for dish in session.dishes if part.holds(found, part.model.present[dish.key])]
        if found
        else []
    )
    missing = missing_of(session, [dish.key for dish in cooked])
    helps = would_help(session, [one.dish for one in missing], Work.of(HELP_WORK))
    if not cooked:
        return Timeline(rows=(), ready={}, missing=missing, helps=helps, proved=bool(found))
    best = timeline(replace(session, dishes=tuple(cooked)), work)
    sure = best.proved and found is not None and found.optimal
    return replace(best, missing=(*missing, *best.missing), helps=helps or best.helps, proved=sure)


class Solver:
    """The solver on a model, from solution to solution."""

    def __init__(self, model: Model) -> None:
        self.model = model

    def find(
        self,
        share: Work,
        work: Work,
        least: Any = None,
        most: Any = None,
        hint: Found | None = None,
        linear: bool = True,
    ) -> Found | None:
        """The solution in which something is least or most, as far as the work allows; any where
        neither is given. None where there is none, or none was found. `linear`: linear programs
        are looked at for bounds, which takes work."""
        cp, problem = self.model.cp, self.model.model
        problem.clear_objective()  # type: ignore[no-untyped-call]
        if least is not None:
            problem.minimize(least)
        if most is not None:
            problem.maximize(most)
        problem.clear_hints()  # type: ignore[no-untyped-call]
        if hint is not None:
            for at, value in enumerate(hint.values):
                problem.add_hint(problem.get_int_var_from_proto_index(at), value)
        solver = cp.CpSolver()
        solver.parameters.num_workers = 1
        solver.parameters.random_seed = 1
        if not linear:
            solver.parameters.linearization_level = 0
            solver.parameters.cp_model_probing_level = 0
        solver.parameters.max_deterministic_time = share.units()
        solver.parameters.max_time_in_seconds = min(share.seconds(), work.seconds())
        status = solver.solve(problem)
        share.solved(solver.response_proto.deterministic_time)
        work.settle(share)
        if status not in (cp.OPTIMAL, cp.FEASIBLE):
            return None
        bounded = least is not None or most is not None
        return Found(
            values=list(solver.response_proto.solution),
            value=round(solver.objective_value) if bounded else 0,
            bound=math.ceil(solver.best_objective_bound - 1e-6) if bounded else 0,
            optimal=status == cp.OPTIMAL,
        )

    def value(self, found: Found, variable: Any) -> int:
        """What a variable is in a solution."""
        return int(found.values[variable.index])

    def holds(self, found: Found, literal: Any) -> bool:
        return bool(self.value(found, literal))

    def improved(self, found: Found, work: Work) -> Timeline:
        """The best by each of the stages in turn."""
        sums = {
            "hot": self.model.hot_waits(),
            "length": self.model.length(),
            "heats": self.model.heats(),
            "freshness": self.model.freshness(),
        }
        within: dict[str, float] = {}
        for stage in STAGES:
            if isinstance(sums[stage], int):
                continue
            better = self.find(
                work.share(SHARES[stage]),
                work,
                least=sums[stage],
                hint=found,
                linear=stage in LINEAR,
            )
            if better is None:
                within[stage] = math.inf
                continue
            found = better
            if not better.optimal:
                within[stage] = better.value - better.bound
            self.model.model.add(sums[stage] <= better.value)
        return self.told(found, within)

    def told(self, found: Found, within: dict[str, float]) -> Timeline:
        """A solution as steps with times."""
        placed = []
        for one in self.model.tasks.values():
            at = next(i for i, choice in enumerate(one.chosen) if self.holds(found, choice))
            placed.append(
                Placed(
                    dish=one.dish,
                    task=one.task,
                    start=self.value(found, one.start),
                    shape=one.shapes[at],
                    oven=self.value(found, one.oven) if one.oven is not None else 0,
                    washed=one.washed is not None and self.holds(found, one.washed),
                )
            )
        rows = rows_of(placed, self.model.session.kitchen.cooks)
        ready: dict[str, int] = {}
        for one_placed in placed:
            key = one_placed.dish.key
            ready[key] = max(ready.get(key, one_placed.end), one_placed.end)
        told = {stage: gap for stage, gap in within.items() if stage not in TASTE}
        late = self.value(found, self.model.lateness)
        return Timeline(rows=rows, ready=ready, proved=not told, within=told, late=late)


def moved(session: Session, work: Work | None = None) -> Timeline | None:
    """The rest of a session planned around what is done and what goes on: as little later than
    wanted as can be, then as ever. None where no order would do."""
    work = work or Work.of(ALL_WORK)
    solver = Solver(Model(session, late=True))
    late = solver.model.lateness
    found = solver.find(work.share(SHARES["first"]), work, least=late)
    if found is None:
        return None
    solver.model.model.add(late <= found.value)
    return solver.improved(found, work)


def latest(session: Session, work: Work) -> int | None:
    """By how much all must be later so that every dish is ready: 0 for not at all; None where no
    lateness that is looked for would do. [min]"""
    solver = Solver(Model(session, late=True))
    found = solver.find(work.share(1.0), work, least=solver.model.lateness)
    return None if found is None else solver.value(found, solver.model.lateness)


def fits(session: Session, work: Work) -> bool:
    """Whether every dish can be ready in time; False also where it was not found out."""
    return Solver(Model(session)).find(work.share(1.0), work) is not None
