"""Portions that meet targets: the problem in words and numbers, and how far given portions are from
it.

In this order: (1) hard limits are never broken; (2) the weighted sum, over targets, of the
shortfall under the least or the excess over the most, each divided by its aim, is smallest; (3) the
weighted sum of |total - aim| / aim is smallest; (4) the change from the practitioner's own
portions, in kitchen-sized steps, is smallest.
"""

# Whole: the problem in words and in arrays, which must agree.

from __future__ import annotations

import math
from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from operator import mul

import numpy as np

from nutrition.composition.amounts import DENSITY
from nutrition.composition.errors import CoreError
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.portion import Portion
from nutrition.composition.profile import Vector
from nutrition.safety.gate import OPEN, Gate
from nutrition.targets.aim import SLACK, Aim

MOST_PARTS, MOST_STEPS = 80, 400
# The upper level of manganese rests on what vegetarians eat without harm: whole grains, greens and
# beans pass it by themselves. Dietary Reference Intakes (2001), from memory; that it then gives
# way, and that of it only what is known counts: common practice, no source.
OF_PLANTS = ("manganese_mg",)


class BadProblem(CoreError):
    """A problem that cannot be posed; `field` names what is wrong."""

    def __init__(self, field_name: str, message: str) -> None:
        super().__init__(message, field_name)


@dataclass(frozen=True)
class PlateShare:
    """A share of the plate's volume [0 to 1] that some parts must take, give or take `give`."""

    name: str
    ids: frozenset[str]
    share: float
    give: float = 0.07


STOMACH = "stomach"


@dataclass(frozen=True)
class Room:
    """What a meal of some parts may take after gastric surgery, drinks apart. [mL]"""

    ids: frozenset[str]
    ml: float


@dataclass(frozen=True, kw_only=True)
class Problem:
    """Parts, targets, what is eaten besides (`base`, by key; `base_grams` [g]) and the constraints
    that are switched on. [mL]

    Of a limit that nobody wished for, an upper level, only what is known counts where its key is in
    `known_only`. `cooks`: portions are changed as a cook would, few at a time; `eats_little`: what
    is put on the plate counts against an answer; `richer`: what is short is made up by what is
    rich, not by more. `judged_as` says which meal it was taken for, `meal` is its key. What may be
    added is let through by the `gate`.
    """

    parts: tuple[Portion, ...]
    aims: tuple[Aim, ...]
    base: Mapping[str, float] = field(default_factory=dict)
    base_grams: float = 0.0
    vessel_ml: float | None = None
    rooms: tuple[Room, ...] = ()
    plate: tuple[PlateShare, ...] = ()
    known_only: frozenset[str] = frozenset()
    cooks: bool = False
    eats_little: bool = False
    richer: bool = False
    judged_as: str = ""
    meal: str = ""
    gate: Gate = OPEN

    def __post_init__(self) -> None:
        if len({part.key for part in self.parts}) != len(self.parts):
            raise BadProblem("parts", "two parts have the same id")
        if len(self.parts) > MOST_PARTS:
            raise BadProblem("parts", f"more than {MOST_PARTS} parts")
        for part in self.parts:
            if part.locked:
                continue
            if not part.limits.step > 0 or not math.isfinite(part.limits.step):
                raise BadProblem("step_grams", f"the step of {part.key} must be above zero")
            if not 0 <= part.limits.least <= part.limits.most:
                raise BadProblem(
                    "min_grams",
                    f"the least of {part.key} must be zero or more and not over its most",
                )
            if part.choices > MOST_STEPS:
                raise BadProblem(
                    "step_grams",
                    f"{part.key} has more than {MOST_STEPS} steps: make the step larger",
                )
        for aim in self.aims:
            if aim.low is not None and aim.high is not None and aim.low > aim.high:
                raise BadProblem("targets", f"the least of {aim.key} is over its most")
            if aim.weight < 0:
                raise BadProblem("targets", f"the weight of {aim.key} is below zero")

    def is_unknown(self, aim: Aim) -> bool:
        """Whether some part's amount of a target is not wholly known, and counts at its largest."""
        counts = aim.weight > 0 or (aim.firm_high and aim.key not in self.known_only)
        return counts and aim.key in self._unknown

    @cached_property
    def _unknown(self) -> frozenset[str]:
        """What is not wholly known of some part."""
        return frozenset().union(*(part.unknown for part in self.parts))

    @cached_property
    def _toward(self) -> dict[str, list[float]]:
        return {}

    def toward(self, key: str) -> list[float]:
        """What one gram of each part brings toward a target's key, as a part says it."""
        if key not in self._toward:
            self._toward[key] = [part.toward(key) for part in self.parts]
        return self._toward[key]

    def without_hopeless_limits(self) -> Problem:
        """The same, with the limits that nobody wished for counting only what is known where what
        is unknown alone passes them: that is told beside the answer, and nothing could move. A
        limit that whole plants pass by themselves is left out."""
        now = {part.key: part.grams for part in self.parts}
        known, most = totals(self, now), at_most(self, now)
        hopeless = {
            aim.key
            for aim in self.aims
            if aim.weight <= 0
            and aim.high is not None
            and max(known[aim.key], aim.high) < most[aim.key]
        }
        kept = tuple(aim for aim in self.aims if aim.weight > 0 or aim.key not in OF_PLANTS)
        return replace(self, aims=kept, known_only=frozenset(hopeless).union(OF_PLANTS))

    def with_what_may_go(self) -> Problem:
        """The same; what alone, at its least, passes a limit that is never broken may be left
        out."""

        def may_go(part: Portion) -> bool:
            least = part.limits.least
            free = not (part.locked or part.limits.stated)
            return free and any(
                aim.firm_high
                and aim.weight > 0
                and part.amount(aim.key) * least > (aim.high or 0.0)
                for aim in self.aims
            )

        def gone(part: Portion) -> Portion:
            limits = part.limits
            step = part.grams / max(round(part.grams / limits.step), 1)
            freed = replace(limits, least=0.0, step=step, keeps=False, first=True)
            return replace(part, limits=freed)

        parts = tuple(gone(part) if may_go(part) else part for part in self.parts)
        return replace(self, parts=parts)

    def with_part(self, part: Portion) -> Problem:
        """The same with a part in place of the one of its id, or added."""
        if any(own.key == part.key for own in self.parts):
            return replace(
                self, parts=tuple(part if own.key == part.key else own for own in self.parts)
            )
        # what is added to a meal takes its room in the stomach
        rooms = tuple(replace(room, ids=room.ids | {part.key}) for room in self.rooms[:1])
        return replace(self, parts=(*self.parts, part), rooms=(*rooms, *self.rooms[1:]))

    def with_aim(self, aim: Aim) -> Problem:
        """The same with a target in place of the one of its key."""
        return replace(self, aims=tuple(aim if own.key == aim.key else own for own in self.aims))


@dataclass(frozen=True)
class Row:
    """Something linear that must stay at or under `most`: the sum of `per_step` times steps. `name`
    says what it is; of a nutrient's most `whole` is all of the limit, over its aim."""

    name: str
    per_step: Vector
    most: float
    whole: float = 0.0


@dataclass(frozen=True)
class Wish:
    """A target, or one bound of it, that is linear in the portions: `minus` is what a gram takes
    off [kcal/g], `far` whether the distance from its aim counts, `at_most` whether what is unknown
    counts at its largest."""

    aim: Aim
    minus: float = 0.0
    far: bool = True
    at_most: bool = False


def _linear(aim: Aim, unknown: bool) -> list[Wish]:
    """A target as linear ones: a density's bounds and its aim are told apart, and so is a most of
    which something is unknown."""
    if aim.key != DENSITY:
        if not unknown or aim.high is None:
            return [Wish(aim)]
        return [
            Wish(replace(aim, high=None)),
            Wish(replace(aim, low=None), far=False, at_most=True),
        ]
    out = [Wish(replace(aim, low=None, high=None), aim.aim)]
    out += (
        [Wish(replace(aim, low=aim.low, high=None), aim.low, aim.low == aim.aim)] if aim.low else []
    )
    return out + (
        [Wish(replace(aim, low=None), aim.high, aim.high == aim.aim)]
        if aim.high is not None
        else []
    )


class Grid:
    """A problem as arrays over its parts that can move: totals = start + per_step @ steps, divided
    by each aim and weighted."""

    def __init__(self, problem: Problem, density_g: float | None = None) -> None:
        """`density_g` is the weight that a calorie density is referred to. [g] None for that of the
        practitioner's own portions."""
        self.problem = problem
        self.free = [part for part in problem.parts if part.choices > 0]
        self.fixed = [(part, part.at(0)) for part in problem.parts if part.choices == 0]
        self.steps = np.array([part.choices for part in self.free], dtype=np.int64)
        self.step_g = np.array([part.limits.step for part in self.free])
        self.least = np.array([part.limits.least for part in self.free])
        self.own = np.array([part.grams for part in self.free])
        self.soft = [
            one
            for aim in problem.aims
            if aim.weight > 0 or aim.firm
            for one in _linear(aim, problem.is_unknown(aim))
        ]
        density_g = self._own_grams() if density_g is None else density_g
        start, per_step = [], []
        for wish in self.soft:
            aim = wish.aim
            # calorie density is a ratio: as energy less a bound times weight, over a weight that is
            # held, it is linear
            density = aim.key == DENSITY
            at, each = self._sum_of(aim.key, wish.minus, wish.at_most)
            divide = aim.per * (density_g if density else 1.0)
            start.append(at / divide)
            per_step.append(each / divide)
        shape = (len(self.soft), len(self.free))
        self.start, self.per_step = np.array(start), np.array(per_step).reshape(shape)
        self.low = self._over_aims(wish.aim.low for wish in self.soft)
        self.aim = self._over_aims(wish.aim.aim for wish in self.soft)
        self.high = self._over_aims(wish.aim.high for wish in self.soft)
        self.weight = np.array([wish.aim.weight for wish in self.soft])
        # distances count once, though the bounds of a target may be rows of their own
        self.far = np.array([wish.aim.weight if wish.far else 0.0 for wish in self.soft])
        self.rows = self._rows()

    @classmethod
    def around(cls, problem: Problem, portions: Mapping[str, float]) -> Grid:
        """The grid with a calorie density referred to what these portions weigh. [g]"""
        food = (part.is_food * portions[part.key] for part in problem.parts)
        return cls(problem, max(sum(food) + problem.base_grams, 1.0))

    def _over_aims(self, values: Iterable[float | None]) -> Vector:
        """Bounds or aims as shares of each aim, NaN for an open one."""
        pairs = zip(self.soft, values, strict=True)
        return np.array(
            [
                np.nan if value is None else (value - wish.minus) / wish.aim.per
                for wish, value in pairs
            ]
        )

    def _own_grams(self) -> float:
        """The weight of the practitioner's own portions and what is eaten besides. [g]"""
        food = sum(part.is_food * part.grams for part in self.problem.parts)
        return max(food + self.problem.base_grams, 1.0)

    def _sum_of(
        self, key: str, minus_per_gram: float = 0.0, at_most: bool = False
    ) -> tuple[float, Vector]:
        """A key's total at the least portions, and what each step adds."""

        def each(part: Portion) -> float:
            if at_most and key != DENSITY:
                return part.at_most(key) - minus_per_gram
            return part.toward(key) - minus_per_gram * part.is_food

        start = based_on(self.problem, key) - minus_per_gram * self.problem.base_grams
        start += sum(each(part) * grams for part, grams in self.fixed)
        start += sum(each(part) * part.limits.least for part in self.free)
        return start, np.array([each(part) * part.limits.step for part in self.free])

    def _rows(self) -> list[Row]:
        rows = []
        for i, wish in enumerate(self.soft):
            aim = wish.aim
            if aim.firm_high and aim.high is not None:
                to_high = float(self.high[i] - self.start[i])
                rows.append(Row(aim.key, self.per_step[i], to_high, max(float(self.high[i]), 0.0)))
            if aim.firm_low and aim.low is not None:
                rows.append(Row(aim.key, -self.per_step[i], float(self.start[i] - self.low[i])))
        if self.problem.vessel_ml is not None:
            at, each = self._volume({part.key: 1.0 for part in self.problem.parts})
            rows.append(
                Row("vessel", each / self.problem.vessel_ml, 1.0 - at / self.problem.vessel_ml)
            )
        for room in self.problem.rooms:
            at, each = self._weight(room.ids)
            rows.append(Row(STOMACH, each / room.ml, 1.0 - at / room.ml))
        star = next((part for part in self.problem.parts if part.star), None)
        for other in self.problem.parts if star else ():
            if star and other.key != star.key and other.role != "base":
                at, each = self._volume({other.key: 1.0, star.key: -1.0})
                rows.append(Row("star", each / 100.0, -at / 100.0))
        for share in self.problem.plate:
            for sign in (1.0, -1.0):
                wanted = share.share + sign * share.give
                at, each = self._volume(
                    {
                        part.key: sign * ((part.key in share.ids) - wanted)
                        for part in self.problem.parts
                    }
                )
                rows.append(Row(f"plate: {share.name}", each / 100.0, -at / 100.0))
        return rows

    def _volume(self, factors: Mapping[str, float]) -> tuple[float, Vector]:
        """The sum of each part's volume times its factor at the least portions, and what each step
        adds. [mL]"""

        def ml(part: Portion, grams: float) -> float:
            return factors.get(part.key, 0.0) * part.ml_per_gram * grams

        at = sum(ml(part, grams) for part, grams in self.fixed) + sum(
            ml(part, part.limits.least) for part in self.free
        )
        return at, np.array([ml(part, part.limits.step) for part in self.free])

    def _weight(self, ids: Collection[str]) -> tuple[float, Vector]:
        """What these parts weigh at the least portions, and what each step adds: a gram is taken
        for a milliliter of stomach. [g]"""
        at = sum(grams for part, grams in self.fixed if part.key in ids)
        at += sum(part.limits.least for part in self.free if part.key in ids)
        steps = [part.limits.step if part.key in ids else 0.0 for part in self.free]
        return at, np.array(steps)

    def own_steps(self) -> npt_ints:
        """The steps nearest to the practitioner's own portions."""
        nearest: npt_ints = np.clip(
            np.rint((self.own - self.least) / self.step_g), 0, self.steps
        ).astype(np.int64)
        return nearest

    def steps_of(self, portions: Mapping[str, float]) -> npt_ints:
        """The steps of portions that are some. [g]"""
        return np.array(
            [
                round((portions[part.key] - part.limits.least) / part.limits.step)
                for part in self.free
            ],
            dtype=np.int64,
        )

    def totals(self, steps: npt_ints) -> Vector:
        """Every target's total over its aim."""
        return np.asarray(self.start + self.per_step @ steps)

    def broken(self, steps: npt_ints) -> list[str]:
        """Names of the hard limits that these steps break."""
        return [row.name for row in self.rows if float(row.per_step @ steps) > row.most + SLACK]

    def violation(self, steps: npt_ints) -> float:
        """(2): the weighted misses, each over its aim."""
        at = self.totals(steps)
        under, over = np.nan_to_num(self.low - at, nan=0.0), np.nan_to_num(at - self.high, nan=0.0)
        missed = np.maximum(under, 0.0) + np.maximum(over, 0.0)
        return float((self.weight * np.where(missed > SLACK, missed, 0.0)).sum())

    def deviation(self, steps: npt_ints) -> float:
        """(3): the weighted distances from the aims, each over its aim."""
        return float((self.far * np.abs(self.totals(steps) - self.aim)).sum())

    def change(self, steps: npt_ints) -> float:
        """(4): how many steps away from the practitioner's own portions."""
        return float((np.abs(self.least + steps * self.step_g - self.own) / self.step_g).sum())

    def portions(self, steps: npt_ints) -> dict[str, float]:
        """Grams by part, in the order of the problem. [g]"""
        moved = {part.key: part.at(int(n)) for part, n in zip(self.free, steps, strict=True)}
        return {part.key: moved.get(part.key, part.at(0)) for part in self.problem.parts}


npt_ints = np.ndarray[tuple[int], np.dtype[np.int64]]


def based_on(problem: Problem, key: str) -> float:
    """What is eaten besides brings toward a key; for a calorie density its energy."""
    return problem.base.get("energy_kcal" if key == DENSITY else key, 0.0)


def totals(problem: Problem, portions: Mapping[str, float]) -> dict[str, float]:
    """What portions [g] bring of every target, what is eaten besides counted in. In each key's
    unit."""
    out = {}
    each = [portions[part.key] for part in problem.parts]
    food = sum(part.is_food * one for part, one in zip(problem.parts, each, strict=True))
    grams = problem.base_grams + food
    for aim in problem.aims:
        total = based_on(problem, aim.key) + sum(map(mul, problem.toward(aim.key), each))
        out[aim.key] = total / grams if aim.key == DENSITY and grams > 0 else total
    return out


def at_most(problem: Problem, portions: Mapping[str, float]) -> dict[str, float]:
    """What portions [g] bring of every target at most, with what is unknown at its largest. In each
    key's unit."""
    out = totals(problem, portions)
    for aim in problem.aims:
        if problem.is_unknown(aim):
            out[aim.key] += sum(
                part.unknown.get(aim.key, 0.0) * portions[part.key] for part in problem.parts
            )
    return out


def sums(
    problem: Problem, found: Mapping[str, float], most: Mapping[str, float]
) -> tuple[float, float]:
    """The sums (2) and (3) for totals by key, known and at most, as they are defined: weighted
    misses, and weighted distances, each over its aim."""
    missed = sum(
        aim.weight * aim.missed(found[aim.key], most[aim.key]) / aim.per for aim in problem.aims
    )
    return missed, sum(aim.weight * abs(found[aim.key] - aim.aim) / aim.per for aim in problem.aims)


NOT_NUTRIENTS = {
    "vessel": "what the vessel holds",
    "star": "the star stays the largest",
    STOMACH: "what a stomach holds after surgery",
}


def name_of(key: str) -> str:
    """A limit's name in words: a nutrient, the vessel, the star, the plate."""
    return NUTRIENT[key].name if key in NUTRIENT else NOT_NUTRIENTS.get(key, key)
