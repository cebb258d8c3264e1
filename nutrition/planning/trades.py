"""What a planned week gives up for what, beside another: pots, dishes, plants, what the averages of
the targets miss, and days that are off."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nutrition.planning.bounds import LEADING, Bound, day_bounds, eaten_on, mean, total, week_bounds
from nutrition.planning.cooking import Cooked
from nutrition.planning.score import pots_cooked
from nutrition.planning.week import Planned, Week

# A difference of an average below this share of its aim is nobody's to notice. Common practice, no
# source. [share]
NOTICED = 0.02
POTS, OFF_DAYS, WASTE, DISHES, PLANTS, ADDED, SHORT = (
    *("pots", "pots on other days", "servings left over", "dishes", "plants", "additions"),
    "missed",
)
# Of these more is better.
MORE_IS_BETTER = (DISHES, PLANTS)


@dataclass(frozen=True, kw_only=True)
class Trade:
    """A way in which two weeks differ: of which kind, how much it is in the one and the other. A
    target that is missed has its bound, and the days on which it is, none for the average of the
    week; its amounts are what is missed. In the key's unit."""

    kind: str
    one: float
    other: float
    bound: Bound | None = None
    days: int | None = None

    @property
    def better(self) -> bool:
        """Whether the one is better."""
        return self.one > self.other if self.kind in MORE_IS_BETTER else self.one < self.other


def trades(
    week: Week, one: tuple[Planned, Sequence[Cooked]], other: tuple[Planned, Sequence[Cooked]]
) -> list[Trade]:
    """All the ways in which one week differs from another."""
    counts = zip(_counts(week, *one).items(), _counts(week, *other).values(), strict=True)
    out = [
        Trade(kind=kind, one=mine, other=theirs)
        for (kind, mine), theirs in counts
        if abs(mine - theirs) > 0.05
    ]
    return [*out, *_missed(week, one[0], other[0]), *_days_off(week, one[0], other[0])]


def _counts(week: Week, planned: Planned, pots: Sequence[Cooked]) -> dict[str, float]:
    stands = [
        (slot, choice)
        for slot in week.slots
        if (choice := planned.get(slot.key)) is not None and not slot.optional
    ]
    candidates = week.by_key
    plants = frozenset().union(*(candidates[choice.candidate].plants for _slot, choice in stands))
    cook_days = week.cook_days
    return {
        POTS: pots_cooked(pots),
        OFF_DAYS: sum(1 for pot in pots if pot.prepared.cooks and pot.day not in cook_days),
        WASTE: sum(pot.left for pot in pots),
        DISHES: len({choice.candidate for slot, choice in stands if slot.varies}),
        PLANTS: len(plants),
        ADDED: sum(1 for slot in week.slots if slot.optional and planned.get(slot.key)),
    }


def _missed(week: Week, one: Planned, other: Planned) -> list[Trade]:
    """What the average day misses of a target more in the one than in the other."""
    out = []
    for bound in week_bounds(week).watched if week.planned_days else ():
        mine, theirs = (bound.miss(mean(week, some, bound)) for some in (one, other))
        if abs(mine - theirs) > NOTICED:
            by = bound.per
            out.append(Trade(kind=SHORT, one=mine * by, other=theirs * by, bound=bound))
    return out


def _days_off(week: Week, one: Planned, other: Planned) -> list[Trade]:
    """The days on which energy or protein are beyond their tenth, more in the one than in the
    other: the farthest of them."""
    found: dict[tuple[str, bool], list[list[float]]] = {}
    bounds: dict[tuple[str, bool], Bound] = {}
    for day in week.planned_days:
        for bound in day_bounds(week, day).leading:
            key = bound.aim.key, bound.least
            bounds[key] = bound
            rows = found.setdefault(key, [[], []])
            for some, row in zip((one, other), rows, strict=True):
                off = bound.miss(total(week, eaten_on(week, some, day), bound))
                row += [off * bound.per] if off > 1e-6 else []
    return [
        Trade(
            kind=SHORT,
            one=max(mine, default=0.0),
            other=max(theirs, default=0.0),
            bound=bounds[key],
            days=len(mine) if len(mine) > len(theirs) else len(theirs),
        )
        for key, (mine, theirs) in found.items()
        if len(mine) != len(theirs) and key[0] in LEADING
    ]
