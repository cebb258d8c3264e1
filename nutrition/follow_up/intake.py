"""What was eaten against what was planned: averages over the days that were logged, and where the
plate parts from the plan."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from datetime import date
from functools import cached_property

from nutrition.composition.amounts import amount_of
from nutrition.composition.portion import Portion
from nutrition.composition.profile import Amount, Profile

WEEKEND = (5, 6)
# A difference of a meal, a food or a weekday under this is within what eyes measure by. [kcal/day]
# Common practice, no source.
WORTH_SAYING_KCAL = 30.0
MOST_SAID = 6


@dataclass(frozen=True)
class Bite:
    """A portion that was eaten, or planned, in a meal."""

    meal: str
    portion: Portion


@dataclass(frozen=True, kw_only=True)
class LoggedDay:
    """A day of the record. `whole`: everything that was eaten is there; a day of which only some
    is known is not `whole`, and what is not logged is unknown, never zero."""

    on: date
    whole: bool
    eaten: tuple[Bite, ...]
    planned: tuple[Bite, ...] = ()
    supplements: Profile | None = None

    @cached_property
    def profile(self) -> Profile:
        """All that is known to be eaten, supplements included."""
        food = Profile.total(one.portion.profile for one in self.eaten)
        return food + self.supplements if self.supplements is not None else food

    @property
    def kcal(self) -> float:
        return float(self.profile["energy_kcal"].amount)


@dataclass(frozen=True, kw_only=True)
class Average:
    """A mean over `days` logged days with its 95 % range: what the amounts are measured by, and how
    the days differ, together. In the key's unit a day. `complete`: nothing of it is unknown."""

    key: str
    mean: float
    low: float
    high: float
    days: int
    complete: bool

    @property
    def amount(self) -> Amount:
        """The same as an amount: what is not settled can only add to it."""
        return Amount(
            amount=self.mean,
            low=self.low,
            high=self.high,
            known=1.0 if self.complete else 0.9,
            could_add=0.0 if self.complete else math.inf,
        )


def whole_days(days: Iterable[LoggedDay]) -> list[LoggedDay]:
    """The days on which everything was logged, oldest first."""
    return sorted((day for day in days if day.whole), key=lambda day: day.on)


def average(days: Sequence[LoggedDay], key: str) -> Average | None:
    """The mean of a target's key over whole days; None without one."""
    amounts = [amount_of(day.profile, key) for day in whole_days(days)]
    if not amounts:
        return None
    n = len(amounts)
    values = [one.amount for one in amounts]
    mean = sum(values) / n
    down = math.sqrt(sum((one.amount - one.low) ** 2 for one in amounts)) / n
    up = math.sqrt(sum((one.high - one.amount) ** 2 for one in amounts)) / n
    between = 0.0
    if n > 1:
        variance = sum((value - mean) ** 2 for value in values) / (n - 1)
        between = 1.96 * math.sqrt(variance / n)
    low = mean - math.hypot(down, between)
    low = max(low, 0.0) if min(values) >= 0 else low
    complete = all(one.complete for one in amounts)
    return Average(
        key=key,
        mean=mean,
        low=low,
        high=mean + math.hypot(up, between),
        days=n,
        complete=complete,
    )


@dataclass(frozen=True, kw_only=True)
class Apart:
    """Something that was eaten other than planned: `by` more, or less [kcal/day], on how many of
    the days that were logged and planned both; `grams` more a day, where it is one food."""

    name: str
    by: float
    planned: float
    eaten: float
    days: int
    grams: float = 0.0


@dataclass(frozen=True, kw_only=True)
class Parted:
    """Where the plate parts from the plan, largest first."""

    days: int
    meals: tuple[Apart, ...]
    foods: tuple[Apart, ...]
    weekdays: tuple[Apart, ...]
    total: float


def _kcal(bites: Iterable[Bite]) -> float:
    return float(sum(one.portion.profile["energy_kcal"].amount for one in bites))


def by_food(bites: Iterable[Bite]) -> dict[str, tuple[float, float]]:
    """Energy and grams of each food that is in them. [kcal], [g]"""
    out: dict[str, tuple[float, float]] = {}
    for bite in bites:
        for part in bite.portion.foods:
            per = part.food.per_100_g("energy_kcal")
            if per is None:
                continue
            kcal, grams = out.get(part.food.name, (0.0, 0.0))
            out[part.food.name] = (kcal + per * part.grams / 100.0, grams + part.grams)
    return out


def parted(days: Sequence[LoggedDay]) -> Parted | None:
    """The plate against the plan, over whole days that had a plan; None without one."""
    both = [day for day in whole_days(days) if day.planned]
    if not both:
        return None
    n = len(both)
    meals = dict.fromkeys(bite.meal for day in both for bite in (*day.planned, *day.eaten))
    of_meals = [
        _apart(
            meal,
            n,
            [_kcal(one for one in day.planned if one.meal == meal) for day in both],
            [_kcal(one for one in day.eaten if one.meal == meal) for day in both],
        )
        for meal in meals
    ]
    planned = [by_food(day.planned) for day in both]
    eaten = [by_food(day.eaten) for day in both]
    names = dict.fromkeys(name for row in (*planned, *eaten) for name in row)
    of_foods = []
    for name in names:
        one = _apart(
            name,
            n,
            [row.get(name, (0.0, 0.0))[0] for row in planned],
            [row.get(name, (0.0, 0.0))[0] for row in eaten],
        )
        more = sum(row.get(name, (0.0, 0.0))[1] for row in eaten)
        more -= sum(row.get(name, (0.0, 0.0))[1] for row in planned)
        of_foods.append(replace(one, grams=more / n))
    of_weekdays = []
    for weekday in range(7):
        mine = [day for day in both if day.on.weekday() == weekday]
        if mine:
            of_weekdays.append(
                _apart(
                    f"{mine[0].on:%A}",
                    len(mine),
                    [_kcal(day.planned) for day in mine],
                    [_kcal(day.eaten) for day in mine],
                )
            )
    total = sum(_kcal(day.eaten) - _kcal(day.planned) for day in both) / n
    return Parted(
        days=n,
        meals=_worth(of_meals),
        foods=_worth(of_foods),
        weekdays=_worth(of_weekdays),
        total=total,
    )


def _apart(name: str, days: int, planned: Sequence[float], eaten: Sequence[float]) -> Apart:
    differ = sum(1 for one, other in zip(planned, eaten, strict=True) if abs(one - other) > 1.0)
    before, after = sum(planned) / days, sum(eaten) / days
    return Apart(name=name, by=after - before, planned=before, eaten=after, days=differ)


def _worth(rows: Iterable[Apart]) -> tuple[Apart, ...]:
    kept = [one for one in rows if abs(one.by) >= WORTH_SAYING_KCAL]
    return tuple(sorted(kept, key=lambda one: -abs(one.by))[:MOST_SAID])


@dataclass(frozen=True, kw_only=True)
class Grew:
    """A food of which more is eaten than before, on days that were logged. [g/day], [kcal/day]"""

    name: str
    before_g: float
    after_g: float
    kcal: float
    # how far the difference may be off, one standard deviation [kcal/day]
    sd: float

    @property
    def ratio(self) -> float:
        return self.after_g / self.before_g if self.before_g > 0 else math.inf


def grown(
    earlier: Sequence[LoggedDay], later: Sequence[LoggedDay], dense: Callable[[float], bool]
) -> list[Grew]:
    """The foods of some energy density [kcal/g] of which more is eaten in the later days than in
    the earlier, by more than the days differ by themselves; largest first."""
    if not earlier or not later:
        return []
    before, after = ([by_food(day.eaten) for day in whole_days(days)] for days in (earlier, later))
    names = dict.fromkeys(name for row in (*before, *after) for name in row)
    out = []
    for name in names:
        one = [row.get(name, (0.0, 0.0)) for row in before]
        two = [row.get(name, (0.0, 0.0)) for row in after]
        kcal, grams = (sum(row[at] for row in (*one, *two)) for at in (0, 1))
        if grams <= 0 or not dense(kcal / grams):
            continue
        more = _mean([row[0] for row in two]) - _mean([row[0] for row in one])
        sd = math.hypot(_error([row[0] for row in one]), _error([row[0] for row in two]))
        if more >= WORTH_SAYING_KCAL and more > 1.64 * sd:
            was, now = (_mean([row[1] for row in some]) for some in (one, two))
            out.append(Grew(name=name, before_g=was, after_g=now, kcal=more, sd=sd))
    return sorted(out, key=lambda grew: -grew.kcal)


def _mean(values: Sequence[float]) -> float:
    return sum(values) / len(values) if values else 0.0


def _error(values: Sequence[float]) -> float:
    """Standard error of a mean."""
    if len(values) < 2:
        return abs(values[0]) if values else 0.0
    mean = _mean(values)
    return math.sqrt(sum((value - mean) ** 2 for value in values) / (len(values) - 1) / len(values))
