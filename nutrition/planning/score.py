"""What a planned week is judged by: sums that count one before the other, people first, then the
grams.

(1) `hard`: limits are kept on every day. (2) `pattern`: the rotation and the different dishes of a
kind. (3) `starved`: no day is so small that it is no plan. (4) `leading`: energy and protein, of
each day within a tenth, of the week within a twentieth. (5) `added`: little is put in besides. (6)
`watched`: the targets as averages of the week. (7) `off`: cooking falls on the cook's days. (8)
`waste`: little is left over. (9) `moved`: what the practitioner placed stays. (10) `variety`:
plants, colors, kinds of protein. (11) `rest`: few pots, usual portions, what is liked best, days
near to their aims.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field

from nutrition.planning.bounds import (
    day_bounds,
    eaten_on,
    mean,
    total,
    week_bounds,
)
from nutrition.planning.cooking import THROWN, Cooked, cookings, cost_of
from nutrition.planning.rotation import broken, weight_of
from nutrition.planning.week import Candidate, Choice, Planned, Slot, Week

# Whole numbers for what counts: so many to one aim, to one serving.
PER_AIM, PER_SERVING = 100_000, 100
# Weeks are as good as each other that differ by less than this: of energy and protein beyond what
# is allowed a fiftieth of an aim a day, of the averages a tenth of one, of how near the days are a
# quarter, both weighted. Nobody serves so exactly. Common practice, no source.
OF_LEADING, OF_WATCHED, OF_NEAR = 0.02, 0.1, 0.25
# Of the last sum: a pot, a serving from the freezer, a step away from the usual portion, a place
# further down what is liked, and a quarter of an aim a day away. Common practice, no source.
A_POT, FROM_FREEZER, A_STEP, A_PLACE, A_QUARTER = 40, 6, 4, 1, 4


@dataclass(frozen=True, kw_only=True)
class Score:
    """What counts, in its order; smaller is better. `pots` and `again`, how often a dish comes
    again, count in other orders only. `missed` is what the averages miss, weighted, in shares of an
    aim."""

    hard: int = 0
    pattern: int = 0
    starved: int = 0
    leading: int = 0
    added: int = 0
    watched: int = 0
    off: int = 0
    waste: int = 0
    moved: int = 0
    variety: int = 0
    rest: int = 0
    pots: int = 0
    again: int = 0
    missed: float = field(default=0.0, compare=False)

    def by(self, order: Sequence[str]) -> tuple[int, ...]:
        """The sums in an order, to compare weeks by."""
        return tuple(getattr(self, name) for name in order)


def score(week: Week, planned: Planned) -> Score | None:
    """What a planned week is worth; None where something cannot be cooked in time."""
    pots = cookings(week, planned)
    if pots is None:
        return None
    thrown, frozen, off, count, from_freezer = cost_of(pots, week.cook_days)
    eaten = {day: eaten_on(week, planned, day) for day in week.planned_days}
    days = max(len(eaten), 1)
    hard, starved, leading, near = 0.0, 0.0, 0.0, 0.0
    for day, some in eaten.items():
        held = day_bounds(week, day)
        hard += sum(one.miss(total(week, some, one)) for one in held.firm)
        starved += sum(one.miss(total(week, some, one)) for one in held.fed)
        leading += sum(one.miss(total(week, some, one)) for one in held.leading)
        near += sum(one.aim.weight * one.miss(total(week, some, one)) for one in held.near)
    over, missed = week_bounds(week), 0.0
    if eaten:
        leading += days * sum(one.miss(mean(week, planned, one)) for one in over.leading)
        missed = sum(one.aim.weight * one.miss(mean(week, planned, one)) for one in over.watched)
    return Score(
        hard=math.ceil(hard * PER_AIM - 0.5),
        pattern=weight_of(broken(week, planned)),
        starved=counted(starved, OF_LEADING * days),
        leading=counted(leading, OF_LEADING * days),
        added=sum(1 for slot in week.slots if slot.optional and planned.get(slot.key)),
        watched=counted(missed, OF_WATCHED),
        off=off,
        waste=round((thrown * THROWN + frozen) * PER_SERVING),
        moved=sum(moved(slot, planned.get(slot.key)) for slot in week.slots),
        variety=short_of_variety(week, planned),
        rest=count * A_POT
        + round(from_freezer * FROM_FREEZER)
        + likings(week, planned)
        + A_QUARTER * counted(near, OF_NEAR * days),
        pots=pots_cooked(pots),
        again=again(week, planned),
        missed=missed,
    )


def counted(missed: float, grain: float) -> int:
    """What is missed in grains that nobody tells apart, begun ones counted."""
    return math.ceil(missed / grain - 2e-3)


def pots_cooked(pots: Sequence[Cooked]) -> int:
    """The pots that take the stove or the oven."""
    return sum(1 for one in pots if one.prepared.cooks)


def moved(slot: Slot, choice: Choice | None) -> int:
    """How far a slot is from what was placed there: two for another dish, one for another
    portion."""
    if slot.placed is None or choice == slot.placed:
        return 0
    return 1 if choice is not None and choice.candidate == slot.placed.candidate else 2


def short_of_variety(week: Week, planned: Planned) -> int:
    """What is short of the variety that is liked: plants and kinds of protein of the week, colors
    of each day."""
    at = {key: choice.candidate for key, choice in planned.items() if choice is not None}
    candidates, wishes = week.by_key, week.wishes
    plants = frozenset().union(*(candidates[key].plants for key in at.values()))
    proteins = frozenset().union(*(candidates[key].proteins for key in at.values()))
    out = max(wishes.plants - len(plants), 0) + max(wishes.proteins - len(proteins), 0)
    for day in week.planned_days if wishes.colors else ():
        some = (at[slot.key] for slot in week.slots_of(day) if slot.key in at)
        colors = frozenset().union(*(candidates[key].colors for key in some))
        out += max(wishes.colors - len(colors), 0)
    return out


def again(week: Week, planned: Planned) -> int:
    """How often a dish stands where it varies and stood before."""
    some = [
        choice.candidate
        for slot in week.slots
        if slot.varies and (choice := planned.get(slot.key)) is not None
    ]
    return len(some) - len(set(some))


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
