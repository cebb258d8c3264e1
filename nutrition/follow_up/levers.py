"""The smallest change that would close a gap, tried on the days as the client usually eats: a
little less of what is dense and a cup of greens more, or one dish for another, before anything is
forbidden. Balance finds how much, and what it would make worse is said."""

# Whole: one search: what is tried, what it does, and which of it is told.

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date
from functools import cached_property, lru_cache
from statistics import median

from nutrition.composition.amounts import amount_of
from nutrition.composition.food_classes import classes_of
from nutrition.composition.foods import Food, food_table
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.portion import Limits, Portion, food_portion
from nutrition.composition.profile import Profile
from nutrition.composition.same_question import Asked
from nutrition.follow_up.causes import DENSE_KCAL_PER_G
from nutrition.follow_up.intake import Grew, LoggedDay, whole_days
from nutrition.portions.problem import BadProblem, Problem
from nutrition.portions.proposals import balanced
from nutrition.portions.serving_rules import servable
from nutrition.safety.gate import OPEN, Gate
from nutrition.targets.aim import Aim
from nutrition.written.household import say

ENERGY = "energy_kcal"
# So many of the newest whole days are looked at, and so many foods and dishes.
MOST_DAYS, MOST_TRIED, MOST_TOLD = 7, 5, 3
# A change closes a gap that leaves no more than so much of it, and takes no more than so much over.
# [share] Common practice, no source.
CLOSES, NOT_OVER = 0.8, 1.35
# A change that closes less than so much of it is not told. [share]
WORTH_TELLING = 0.15
# What is eaten on fewer of the days than this is no habit to change. [share]
A_HABIT = 0.25
# A target that loses less than so much of its aim is made no worse. [share] Common practice.
WORSE = 0.05
# What is sweet is looked at whatever its density.
LOOKED_AT_TOO = frozenset({"fast sugar"})
# A glass of wine, chocolate or crisps are no chips to bargain with: they are looked at only where
# they are eaten on at least so much of the days, and then nothing is offered for them. Alcohol is
# a matter of its own, and of no lever. Common practice, no source. [share]
TREAT, ALCOHOL, A_HABIT_OF_TREATS = "treat", "alcohol", 0.6
# Never less of a food than this share of it: nothing is forbidden. Common practice, no source.
LEAST_SHARE = 0.25
AS_BEFORE = "as before"
# What is worse on more than so many of the days is a cost that counts. [share]
A_FEW_DAYS = 0.34


LESS, AT_MOST, MORE = "less", "at most", "more"


@dataclass(frozen=True)
class Edit:
    """What a change does to a day's plan: so much less of a food, at most so much of it, or so much
    of another added. [g]"""

    slug: str
    kind: str
    grams: float

    def of(self, grams: float) -> float:
        """What is left of so much of the food. [g]"""
        if self.kind == AT_MOST:
            return min(grams, self.grams)
        return max(grams - self.grams, LEAST_SHARE * grams)


@dataclass(frozen=True, kw_only=True)
class Lever:
    """A change, how much less energy a day it brings on the usual days with the least and the most
    of them [kcal/day], on how many of how many days it was tried, which share of the gap that is,
    and what it would make worse; `costs` where that is so on more than a few of them. `edits`
    do it to a plan, where it is about foods."""

    key: str
    words: str
    kcal: float
    least: float
    most: float
    days: int
    of: int
    closes: float
    worse: tuple[str, ...] = ()
    costs: bool = False
    edits: tuple[Edit, ...] = ()

    @property
    def enough(self) -> bool:
        return self.closes >= CLOSES


@dataclass(frozen=True)
class Filler:
    """Foods of which the first that the client may have is added, up to `most` in steps. [g]"""

    foods: tuple[Food, ...]
    step: float
    most: float


# What may be added, the first of each that the client may have: something light for the room, and
# something lean for the protein; steps, and the most. [g] Common practice, no source.
FILLERS = (
    (("romaine-lettuce-raw", "kale-raw", "cucumber-with-peel-raw", "celery-raw"), 30.0, 90.0),
    (("white-beans-cooked", "split-mung-beans-cooked", "tofu-firm"), 45.0, 135.0),
)


def usual_fillers() -> list[Filler]:
    """What may be added, from the foods in force."""
    table = food_table()
    return [
        Filler(tuple(food for slug in slugs if (food := table.usable(slug))), step, most)
        for slugs, step, most in FILLERS
    ]


@dataclass(frozen=True, kw_only=True)
class Usual:
    """What levers are looked for in: the whole days, the day's aims, the gate, what may be added,
    and dishes that may stand in for one by its name."""

    days: Sequence[LoggedDay]
    aims: Sequence[Aim]
    gate: Gate = OPEN
    fillers: Sequence[Filler] = ()
    others: Mapping[str, Sequence[Portion]] | None = None
    system: str = "us"

    @property
    def added(self) -> list[tuple[Food, Filler]]:
        """Of each filler the first food that the client may have."""
        found = []
        for filler in self.fillers:
            food = next((one for one in filler.foods if not self.gate.why_not(one)), None)
            found += [(food, filler)] if food is not None else []
        return found

    @cached_property
    def _held(self) -> dict[date, tuple[Portion, ...]]:
        return {}

    def held(self, day: LoggedDay) -> tuple[Portion, ...]:
        """A day's portions, all held as they are: the same for every food that is tried."""
        if day.on not in self._held:
            self._held[day.on] = tuple(
                replace(bite.portion, key=str(at), locked=True, star=False)
                for at, bite in enumerate(day.eaten)
                if bite.portion.grams > 0
            )
        return self._held[day.on]


def levers(usual: Usual, gap_kcal: float, grown: Sequence[Grew] = ()) -> list[Lever]:
    """Up to three changes that close the gap or come nearest, the smallest first. [kcal/day] Foods
    of which more is eaten than before are looked at first. Empty without whole days or a gap."""
    days = whole_days(usual.days)[-MOST_DAYS:]
    if not days or gap_kcal <= 0:
        return []
    drinks = _of_class(ALCOHOL, days)
    grown = [one for one in grown if one.name not in drinks]
    named = [one.name for one in grown]
    found = [back] if (back := _as_before(grown, days, usual, gap_kcal)) else []
    found += [
        lever
        for name in _dense(days, named)[:MOST_TRIED]
        if (lever := _less_of(name, days, usual, gap_kcal)) is not None
    ]
    found += _for_another(days, usual, gap_kcal)
    told = sorted(
        (one for one in found if one.closes >= WORTH_TELLING),
        key=lambda one: (
            one.costs,
            not one.enough,
            one.key not in (*named, AS_BEFORE),
            -min(one.closes, 1.0),
            abs(one.closes - 1.0),
        ),
    )
    return told[:MOST_TOLD]


def _as_before(
    grown: Sequence[Grew], days: Sequence[LoggedDay], usual: Usual, gap: float
) -> Lever | None:
    """The foods of which more is eaten again as they were before, all together; None for fewer than
    two of them."""
    if len(grown) < 2:
        return None
    added = [(food, filler.step * 2) for food, filler in usual.added[:1]]
    changes: list[tuple[LoggedDay, Profile]] = []
    with_it = 0
    for day in days:
        change = Profile.empty()
        for one in grown:
            for bite in day.eaten:
                portion = bite.portion
                if _is(portion, one.name):
                    gone = max(min(one.after_g - one.before_g, portion.grams - one.before_g), 0.0)
                    change = change + portion.profile * (-gone / portion.grams)
        if change.grams < 0:
            with_it += 1
            change = change + _of(added)
        changes.append((day, change))
    effects, worse = _effects(changes, usual.aims)
    if sum(effects) <= 0:
        return None
    said = ", ".join(f"{_lower(one.name)} {one.before_g:.0f} g" for one in grown)
    words = f"as before: {said} a day{_and_more(added, usual.system)}"
    edits = [Edit(slug, AT_MOST, round(one.before_g)) for one, slug in _slugs(grown, days)]
    return _lever(AS_BEFORE, words, effects, worse, with_it, gap, [*edits, *_more(added)])


def _slugs(grown: Sequence[Grew], days: Sequence[LoggedDay]) -> list[tuple[Grew, str]]:
    """The foods of which more is eaten, with their slugs."""
    by_name = {
        bite.portion.name: bite.portion.food.slug
        for day in days
        for bite in day.eaten
        if bite.portion.food is not None
    }
    return [(one, by_name[one.name]) for one in grown if one.name in by_name]


Added = Sequence[tuple[Food, float]]


def _of(added: Added) -> Profile:
    """What some foods bring together."""
    return Profile.total(food_portion(food, grams).profile for food, grams in added if grams > 0)


def _more(added: Added) -> list[Edit]:
    return [Edit(food.slug, MORE, grams) for food, grams in added if grams > 0]


def _and_more(added: Added, system: str) -> str:
    """ ", and 1 cup more kale, raw" """
    return "".join(
        f", and {say(food_portion(food, grams), grams, system)} more {_lower(food.name)}"
        for food, grams in added
        if grams > 0
    )


def _lever(
    key: str,
    words: str,
    effects: Sequence[float],
    worse: Mapping[str, int],
    with_it: int,
    gap: float,
    edits: Sequence[Edit] = (),
) -> Lever:
    of = len(effects)
    kcal = sum(effects) / of
    return Lever(
        key=key,
        words=words,
        kcal=kcal,
        least=min(effects),
        most=max(effects),
        days=with_it,
        of=of,
        closes=kcal / gap,
        worse=tuple(f"{NUTRIENT[one].name} on {n} of {of} days" for one, n in worse.items()),
        costs=any(n > A_FEW_DAYS * of for n in worse.values()),
        edits=tuple(edits),
    )


def _dense(days: Sequence[LoggedDay], first: Sequence[str]) -> list[str]:
    """The foods eaten by themselves on enough of the days, that hold much energy in little: those
    named first, then by what they bring."""
    kcal: dict[str, float] = {}
    seen: dict[str, int] = {}
    treats: set[str] = set()
    for day in days:
        mine: dict[str, float] = {}
        for bite in day.eaten:
            one = bite.portion
            if one.food is None or one.grams <= 0 or ALCOHOL in classes_of(one.food):
                continue
            per_g = one.profile[ENERGY].amount / one.grams
            too = not LOOKED_AT_TOO.isdisjoint(classes_of(one.food))
            if per_g >= DENSE_KCAL_PER_G or too:
                treats |= {one.name} if TREAT in classes_of(one.food) else set()
                mine[one.name] = mine.get(one.name, 0.0) + one.profile[ENERGY].amount
        for name, amount in mine.items():
            kcal[name] = kcal.get(name, 0.0) + amount
            seen[name] = seen.get(name, 0) + 1
    habits = [
        name
        for name in kcal
        if seen[name] >= (A_HABIT_OF_TREATS if name in treats else A_HABIT) * len(days)
    ]
    return sorted(habits, key=lambda name: (name not in first, -kcal[name]))


def _asked(day: LoggedDay, usual: Usual, less_kcal: float) -> tuple[Aim, ...]:
    """The day's aims with so much less energy than was eaten. [kcal] What is missed already is not
    made worse; what is not missed stays so."""
    eaten = day.profile
    out = []
    for aim in usual.aims:
        if aim.key == ENERGY:
            continue
        amount = amount_of(eaten, aim.key).amount
        give = WORSE * aim.per
        low = None if aim.low is None else min(aim.low, amount) - give
        high = None if aim.high is None else max(aim.high, amount) + give
        out.append(replace(aim.softened(), low=low, high=high))
    aimed = max(day.kcal - less_kcal, 1.0)
    out.append(
        Aim(
            key=ENERGY,
            low=aimed - 0.1 * less_kcal,
            aim=aimed,
            high=aimed + 0.1 * less_kcal,
            weight=4.0,
        )
    )
    return tuple(out)


def _less_of(name: str, days: Sequence[LoggedDay], usual: Usual, gap: float) -> Lever | None:
    """Less of one food on the days that have it, and what fills more, by as much as Balance
    finds."""
    with_it = [day for day in days if any(_is(bite.portion, name) for bite in day.eaten)]
    each = gap * len(days) / len(with_it)
    if name in _of_class(TREAT, days):
        usual = replace(usual, fillers=())
    filling = tuple((id(food), filler.step, filler.most) for food, filler in usual.added)
    less: list[float] = []
    more: list[tuple[float, ...]] = []
    for day in with_it:
        found = _kept(
            Asked(
                (name, day, usual, each),
                (name, id(day), each, tuple(usual.aims), usual.gate.content, filling),
            )
        )
        if found is not None:
            less.append(found[0])
            more.append(found[1])
    if not less:
        return None
    portion = next(one.portion for one in with_it[0].eaten if _is(one.portion, name))
    food = portion.food
    assert food is not None
    step = servable(food, food.role).step_g
    by = round(median(less) / step) * step
    added = [
        (one, round(median(row[at] for row in more) / filler.step) * filler.step)
        for at, (one, filler) in enumerate(usual.added)
    ]
    if by <= 0:
        return None
    return _tried(name, food, by, added, days, with_it, usual, gap)


def _of_class(kind: str, days: Sequence[LoggedDay]) -> set[str]:
    """The names of the foods of a class that were eaten."""
    return {
        bite.portion.name
        for day in days
        for bite in day.eaten
        if bite.portion.food is not None and kind in classes_of(bite.portion.food)
    }


def _is(portion: Portion, name: str) -> bool:
    return portion.food is not None and portion.name == name and portion.grams > 0


@lru_cache(maxsize=2048)
def _kept(
    asked: Asked[tuple[str, LoggedDay, Usual, float]],
) -> tuple[float, tuple[float, ...]] | None:
    """What was found for a day: a record is looked at more often than it changes."""
    return _balanced(*asked.about)


def _balanced(
    name: str, day: LoggedDay, usual: Usual, each: float
) -> tuple[float, tuple[float, ...]] | None:
    """How much less of a food, and how much more of what fills, Balance finds for a day. [g]"""
    parts = list(usual.held(day))
    at = next(i for i, part in enumerate(parts) if _is(part, name))
    part = parts[at]
    assert part.food is not None
    step = servable(part.food, part.food.role).step_g
    steps = int(part.grams * (1.0 - LEAST_SHARE) / step + 1e-9)
    if steps < 1:
        return None
    limits = Limits(least=part.grams - steps * step, most=part.grams, step=step)
    parts[at] = replace(part, locked=False, limits=limits)
    for one, filler in usual.added:
        room = Limits(least=0.0, most=filler.most, step=filler.step)
        more = food_portion(one, filler.step, key=one.slug)
        parts.append(replace(more, grams=0.0, limits=room))
    base = {} if day.supplements is None else _base(day.supplements, usual.aims)
    try:
        problem = Problem(
            parts=tuple(parts), aims=_asked(day, usual, each), base=base, gate=usual.gate
        )
        told = balanced(problem).told
    except BadProblem:
        return None
    if not told:
        return None
    portions = told[-1].answer.portions
    return part.grams - portions[part.key], tuple(portions[one.slug] for one, _ in usual.added)


def _base(supplements: Profile, aims: Iterable[Aim]) -> dict[str, float]:
    keys = {ENERGY, *(aim.key for aim in aims)}
    return {key: amount_of(supplements, key).amount for key in keys if key in NUTRIENT}


def _tried(
    name: str,
    food: Food,
    by: float,
    added: Added,
    days: Sequence[LoggedDay],
    with_it: Sequence[LoggedDay],
    usual: Usual,
    gap: float,
) -> Lever:
    """The change on every one of the days, and what it makes worse."""
    changes: list[tuple[LoggedDay, Profile]] = []
    for day in days:
        change = Profile.empty()
        held = next((one.portion for one in day.eaten if _is(one.portion, name)), None)
        if held is not None:
            gone = min(by, held.grams * (1.0 - LEAST_SHARE))
            change = change + held.profile * (-gone / held.grams)
            change = change + _of(added)
        changes.append((day, change))
    effects, worse = _effects(changes, usual.aims)
    said = say(food_portion(food, by), by, usual.system)
    # what is not eaten every day is not spread over all of them
    often = "a day" if len(with_it) == len(days) else "each time"
    words = f"{said} ({by:.0f} g) less {_lower(food.name)} {often}{_and_more(added, usual.system)}"
    edits = [Edit(food.slug, LESS, by), *_more(added)]
    return _lever(name, words, effects, worse, len(with_it), gap, edits)


def _lower(name: str) -> str:
    return name[:1].lower() + name[1:] if name[1:2].islower() else name


def _effects(
    changes: Iterable[tuple[LoggedDay, Profile]], aims: Sequence[Aim]
) -> tuple[list[float], dict[str, int]]:
    """How much less energy each change of a day brings [kcal/day], and on how many of the days each
    target is missed by more."""
    effects: list[float] = []
    worse: dict[str, int] = {}
    for day, change in changes:
        effects.append(-float(change[ENERGY].amount))
        for key in _made_worse(day.profile, change, aims):
            worse[key] = worse.get(key, 0) + 1
    return effects, worse


def _made_worse(eaten: Profile, change: Profile, aims: Iterable[Aim]) -> list[str]:
    """The targets that a change of a day misses by more than the day does already."""
    out = []
    after = eaten + change
    for aim in aims:
        if aim.key == ENERGY:
            continue
        before, now = (aim.miss(amount_of(one, aim.key).amount) for one in (eaten, after))
        if abs(now) > abs(before) + WORSE * aim.per:
            out.append(aim.key)
    return out


def _for_another(days: Sequence[LoggedDay], usual: Usual, gap: float) -> list[Lever]:
    """One dish for another that may stand in for it, on the days that have it."""
    out = []
    for name, others in (usual.others or {}).items():
        with_it = [
            (day, bite.portion)
            for day in days
            for bite in day.eaten
            if bite.portion.name == name and bite.portion.grams > 0
        ]
        for other in others:
            if usual.gate.why_not_dish(other.foods) or not with_it:
                continue
            changes = [(day, portion.profile * -1.0 + other.profile) for day, portion in with_it]
            effects, worse = _effects(changes, usual.aims)
            effects += [0.0] * (len(days) - len(with_it))
            kcal = sum(effects) / len(days)
            if kcal < 0.5 * gap or kcal > NOT_OVER * gap:
                continue
            times = "each time" if len(with_it) > 1 else "once"
            words = f"{other.name} for {_lower(name)}, {times}"
            out.append(_lever(name, words, effects, worse, len(with_it), gap))
    return out
