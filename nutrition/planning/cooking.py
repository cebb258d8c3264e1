"""When to cook what is eaten: on the cook's days first, then with the fewest leftovers, then in the
fewest pots."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations

from nutrition.planning.week import (
    DAY_BEFORE,
    EVENING_BEFORE,
    Planned,
    Prepared,
    Week,
    eaten_by_day,
)

# Less of a serving than this is nothing.
CRUMB = 0.005


@dataclass(frozen=True, kw_only=True)
class Cooked:
    """One cooking: on which day, how many servings, and what is eaten of it on which days. What is
    eaten on a day after it `keeps` comes from the freezer."""

    prepared: Prepared
    day: int
    made: float
    eaten: tuple[tuple[int, float], ...]

    @property
    def left(self) -> float:
        """Servings that nobody eats this week."""
        return max(self.made - sum(servings for _day, servings in self.eaten), 0.0)

    @property
    def thrown(self) -> float:
        """Servings left over that cannot be frozen."""
        return 0.0 if self.prepared.freezes else self.left

    @property
    def frozen(self) -> tuple[tuple[int, float], ...]:
        """What is eaten from the freezer: on which day, how many servings."""
        last = self.day + self.prepared.keeps
        return tuple((day, servings) for day, servings in self.eaten if day > last)

    @property
    def last_day(self) -> int:
        """The last day on which it may be eaten without having been frozen."""
        return self.day + self.prepared.keeps


# What counts of a cooking plan: servings thrown away, servings left and frozen, pots on days that
# are not the cook's, pots, servings eaten from the freezer.
Cost = tuple[float, float, int, int, float]
# What is thrown away counts so many times what is frozen. Common practice, no source.
THROWN = 2
NOTHING: Cost = (0.0, 0.0, 0, 0, 0.0)


def _rounded(value: float) -> float:
    return round(value, 2)


def _cost(prepared: Prepared, day: int, eaten: Sequence[tuple[int, float]], mine: bool) -> Cost:
    made = prepared.made_for(sum(servings for _day, servings in eaten))
    one = Cooked(prepared=prepared, day=day, made=made, eaten=tuple(eaten))
    left = _rounded(one.left)
    off = int(prepared.cooks and not mine)
    frozen = _rounded(sum(servings for _day, servings in one.frozen))
    return (0.0, left, off, 1, frozen) if prepared.freezes else (left, 0.0, off, 1, frozen)


def _sum(one: Cost, other: Cost) -> Cost:
    return (
        _rounded(one[0] + other[0]),
        _rounded(one[1] + other[1]),
        one[2] + other[2],
        one[3] + other[3],
        _rounded(one[4] + other[4]),
    )


# So many days with something eaten are divided among pots in every way; more are eaten up pot by
# pot.
EVERY_WAY = 5


def _order(cost: Cost) -> tuple[float, ...]:
    """What a cooking plan costs, in the order in which it counts: the cook's days, waste, pots, the
    freezer."""
    thrown, frozen, off, pots, thawed = cost
    return off, _rounded(thrown * THROWN + frozen), pots, thawed


@lru_cache(maxsize=50_000)
def cook(
    prepared: Prepared,
    eaten: tuple[float, ...],
    cook_days: frozenset[int],
    first_evening: int = EVENING_BEFORE,
) -> tuple[Cooked, ...] | None:
    """The cookings for servings that are eaten on each day, best first by what counts. Each day
    eats of one pot; what is soaked has an evening before, `first_evening` or a later one. None
    where a day cannot be served."""
    wanted = tuple((day, servings) for day, servings in enumerate(eaten) if servings > CRUMB)
    found = _cooked(prepared, wanted, cook_days, first_evening)
    return None if found is None else found[1]


def _cooked(
    prepared: Prepared,
    wanted: tuple[tuple[int, float], ...],
    cook_days: frozenset[int],
    first_evening: int,
) -> tuple[Cost, tuple[Cooked, ...]] | None:
    """What counts, and the cookings: the pot of the first day with every way of sharing it."""
    if not wanted:
        return NOTHING, ()
    best: tuple[Cost, tuple[Cooked, ...]] | None = None
    for pot in _with_the_first(wanted):
        total = sum(servings for _day, servings in pot)
        if total > prepared.most + CRUMB:
            continue
        days = _days_for(prepared, pot, first_evening)
        if not days:
            continue
        others = tuple(one for one in wanted if one not in pot)
        rest = _cooked(prepared, others, cook_days, first_evening)
        if rest is None:
            continue
        for day in days:
            cost = _sum(_cost(prepared, day, pot, day in cook_days), rest[0])
            if best is None or _order(cost) < _order(best[0]):
                made = prepared.made_for(total)
                one = Cooked(prepared=prepared, day=day, made=made, eaten=pot)
                best = cost, (one, *rest[1])
    return best


def _with_the_first(
    wanted: tuple[tuple[int, float], ...],
) -> Iterator[tuple[tuple[int, float], ...]]:
    """The sets of meals that the first shares a pot with, the first alone to begin with."""
    first, others = wanted[:1], wanted[1:]
    if len(wanted) > EVERY_WAY:
        for end in range(len(wanted)):
            yield (*first, *others[:end])
        return
    for size in range(len(others) + 1):
        for some in combinations(others, size):
            yield (*first, *some)


def _days_for(
    prepared: Prepared, some: Sequence[tuple[int, float]], first_evening: int
) -> list[int]:
    """The days on which some meals can be cooked for, the latest first: the fresher the better."""
    first, last = some[0][0], some[-1][0]
    earliest = DAY_BEFORE if prepared.freezes else max(last - prepared.keeps, DAY_BEFORE)
    if prepared.soaks:
        earliest = max(earliest, first_evening + 1)
    return list(range(first, earliest - 1, -1))


def cost_of(cooked: Sequence[Cooked], cook_days: Collection[int]) -> Cost:
    """What counts of some cookings, together."""
    total = NOTHING
    for one in cooked:
        total = _sum(total, _cost(one.prepared, one.day, one.eaten, one.day in cook_days))
    return total


def cookings(week: Week, planned: Planned) -> list[Cooked] | None:
    """Everything that is cooked for a planned week, by day. None where something cannot be eaten in
    time."""
    out: list[Cooked] = []
    for key, eaten in eaten_by_day(week, planned).items():
        servings = tuple(_rounded(one) for one in eaten)
        pots = cook(week.made[key], servings, week.cook_days, week.first_evening)
        if pots is None:
            return None
        out += pots
    return sorted(out, key=lambda one: (one.day, one.prepared.name))
