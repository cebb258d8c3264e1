"""The day's targets as aims for portions: of the whole day, of a part of it, or of one meal."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass, replace

from nutrition.composition.amounts import DENSITY
from nutrition.targets.aim import Aim
from nutrition.targets.conditions import those
from nutrition.targets.day import DayTargets
from nutrition.targets.meals import MealTarget
from nutrition.targets.reference_intakes import reference_intakes
from nutrition.targets.scope import BOTH, DAY, LEAST, MEAL, MOST, WEEK, scopes
from nutrition.targets.standing import KNOWN_ENOUGH
from nutrition.targets.voices import CONDITION, ORDER, Target

# A watched target counts twice as much as one that is only bounded; energy and protein three times.
# Common practice, no source.
WATCHED_WEIGHT, OTHER_WEIGHT = 2.0, 1.0
LEADING = {"energy_kcal": 3.0, "protein_g": 3.0}
MOST_AIMS = 25
# Where the body must keep up with what each meal brings, a meal has its share of these mosts.
# Common practice, no source.
EACH_MEAL = ("sodium_mg", "potassium_mg", "phosphorus_mg", "protein_g")
# How much of the rest of the day is planned beside a meal: nothing is known of it, some, or all.
UNPLANNED, SOME, ALL = "unplanned", "some", "all"


def asked_of_a_meal(day: DayTargets) -> frozenset[str]:
    """The targets that a condition, the school or an order asks of each meal, by the meal's share
    of the day."""
    found = those(day.person.conditions)
    out = {key for one in found for key in one.of_meal}
    gentle = day.school is not None and day.school.each_meal
    if gentle or any(one.each_meal for one in found):
        out |= set(EACH_MEAL)
    if day.school is not None:
        out |= set(day.school.of_meal)
    # what an order limits of these is watched at each meal as well
    out |= {
        key for key in EACH_MEAL if key in day.targets and day.targets[key].high_by.rank == ORDER
    }
    return frozenset(out)


def _counted(target: Target) -> Target:
    """The target with the bounds that count: of its side, and what a condition or an order sets."""
    side = scopes()[target.key].side
    low = target.low if side in (LEAST, BOTH) or target.low_by.rank >= CONDITION else None
    high = target.high if side in (MOST, BOTH) or target.high_by.rank >= CONDITION else None
    return replace(target, low=low, high=high)


def _of_meal(
    target: Target, share: float, meal: MealTarget, asked: Collection[str], rest: str
) -> tuple[Target, bool]:
    """What of a target is asked of one meal, and whether the rest of the day counts toward it."""
    counted, key = _counted(target), target.key
    if key == DENSITY:
        return counted, False
    if key == "protein_g":
        scaled = target.scaled(share)
        low = meal.protein_min_g
        high = scaled.high if key in asked and target.high_by.rank >= CONDITION else None
        if low is not None and high is not None:
            low = min(low, high)
        aim = max(scaled.aim, low or 0.0)
        return replace(
            scaled, low=low, high=high, aim=aim if high is None else min(aim, high)
        ), False
    if scopes()[key].of == MEAL or key in asked:
        return counted.scaled(share), False
    if rest != UNPLANNED and scopes()[key].of == DAY:
        return replace(counted, low=counted.low if rest == ALL else None), True
    # a matter of the day: one meal may bring all of it, and no more than all of it
    return replace(counted, low=None, high=counted.high if counted.firm_high else None), False


@dataclass(frozen=True)
class MealShare:
    """A target as one meal is shown against it. `judged`: the meal answers for it by itself;
    otherwise `target` is only its share of the day, and no more than the `most` of the whole day
    is asked. In the key's unit."""

    target: Target
    judged: bool
    most: float | None = None


def share_of_meal(day: DayTargets, meal: MealTarget, key: str) -> MealShare:
    """What a meal is shown against for a target that is watched: what it answers for, as Balance
    asks it, or its share of what is a matter of the whole day. Raises KeyError for a key without a
    target."""
    target, asked = day.targets[key], asked_of_a_meal(day)
    if key in (DENSITY, "energy_kcal", "protein_g") or scopes()[key].of == MEAL or key in asked:
        return MealShare(_of_meal(target, meal.share, meal, asked, UNPLANNED)[0], True)
    counted = _counted(target)
    return MealShare(target.scaled(meal.share), False, counted.high)


def _of_day(target: Target, share: float, asked: Collection[str]) -> Target:
    """What of a target is asked of the whole day, or of as much of it as is planned."""
    counted, scope = _counted(target), scopes()[target.key]
    low = counted.low if scope.of != WEEK or counted.low_by.rank >= CONDITION else None
    counted = replace(counted, low=low)
    if share >= 1:
        return counted
    scaled = counted.scaled(share)
    spread = scope.of == MEAL or scope.side != LEAST or target.key in asked
    return scaled if spread else replace(scaled, high=counted.high if counted.firm_high else None)


def aims_for(
    day: DayTargets,
    watched: Collection[str],
    share: float = 1.0,
    meal: MealTarget | None = None,
    rest: str = UNPLANNED,
) -> tuple[Aim, ...]:
    """The watched targets, and those that are never broken, for a meal or a share of the day [0 to
    1].

    A meal answers for its energy, the least of its protein, and what a condition, the school or an
    order asks of a meal. Where the `rest` of the day is planned, it answers for what that leaves of
    the day's other targets as well: of their mosts, and of their leasts once all of it is planned.
    """
    asked, out = asked_of_a_meal(day), []
    for key, target in day.targets.items():
        if key not in watched and not (target.firm_low or target.firm_high):
            continue
        if meal is None:
            one, with_rest = _of_day(target, share, asked), False
        else:
            one, with_rest = _of_meal(target, share, meal, asked, rest)
        if one.low is None and one.high is None:
            continue
        weight = LEADING.get(key, WATCHED_WEIGHT if key in watched else OTHER_WEIGHT)
        out.append(replace(Aim.of(one, weight), of_day=with_rest))
    return with_upper_levels(out[:MOST_AIMS], upper_levels(day))


def judged(aims: Sequence[Aim], known: Callable[[str], float]) -> tuple[Aim, ...]:
    """The aims without what is too little known to be judged: only a most that is never broken
    stays. `known` gives the share of a key that is known. [0 to 1]"""
    out = []
    for aim in aims:
        if aim.key != DENSITY and aim.weight > 0 and known(aim.key) < KNOWN_ENOUGH:
            if not aim.firm_high:
                continue
            aim = replace(aim, low=None, firm_low=False)
        out.append(aim)
    return tuple(out)


def less_rest(aims: Sequence[Aim], rest: Mapping[str, float]) -> tuple[Aim, ...]:
    """The aims of the day as what the rest of it leaves of them. In each key's unit."""
    out = []
    for aim in aims:
        if aim.of_day:
            there = rest.get(aim.key, 0.0)
            low, high = (
                None if bound is None else max(bound - there, 0.0) for bound in (aim.low, aim.high)
            )
            bounds = [one for one in (low, high) if one is not None]
            left = max(aim.aim - there, low or 0.0) if bounds else aim.aim
            aim = replace(aim, low=low, high=high, aim=left if high is None else min(left, high))
        out.append(aim)
    return tuple(out)


def upper_levels(day: DayTargets) -> dict[str, float]:
    """The day's upper levels for this person, of nutrients that food can bring too much of. In each
    key's unit."""
    rows = reference_intakes(day.person.sex, day.person.age_years, day.person.life_stage)
    return {key: row.upper for key, row in rows.items() if row.upper is not None}


def with_upper_levels(aims: Sequence[Aim], upper: Mapping[str, float]) -> tuple[Aim, ...]:
    """The aims with every upper level as a limit that is never broken: within the aim of its key,
    or as a limit by itself.

    An order may ask for less than an upper level; one that asks for more is the prescriber's, who
    watches it.
    """
    out, named = [], {aim.key for aim in aims}
    for aim in aims:
        most = upper.get(aim.key)
        # what is only aimed at below the level is not made a limit by it
        softly = aim.high is not None and not aim.firm_high and aim.high < (most or 0.0)
        above = aim.ordered and max(aim.aim, aim.low or 0.0) > (most or 0.0)
        if most is not None and not softly and not above:
            high = most if aim.high is None else min(aim.high, most)
            low = None if aim.low is None else min(aim.low, high)
            aim = replace(aim, high=high, low=low, aim=min(aim.aim, high), firm_high=True)
        out.append(aim)
    return (
        *out,
        *(
            Aim(key=key, low=None, aim=most, high=most, weight=0.0, firm_high=True)
            for key, most in upper.items()
            if key not in named
        ),
    )


def within_upper_levels(aims: Sequence[Aim], base: Mapping[str, float]) -> tuple[Aim, ...]:
    """The aims without the upper levels that what is eaten besides, a tablet for instance, passes
    by itself: no portion can mend that, and the cautions speak of it."""
    out = []
    for aim in aims:
        passed = aim.high is not None and base.get(aim.key, 0.0) >= aim.high
        if aim.firm_high and not aim.ordered and passed:
            if not aim.weight:
                continue
            aim = replace(aim, high=None, firm_high=False)
        out.append(aim)
    return tuple(out)
