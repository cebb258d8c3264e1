"""What stands in the way of a week's targets: which limit collides with what, where a miss comes
from, and the smallest change that was tried and helps."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from nutrition.planning.bounds import (
    Bound,
    Missed,
    brings,
    day_bounds,
    eaten_on,
    meals_on,
    misses,
    total,
    week_bounds,
)
from nutrition.planning.search import plan
from nutrition.planning.week import Candidate, Planned, Slot, Week
from nutrition.portions.work import Work

# So many things that would help are told, and so many are tried.
MOST_TOLD, MOST_TRIED, MOST_UNPINNED = 4, 12, 4
# A change that closes less than this share of what is missed is not worth a word.
WORTH = 0.15
# A hard limit that is missed counts so many times. Common practice, no source.
HARD = 10.0
# What planning anew around something that is let go may take. [s, as work is counted]
UNPIN_WORK = 1.0


@dataclass(frozen=True, kw_only=True)
class Source:
    """Where most of what is too much on a day comes from: a dish, and its share. [0 to 1]"""

    name: str
    share: float


@dataclass(frozen=True, kw_only=True)
class Help:
    """A change that was tried: "add" so much of a food on some days, "let go" of what is pinned,
    "more" or "less" of a dish on a day, or "allow" a limit its closest value. `closes` is the share
    of what the week misses that it closes. [0 to 1]"""

    kind: str
    key: str
    name: str
    days: tuple[int, ...]
    count: float
    closes: float
    slot: str = ""
    bound: Bound | None = None


def comes_from(week: Week, planned: Planned, missed: Missed) -> list[Source]:
    """The dishes that bring most of what is over a most, up to two. Nothing for what is short."""
    if missed.bound.least or missed.day is None:
        return []
    parts = [
        (one.name, brings(one, missed.bound) * count)
        for one, count in eaten_on(week, planned, missed.day)
    ]
    total = sum(value for _name, value in parts if value > 0)
    found = sorted(parts, key=lambda row: (-row[1], row[0]))[:2]
    return [Source(name=name, share=value / total) for name, value in found if value > 0]


def collides(week: Week, planned: Planned) -> list[Missed]:
    """The hard limits that no week keeps: the closest that was reached, by day."""
    return [one for one in misses(week, planned) if one.bound.firm]


def _gap(week: Week, planned: Planned, extra: dict[int, list[tuple[Candidate, float]]]) -> float:
    """What a week misses with something more eaten on some days: what energy and protein of the
    days and the averages miss, hard limits counted tenfold. In weighted shares of an aim."""
    days, out = week.planned_days, 0.0
    eaten = {day: [*eaten_on(week, planned, day), *extra.get(day, [])] for day in days}
    for day, some in eaten.items():
        held = day_bounds(week, day)
        out += sum(HARD * one.miss(total(week, some, one)) for one in held.firm)
        out += sum(one.aim.weight * one.miss(total(week, some, one)) for one in held.leading)
    over = week_bounds(week)
    for bound in (*over.leading, *over.watched) if days else ():
        mean = sum(total(week, some, bound) for some in eaten.values()) / len(days)
        out += bound.aim.weight * bound.miss(mean) * len(days)
    return out


def would_help(week: Week, planned: Planned, foods: Sequence[Candidate] = ()) -> list[Help]:
    """What would bring the week nearer, each tried, the most helpful first: one of some `foods`
    added on the days that are short, what is pinned let go, a step more or less of one dish. Where
    hard limits collide, also the value each would have to allow."""
    now = _gap(week, planned, {})
    if now <= 1e-6:
        return []
    out = [*_added(week, planned, foods, now), *_steps(week, planned, now)]
    out += _let_go(week, planned, now)
    kept = sorted(
        (one for one in out if one.closes >= WORTH),
        key=lambda one: (-round(one.closes, 2), len(one.days), one.name),
    )
    return [*_allowed(week, planned), *kept][:MOST_TOLD]


def _added(week: Week, planned: Planned, foods: Sequence[Candidate], now: float) -> list[Help]:
    short = [one for one in misses(week, planned) if one.bound.least]
    if not short:
        return []
    out: dict[str, Help] = {}
    for key in dict.fromkeys(one.bound.key for one in short):
        of_week = any(one.day is None for one in short if one.bound.key == key)
        days = sorted({one.day for one in short if one.bound.key == key and one.day is not None})
        if of_week or not days:
            days = week.planned_days
        rich = sorted(
            (food for food in foods if food.brings(key) > 0),
            key=lambda food: -food.brings(key) / max(food.brings("energy_kcal"), 20.0),
        )
        for food in rich[:MOST_TRIED]:
            extra = {day: [(food, food.usual)] for day in days}
            if any(_warned_with(week, planned, day, food, food.usual) for day in days):
                continue
            closes = 1.0 - _gap(week, planned, extra) / now
            found = out.get(food.key)
            if found is None or closes > found.closes:
                out[food.key] = Help(
                    kind="add",
                    key=food.key,
                    name=food.name,
                    days=tuple(days),
                    count=food.usual,
                    closes=closes,
                )
    return list(out.values())


def _warned_with(
    week: Week, planned: Planned, day: int, one: Candidate, count: float, meal: str = "snack"
) -> bool:
    """Whether the page of a day would warn of it with so much more of something at a meal."""
    meals = {key: list(some) for key, some in meals_on(week, planned, day).items()}
    return bool(week.check({**meals, meal: [*meals.get(meal, []), (one, count)]}))


def _steps(week: Week, planned: Planned, now: float) -> list[Help]:
    """A step more or less of one dish than may be served of it."""
    out = []
    candidates = week.by_key
    for slot in week.slots:
        choice = planned.get(slot.key)
        if choice is None:
            continue
        one = candidates[choice.candidate]
        for kind, by in (("more", one.step), ("less", -one.step)):
            count = choice.count + by
            served = one.counts_for(slot.portion, slot.least, slot.most)
            if count <= 0 or (count in served and not slot.pinned):
                continue
            closes = 1.0 - _gap(week, planned, {slot.day: [(one, by)]}) / now
            if _warned_with(week, planned, slot.day, one, by, slot.meal):
                continue
            out.append(
                Help(
                    kind=kind,
                    key=one.key,
                    name=one.name,
                    days=(slot.day,),
                    count=count,
                    closes=closes,
                    slot=slot.key,
                )
            )
    return out


def _let_go(week: Week, planned: Planned, now: float) -> list[Help]:
    """What is pinned on the days that miss most, planned anew without the pin."""
    missing: dict[int, float] = {}
    for one in misses(week, planned):
        if one.day is not None:
            share = one.by / one.bound.per * max(one.bound.aim.weight, 10.0 * one.bound.firm)
            missing[one.day] = missing.get(one.day, 0.0) + share
    pinned = sorted(
        (slot for slot in week.slots if slot.pinned and missing.get(slot.day)),
        key=lambda slot: (-missing[slot.day], slot.key),
    )
    out = []
    for slot in pinned[:MOST_UNPINNED]:
        found = plan(_unpinned(week, slot, planned), Work.of(UNPIN_WORK))
        if found is None or found.warned:
            continue
        assert slot.placed is not None
        out.append(
            Help(
                kind="let go",
                key=slot.placed.candidate,
                name=week.by_key[slot.placed.candidate].name,
                days=(slot.day,),
                count=slot.placed.count,
                closes=1.0 - _gap(week, found.planned, {}) / now,
                slot=slot.key,
            )
        )
    return out


def _unpinned(week: Week, slot: Slot, planned: Planned) -> Week:
    return replace(
        week,
        slots=tuple(
            replace(one, pinned=one.pinned and one.key != slot.key, placed=planned.get(one.key))
            for one in week.slots
        ),
    )


def _allowed(week: Week, planned: Planned) -> list[Help]:
    """Each hard limit that is broken with the value that it would have to allow."""
    closest: dict[tuple[str, bool], Missed] = {}
    days: dict[tuple[str, bool], list[int]] = {}
    for one in collides(week, planned):
        key = one.bound.aim.key, one.bound.least
        days.setdefault(key, []).extend([] if one.day is None else [one.day])
        if key not in closest or one.by > closest[key].by:
            closest[key] = one
    return [
        Help(
            kind="allow",
            key=one.bound.aim.key,
            name=one.bound.aim.key,
            days=tuple(days[key]),
            count=one.total,
            closes=1.0,
            bound=one.bound,
        )
        for key, one in closest.items()
    ]
