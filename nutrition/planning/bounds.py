"""What the days and the week are held against: limits that are never broken, energy and protein
within a tenth on each day and a twentieth over the week, the rest as averages of the week."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from nutrition.composition.amounts import DENSITY
from nutrition.planning.week import Candidate, Meals, Planned, Week
from nutrition.targets.aim import Aim

# What a day is planned by first, and how far a day and the average of the week may be off. Common
# practice, no source. [share]
LEADING = ("energy_kcal", "protein_g")
ON_A_DAY, OVER_THE_WEEK = 0.10, 0.05
# A day under so much of its least energy is no plan, but a draft. Common practice, no source.
# [share of the least]
STARVED, NOTHING = 0.9, 4e-4


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


def within(aim: Aim, share: float) -> Iterator[Bound]:
    """Energy a share around its aim, and no narrower on a day than its own bounds are wide; of
    protein what is a share beyond them. What is firm is no matter of shares."""
    energy = aim.key == "energy_kcal"
    for limit, least, firm in (
        (aim.low, True, aim.firm_low),
        (aim.high, False, aim.firm_high),
    ):
        if limit is None or firm:
            continue
        by = 1.0 - share if least else 1.0 + share
        off = (aim.aim if energy else limit) * by
        if energy and share == ON_A_DAY:
            off = min(off, limit) if least else max(off, limit)
        yield Bound(key=aim.key, aim=aim, limit=off, least=least, per=aim.per)


@dataclass(frozen=True, kw_only=True)
class DayBounds:
    """What a day is held against: `firm` is never broken, `fed` is the energy without which it is
    no plan, `leading` is energy and protein within a tenth, `near` are the targets themselves,
    which it comes near to in the end."""

    firm: tuple[Bound, ...]
    fed: tuple[Bound, ...]
    leading: tuple[Bound, ...]
    near: tuple[Bound, ...]


def day_bounds(week: Week, day: int) -> DayBounds:
    """What a day is held against."""
    return week.once(f"bounds of {day}", lambda one: _day_bounds(one, day))


def _day_bounds(week: Week, day: int) -> DayBounds:
    aims = week.aims_of(day)
    found = bounds_of(aims, week.density_g)
    return DayBounds(
        firm=tuple(one for one in found if one.firm),
        fed=tuple(
            replace(one, limit=one.limit * STARVED)
            for one in found
            if one.aim.key == "energy_kcal" and one.least
        ),
        leading=tuple(one for aim in aims if aim.key in LEADING for one in within(aim, ON_A_DAY)),
        near=tuple(one for one in found if not one.firm and one.aim.weight > 0),
    )


@dataclass(frozen=True, kw_only=True)
class WeekBounds:
    """What the average of the days is held against: `leading` is energy and protein within a
    twentieth, `watched` every target that somebody wished for."""

    leading: tuple[Bound, ...]
    watched: tuple[Bound, ...]


def week_bounds(week: Week) -> WeekBounds:
    """What the average of the days is held against."""
    return week.once("bounds over the week", _week_bounds)


def _week_bounds(week: Week) -> WeekBounds:
    aims = mean_aims(week)
    watched = [one for one in bounds_of(aims, week.density_g) if not one.firm]
    watched += bounds_of(week.over_week, week.density_g)
    return WeekBounds(
        leading=tuple(
            one for aim in aims if aim.key in LEADING for one in within(aim, OVER_THE_WEEK)
        ),
        watched=tuple(one for one in watched if one.aim.weight > 0),
    )


def mean_aims(week: Week) -> tuple[Aim, ...]:
    """What the average day is held against: the average of what each is, a calorie density as it
    is. An aim counts where every day has it."""
    if not week.aims_on_day or not week.planned_days:
        return week.aims
    each = [{aim.key: aim for aim in week.aims_of(day)} for day in week.planned_days]
    return tuple(
        _mean([some[key] for some in each]) for key in each[0] if all(key in some for some in each)
    )


def _mean(aims: Sequence[Aim]) -> Aim:
    def middle(values: Sequence[float | None]) -> float | None:
        known = [value for value in values if value is not None]
        return sum(known) / len(known) if len(known) == len(values) else None

    first = aims[0]
    return replace(
        first,
        low=middle([aim.low for aim in aims]),
        aim=middle([aim.aim for aim in aims]) or 0.0,
        high=middle([aim.high for aim in aims]),
    )


def brings(candidate: Candidate, bound: Bound) -> float:
    """What one of a candidate brings toward a bound, in the key's unit: toward a density nothing,
    where it is drunk."""
    if bound.minus and candidate.profile.only_drunk:
        return 0.0
    return candidate.brings(bound.key, bound.at_most) - bound.minus * candidate.grams


def besides(week: Week, bound: Bound) -> float:
    """What is eaten besides brings toward a bound. In the key's unit."""
    return week.base.get(bound.key, 0.0) - bound.minus * week.base_grams


def eaten_on(week: Week, planned: Planned, day: int) -> list[tuple[Candidate, float]]:
    """What is eaten on a day, and how much of each."""
    candidates = week.by_key
    return [
        (candidates[choice.candidate], choice.count)
        for slot in week.slots_of(day)
        if (choice := planned.get(slot.key)) is not None
    ]


def meals_on(week: Week, planned: Planned, day: int) -> Meals:
    """What is eaten on a day, by meal."""
    candidates = week.by_key
    out: dict[str, list[tuple[Candidate, float]]] = {}
    for slot in week.slots_of(day):
        choice = planned.get(slot.key)
        if choice is not None:
            out.setdefault(slot.meal, []).append((candidates[choice.candidate], choice.count))
    return out


def total(week: Week, eaten: Sequence[tuple[Candidate, float]], bound: Bound) -> float:
    """What a day comes to of a bound's key. In the key's unit."""
    return besides(week, bound) + sum(brings(one, bound) * count for one, count in eaten)


def mean(week: Week, planned: Planned, bound: Bound) -> float:
    """What the average day comes to of a bound's key. In the key's unit."""
    days = week.planned_days
    each = (total(week, eaten_on(week, planned, day), bound) for day in days)
    return sum(each) / max(len(days), 1)


@dataclass(frozen=True, kw_only=True)
class Missed:
    """A bound that a day misses, or the week's average where `day` is None. In the key's unit."""

    day: int | None
    bound: Bound
    total: float
    by: float


def misses(week: Week, planned: Planned) -> list[Missed]:
    """Every bound that is missed: of each day the limits that are never broken and energy and
    protein within a tenth, then the averages of the week. Days without a slot are not judged."""
    out = []
    for day in week.planned_days:
        eaten, held = eaten_on(week, planned, day), day_bounds(week, day)
        for bound in (*held.firm, *held.leading):
            out += _missed(day, bound, total(week, eaten, bound))
    held_over = week_bounds(week)
    seen = set()
    for bound in (*held_over.watched, *held_over.leading) if week.planned_days else ():
        if (bound.aim.key, bound.least) not in seen:
            found = _missed(None, bound, mean(week, planned, bound))
            seen |= {(bound.aim.key, bound.least)} if found else set()
            out += found
    return out


def _missed(day: int | None, bound: Bound, at: float) -> list[Missed]:
    off = bound.miss(at)
    return [Missed(day=day, bound=bound, total=at, by=off * bound.per)] if off > 1e-7 else []


def starved_days(week: Week, planned: Planned) -> dict[int, float]:
    """The days that are no plan: under nine tenths of the least energy of what is planned of them,
    and by how much they are under that least. [kcal]"""
    out = {}
    for day in week.planned_days:
        for bound in day_bounds(week, day).fed:
            at = total(week, eaten_on(week, planned, day), bound)
            # less than a kilocalorie in a day of 2,000 nobody serves
            if bound.miss(at) > NOTHING:
                out[day] = bound.limit / STARVED - at
    return out
