"""Many ways to portion judged at once by what counts: limits that are never broken and never made
worse, what is missed, how many parts move.

In this order: (1) a most that is kept stays kept, and one that is broken is broken no further,
best not at all; what brings less of it for its energy than the whole does is not held by it, up to
a hundredth of the limit; and nothing is made smaller before what a cook takes away first; (2) the
weighted misses, each over its aim, with so much added for each part that moves, are smallest: a
part moves only if it earns its move; (3) the energy is near its aim, and the steps are few.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence

import numpy as np
import numpy.typing as npt

from nutrition.composition.amounts import DENSITY
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.portion import Portion
from nutrition.composition.profile import Vector
from nutrition.portions.problem import STOMACH, Grid, Problem, based_on, npt_ints
from nutrition.targets.aim import SLACK

Ways = npt.NDArray[np.int64]
# What a move must earn: this share of what is missed at first, and this much at the least. What a
# broken limit weighs, and one of room; how near the energy is to its aim; a step. Common practice,
# no source.
EARNS, LEAST_EARNED = 0.05, 0.02
HARD, ROOM, NEAR, A_STEP = 1000.0, 1.5, 0.1, 1e-4
# A stomach holds no more, whatever is short. Common practice, no source.
IN_THE_STOMACH = 10.0
# What 100 g more on the plate count for who eats little. Common practice, no source.
A_PLATEFUL = 0.04
# What keeps its size, and what comes last, must earn a move the wrong way so many times over.
AGAINST_THE_GRAIN = 3.0
# Of a limit that is broken what matters little to it may bring so much more, together; what brings
# less than this of what there is too much of need not go first. Common practice, no source. [share]
HARMLESS, MATTERS, OF_THE_EXCESS = 0.01, 0.1, 0.5
# A sauce is not taken away for the little protein in it.
NOT_FOR = ("protein_g",)
# What goes first has gone far enough when half of it is left. Common practice, no source. [share]
FAR_ENOUGH = 0.5
# Limits that the practitioner's own portions may break: upper levels, and the star.
OWN_ORDER = frozenset(NUTRIENT) | {"star"}


class Judge:
    """A problem around the portions that it begins from: the practitioner's own, or the nearest
    that are allowed. A way is a row of steps away from there."""

    def __init__(self, problem: Problem) -> None:
        self.problem, self.grid = problem, Grid(problem)
        grid = self.grid
        self.begin = grid.own_steps()
        self.begin_g = grid.least + self.begin * grid.step_g
        self.least, self.most = -self.begin, grid.steps - self.begin
        rows = grid.rows
        shape = (len(rows), len(grid.free))
        self.row_each = np.array([row.per_step for row in rows]).reshape(shape)
        self.row_room = np.array([row.most - float(row.per_step @ self.begin) for row in rows])
        # an upper level that nobody wished for, and which part is the largest, are not made worse;
        # to better them is no goal
        hard = {aim.key for aim in problem.aims if aim.weight > 0} | {STOMACH}
        self.row_weight = np.array(
            [HARD if row.name in hard else 0.0 if row.name in OWN_ORDER else ROOM for row in rows]
        )
        self.broken_now = np.maximum(-self.row_room, 0.0)
        self.light = self._light()
        self.harmless = np.array([HARMLESS * row.whole for row in rows])
        self.aims = [aim for aim in problem.aims if aim.weight > 0]
        self.weight = np.array([aim.weight for aim in self.aims])
        self.per = np.array([aim.per for aim in self.aims])
        self.low = np.array([-np.inf if aim.low is None else aim.low for aim in self.aims])
        self.high = np.array([np.inf if aim.high is None else aim.high for aim in self.aims])
        keys = [aim.key for aim in self.aims]
        based = {key: based_on(problem, key) for key in keys}
        self.density = np.array([aim.key == DENSITY for aim in self.aims], dtype=bool)
        self.start, self.each = self._of(keys, lambda part, key: part.toward(key), based)
        unknown = [aim.key if problem.is_unknown(aim) else "" for aim in self.aims]
        self.more_start, self.more_each = self._of(
            unknown, lambda part, key: part.unknown.get(key, 0.0), {}
        )
        # what is drunk is no part of a density
        self.food_g = np.array([part.is_food for part in grid.free]) * np.asarray(grid.step_g)
        self.grams = float(
            problem.base_grams
            + sum(part.is_food * grams for part, grams in grid.fixed)
            + sum(part.is_food * grams for part, grams in zip(grid.free, self.begin_g, strict=True))
        )
        energy = next((aim for aim in self.aims if aim.key == "energy_kcal"), None)
        self.energy_at = self.aims.index(energy) if energy else None
        self.passed_now = self.over(self._nothing())
        self.gap = self.left(self._nothing()[0])
        self.earned = max(EARNS * self.gap, LEAST_EARNED)
        dear = AGAINST_THE_GRAIN * self.earned
        # for who eats little what is rich comes as soon as anything else
        late = [part.limits.last and not problem.eats_little for part in grid.free]
        self.up = np.array([dear if last else self.earned for last in late])
        fills = A_PLATEFUL / 100.0 if problem.eats_little else 0.0
        self.step_up = A_STEP + fills * np.asarray(grid.step_g)
        self.first, self.enough = self._first()
        # what goes first keeps its size where it brings little of what there is too much of
        first = np.array([part.limits.first for part in grid.free], dtype=bool)
        keeps = np.array([part.limits.keeps for part in grid.free], dtype=bool)
        self.down = np.where(keeps | (first & ~self.first), dear, self.earned)

    def _light(self) -> npt.NDArray[np.float64]:
        """For each limit what a step more of each part brings of it where that matters little: the
        limit is a nutrient's and broken, and the part brings less of it for its energy than the
        whole. Nothing elsewhere."""
        grid = self.grid
        kcal = np.array([part.amount("energy_kcal") for part in grid.free]) * grid.step_g
        there = sum(part.amount("energy_kcal") * grams for part, grams in grid.fixed)
        there += float(kcal @ (self.begin_g / grid.step_g)) + based_on(self.problem, "energy_kcal")
        out = np.zeros_like(self.row_each)
        for at, row in enumerate(grid.rows):
            if row.whole > 0 and self.broken_now[at] > SLACK:
                of_whole = row.whole + self.broken_now[at]
                light = row.per_step * max(there, 1e-9) < of_whole * kcal
                out[at] = np.where(light, np.maximum(row.per_step, 0.0), 0.0)
        return out

    def _first(self) -> tuple[npt.NDArray[np.bool_], Ways]:
        """The parts that go first, since they bring enough of something that there is too much of;
        and how many steps away they have gone far enough."""
        grid = self.grid
        over = np.zeros(len(grid.free), dtype=bool)
        now = self.totals(self._nothing())[0] if self.aims else np.zeros(0)
        for at, aim in enumerate(self.aims):
            if aim.key in (DENSITY, *NOT_FOR):
                continue
            excess = now[at] - self.high[at]
            if excess > SLACK * self.per[at]:
                brought = self.each[at] * self.begin_g / grid.step_g
                over |= brought >= min(MATTERS * now[at], OF_THE_EXCESS * excess)
        first = np.array([part.limits.first for part in grid.free], dtype=bool) & over
        half = np.ceil(FAR_ENOUGH * self.begin_g / grid.step_g - 1e-9).astype(np.int64)
        return first, np.maximum(-half, self.least)

    def out_of_order(self, ways: Ways) -> npt.NDArray[np.bool_]:
        """Whether a way makes something smaller before what goes first has gone far enough."""
        early = ((ways < 0) & ~self.first).any(axis=1)
        return np.asarray(early & ((ways > self.enough) & self.first).any(axis=1))

    def _nothing(self) -> Ways:
        return np.zeros((1, len(self.grid.free)), dtype=np.int64)

    def _of(
        self,
        keys: Sequence[str],
        per_gram: Callable[[Portion, str], float],
        base: Mapping[str, float],
    ) -> tuple[Vector, npt.NDArray[np.float64]]:
        """For each key its total at the start, and what a step of each part adds."""
        grid = self.grid
        start, rows = [], []
        for key in keys:
            each = np.array([per_gram(part, key) for part in grid.free])
            fixed = sum(per_gram(part, key) * grams for part, grams in grid.fixed)
            start.append(base.get(key, 0.0) + fixed + float(each @ self.begin_g))
            rows.append(each * grid.step_g)
        return np.array(start), np.array(rows).reshape(len(keys), len(grid.free))

    def totals(self, ways: Ways) -> npt.NDArray[np.float64]:
        """Every target's total for each way. In each key's unit."""
        total = self.start + ways @ self.each.T
        if self.density.any():
            grams = np.maximum(self.grams + ways @ self.food_g, 1e-9)
            total[:, self.density] /= grams[:, None]
        return np.asarray(total)

    def misses(self, ways: Ways) -> Vector:
        """The weighted misses of each way, each over its aim."""
        if not self.aims:
            return np.zeros(len(ways))
        known = self.totals(ways)
        most = known + np.where(self.density, 0.0, self.more_start + ways @ self.more_each.T)
        missed = np.maximum(self.low - known, 0.0) + np.maximum(most - self.high, 0.0)
        missed = np.where(missed > SLACK * self.per, missed, 0.0)
        return np.asarray((self.weight * missed / self.per).sum(axis=1))

    def over(self, ways: Ways) -> npt.NDArray[np.bool_]:
        """Which mosts each way passes, the unknown at its largest, a row for each way; a density is
        a matter of nearness."""
        more = np.where(self.density, 0.0, self.more_start + ways @ self.more_each.T)
        out = self.totals(ways) + more > self.high + SLACK * self.per
        out[:, self.density] = False
        return np.asarray(out)

    def _over(self, ways: Ways) -> npt.NDArray[np.float64]:
        """By how much each way breaks each limit, a row for each way; what matters little to it
        is not counted."""
        more = np.maximum(ways, 0) @ self.light.T
        return np.asarray(np.maximum(ways @ self.row_each.T - more - self.row_room, 0.0))

    def excess(self, ways: Ways) -> Vector:
        """What broken limits weigh, together; infinite where one is broken further than at
        first."""
        over = self._over(ways)
        worse = (over > self.broken_now + SLACK).any(axis=1)
        worse |= (np.maximum(ways, 0) @ self.light.T > self.harmless + SLACK).any(axis=1)
        worse |= self.out_of_order(ways)
        worse |= (self.over(ways) & ~self.passed_now).any(axis=1)
        weighed = np.where(over > SLACK, over, 0.0) @ self.row_weight
        return np.asarray(np.where(worse, np.inf, weighed))

    def breaks(self, way: Ways) -> list[str]:
        """Names of the nutrients' limits that somebody wished for and that a way breaks, and of
        room that it takes too much of."""
        over = self._over(way[None, :])[0] > SLACK
        rows = zip(self.grid.rows, over, self.row_weight, strict=True)
        return list(dict.fromkeys(row.name for row, broken, weight in rows if broken and weight))

    def left(self, way: Ways) -> float:
        """What a way still misses, a broken limit counted as a miss of its own size, and of room as
        heavier."""
        over = self._over(way[None, :])[0]
        heavy = [IN_THE_STOMACH if row.name == STOMACH else ROOM for row in self.grid.rows]
        broken = np.where(over > SLACK, over, 0.0) * np.minimum(self.row_weight, heavy)
        return float(self.misses(way[None, :])[0] + np.sum(broken))

    def cost(self, ways: Ways) -> Vector:
        """What counts, as one number for each way: the smaller the better."""
        moved = (ways > 0) @ self.up + (ways < 0) @ self.down
        out = self.excess(ways) + self.misses(ways) + moved
        if self.energy_at is not None:
            aim = self.aims[self.energy_at]
            out = (
                out
                + NEAR
                * np.abs(self.totals(ways)[:, self.energy_at] - aim.aim)
                / self.per[self.energy_at]
            )
        more, less = np.maximum(ways, 0), np.maximum(-ways, 0)
        return np.asarray(out + more @ self.step_up + A_STEP * less.sum(axis=1))

    def best(self, ways: Ways) -> Ways | None:
        """The way that costs least among some that are within the parts' limits; None where there
        is none."""
        inside = ((ways >= self.least) & (ways <= self.most)).all(axis=1)
        ways = ways[inside]
        if not len(ways):
            return None
        cost = self.cost(ways)
        at = int(cost.argmin())
        return ways[at] if np.isfinite(cost[at]) else None

    def way_to(self, portions: Mapping[str, float]) -> Ways:
        """The way to these portions [g]."""
        return np.asarray(self.grid.steps_of(portions) - self.begin)

    def portions(self, way: Ways) -> dict[str, float]:
        """The portions of a way. [g]"""
        steps: npt_ints = (self.begin + way).astype(np.int64)
        return self.grid.portions(steps)

    def forced(self) -> Mapping[str, float]:
        """Parts that cannot stay as they are, and what they become. [g]"""
        grid = self.grid
        out = {
            part.key: float(grams)
            for part, grams in zip(grid.free, self.begin_g, strict=True)
            if abs(grams - part.grams) > 1e-6
        }
        return out | {
            part.key: grams for part, grams in grid.fixed if abs(grams - part.grams) > 1e-6
        }
