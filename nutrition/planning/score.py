"""What a planned week is judged by.

In this order: (1) hard limits are kept on every day; (2) nothing that is cooked is thrown away;
(3) the days' targets, and the week's average of what needs no daily evenness, are met, weeks that
are less than a mouthful apart counting as equal; (4) little is left over and frozen, and cooking
falls on the cook's days; (5) what the practitioner placed stays; (6) variety is as the client likes
it; (7) few pots, usual portions, what is liked best.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field

from nutrition.composition.amounts import DENSITY
from nutrition.planning.cooking import cookings, cost_of
from nutrition.planning.week import Candidate, Choice, Planned, Slot, Week
from nutrition.targets.aim import Aim

# Weeks whose misses differ by less than this, in weighted shares of an aim per day, are as good as
# each other: nobody serves so exactly. Common practice, no source.
MOUTHFUL = 0.05
# Whole numbers for what counts: so many to one aim, to one serving.
PER_AIM, PER_SERVING = 10_000, 100
# Of the last sum: a pot, a serving from the freezer, a step away from the usual portion, a place
# further down what is liked. Common practice, no source.
A_POT, FROM_FREEZER, A_STEP, A_PLACE = 40, 6, 4, 1


@dataclass(frozen=True, kw_only=True)
class Bound:
    """One side of an aim: the sum over what is eaten must be at least (or at most) `limit`; `minus`
    is what a gram takes off, for a density [kcal/g]; `per` is what a miss is divided by."""

    key: str
    aim: Aim
    limit: float
    least: bool
    minus: float = 0.0
    per: float = 1.0

    @property
    def firm(self) -> bool:
        """Whether it is never broken."""
        return self.aim.firm_low if self.least else self.aim.firm_high

    @property
    def at_most(self) -> bool:
        """Whether what is unknown counts at its largest: toward a most that somebody wished for."""
        return not self.least and self.aim.weight > 0 and self.aim.key != DENSITY

    def miss(self, total: float) -> float:
        """What is short of it or beyond it, as a share of the aim."""
        off = self.limit - total if self.least else total - self.limit
        return max(off / self.per, 0.0)


def bounds_of(aims: Sequence[Aim], density_g: float) -> tuple[Bound, ...]:
    """The bounds of some aims; a density's as energy less so much for each gram, over a weight that
    is held [g]."""
    out = []
    for aim in aims:
        for limit, least in ((aim.low, True), (aim.high, False)):
            if limit is None:
                continue
            if aim.key == DENSITY:
                per = aim.per * density_g
                out.append(
                    Bound(key="energy_kcal", aim=aim, limit=0.0, least=least, minus=limit, per=per)
                )
            else:
                out.append(Bound(key=aim.key, aim=aim, limit=limit, least=least, per=aim.per))
    return tuple(out)


def brings(candidate: Candidate, bound: Bound) -> float:
    """What one of a candidate brings toward a bound, in the key's unit: toward a density nothing,
    where it is drunk."""
    if bound.minus and candidate.profile.only_drunk:
        return 0.0
    return candidate.brings(bound.key, bound.at_most) - bound.minus * candidate.grams


def besides(week: Week, bound: Bound) -> float:
    """What is eaten besides brings toward a bound. In the key's unit."""
    return week.base.get(bound.key, 0.0) - bound.minus * week.base_grams


@dataclass(frozen=True, kw_only=True, order=True)
class Score:
    """What counts, in its order; smaller is better. `hard`: broken limits, each over its aim.
    `thrown` and `frozen`: servings left over. `mouthfuls`: what the days and the week miss. `off`:
    pots on days that are not the cook's. `moved`: placed slots that changed. `same`: what is short
    of the variety that is liked. `rest`: pots, portions, liking."""

    hard: int
    thrown: int
    mouthfuls: int
    frozen: int
    off: int
    moved: int
    same: int
    rest: int
    missed: float = field(default=0.0, compare=False)


@dataclass(frozen=True, kw_only=True)
class Missed:
    """A bound that a day misses, or the week's average where `day` is None. In the key's unit."""

    day: int | None
    bound: Bound
    total: float
    by: float


def eaten_on(week: Week, planned: Planned, day: int) -> list[tuple[Candidate, float]]:
    """What is eaten on a day, and how much of each."""
    candidates = week.by_key
    return [
        (candidates[choice.candidate], choice.count)
        for slot in week.slots_of(day)
        if (choice := planned.get(slot.key)) is not None
    ]


def total(week: Week, eaten: Sequence[tuple[Candidate, float]], bound: Bound) -> float:
    """What a day comes to of a bound's key. In the key's unit."""
    return besides(week, bound) + sum(brings(one, bound) * count for one, count in eaten)


def misses(week: Week, planned: Planned) -> list[Missed]:
    """Every bound that is missed, by day, the week's averages last. Days without a slot are not
    judged."""
    out = []
    eaten = {day: eaten_on(week, planned, day) for day in range(week.days) if week.slots_of(day)}
    for day, some in eaten.items():
        for bound in bounds_of(week.aims, week.density_g):
            at = total(week, some, bound)
            if bound.miss(at) > 1e-7:
                out.append(Missed(day=day, bound=bound, total=at, by=bound.miss(at) * bound.per))
    for bound in bounds_of(week.over_week, week.density_g) if eaten else ():
        at = sum(total(week, some, bound) for some in eaten.values()) / len(eaten)
        if bound.miss(at) > 1e-7:
            out.append(Missed(day=None, bound=bound, total=at, by=bound.miss(at) * bound.per))
    return out


def score(week: Week, planned: Planned) -> Score | None:
    """What a planned week is worth; None where something cannot be cooked in time."""
    pots = cookings(week, planned)
    if pots is None:
        return None
    hard, soft = 0.0, 0.0
    days = max(len({slot.day for slot in week.slots}), 1)
    for one in misses(week, planned):
        share = one.by / one.bound.per
        times = days if one.day is None else 1
        if one.bound.firm:
            hard += share * times
        soft += share * times * one.bound.aim.weight
    thrown, frozen, off, count, from_freezer = cost_of(pots, week.cook_days)
    return Score(
        hard=math.ceil(hard * PER_AIM - 0.5),
        thrown=round(thrown * PER_SERVING),
        frozen=round(frozen * PER_SERVING),
        mouthfuls=mouthfuls(soft, days),
        off=off,
        moved=sum(moved(slot, planned.get(slot.key)) for slot in week.slots),
        same=sameness(week, planned),
        rest=count * A_POT + round(from_freezer * FROM_FREEZER) + likings(week, planned),
        missed=soft / days,
    )


def mouthfuls(missed: float, days: int) -> int:
    """Weighted misses of so many days, counted in mouthfuls."""
    return math.ceil(missed / (MOUTHFUL * days) - 1e-3)


def moved(slot: Slot, choice: Choice | None) -> int:
    """How far a slot is from what was placed there: two for another dish, one for another
    portion."""
    if slot.placed is None or choice == slot.placed:
        return 0
    return 1 if choice is not None and choice.candidate == slot.placed.candidate else 2


def runs(week: Week) -> list[list[list[Slot]]]:
    """The days in a row within which the same thing may not stand every day, each day as its slots
    of one meal that vary."""
    out = []
    long = week.wishes.in_a_row + 1
    for meal in dict.fromkeys(slot.meal for slot in week.slots if slot.varies):
        by_day = [
            [slot for slot in week.slots_of(day) if slot.meal == meal and slot.varies]
            for day in range(week.days)
        ]
        for first in range(week.days - long + 1):
            some = by_day[first : first + long]
            if all(some):
                out.append(some)
    return out


def sameness(week: Week, planned: Planned) -> int:
    """What is short of the variety that is liked: runs of the same thing that are too long, plants
    of the week, colors of each day."""
    at = {key: choice.candidate for key, choice in planned.items() if choice is not None}
    out = 0
    for run in runs(week):
        each = [{at.get(slot.key, "") for slot in day} - {""} for day in run]
        out += len(set.intersection(*each))
    candidates = week.by_key
    plants = frozenset().union(*(candidates[key].plants for key in at.values()))
    out += max(week.wishes.plants - len(plants), 0)
    if week.wishes.colors:
        for day in {slot.day for slot in week.slots}:
            some = (at[slot.key] for slot in week.slots_of(day) if slot.key in at)
            colors = frozenset().union(*(candidates[key].colors for key in some))
            out += max(week.wishes.colors - len(colors), 0)
    return out


def liking(slot: Slot, candidate: Candidate, count: float) -> int:
    """What a choice adds to the last sum: how far it is from the usual portion, and its place in
    what is liked."""
    usual = candidate.usual * slot.portion
    return A_STEP * round(abs(count - usual) / candidate.step) + A_PLACE * candidate.liked


def likings(week: Week, planned: Planned) -> int:
    """The same of a whole week."""
    candidates = week.by_key
    return sum(
        liking(slot, candidates[choice.candidate], choice.count)
        for slot in week.slots
        if (choice := planned.get(slot.key)) is not None
    )
