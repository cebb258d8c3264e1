"""What can stand in a week: a portion of something made into a candidate, what is held against the
days of a person, and what their pages would say."""

from __future__ import annotations

import math
from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from dataclasses import replace
from datetime import date, timedelta

from nutrition.composition.amounts import DENSITY, amount_of
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.portion import Portion, food_portion
from nutrition.composition.profile import Profile
from nutrition.composition.supplements import Supplement
from nutrition.insight.variety import colors_in, distinct_plants
from nutrition.planning.kinds import PLAIN
from nutrition.planning.skeleton import Skeleton
from nutrition.planning.week import Candidate, Check, Meals
from nutrition.portions.problem import OF_PLANTS
from nutrition.portions.serving_limits import MOST_AT_ONCE_ML
from nutrition.portions.staples import staples
from nutrition.prep.keeping import Keeping
from nutrition.safety.caution_rules import LEVELS
from nutrition.safety.cautions import Situation, cautions_in
from nutrition.safety.gate import Gate
from nutrition.safety.meal_size import meal_sizes
from nutrition.safety.situations import PlannedDay, day_numbers, week_numbers
from nutrition.safety.upper_levels import upper_levels
from nutrition.targets.aim import Aim
from nutrition.targets.aims import (
    OTHER_WEIGHT,
    WATCHED_WEIGHT,
    aims_for,
    judged,
    within_upper_levels,
)
from nutrition.targets.day import DayTargets
from nutrition.targets.meals import MAIN_MEALS, MealTarget
from nutrition.targets.scope import WEEK, scopes

# A recipe and a bowl are eaten by the half, from a half to one and a half; who needs much may have
# two. Common practice, no source. Least, most, step.
SERVINGS, LARGE_EATERS = (0.5, 1.5, 0.5), (0.5, 2.0, 0.5)
# Who plans for so much energy is a large eater: a serving is written for a day of 2,000. Common
# practice, no source. [kcal]
LARGE_FROM_KCAL = 2800.0
# Of a food so many first helpings: fruit by the piece, bread by the slice. Common practice, no
# source. Least, most, step.
OF_KIND = {
    "fruit": (1.0, 1.0, 0.5),
    "bread": (1.0, 2.0, 1.0),
    "milk": (0.5, 1.5, 0.5),
    "seeds": (0.5, 1.0, 0.5),
    "vegetable": (1.0, 2.0, 0.5),
    "greens": (1.0, 2.0, 0.5),
}
OF_FOOD = (0.5, 2.0, 0.5)
# What would help is a helping more of a food, a half or one and a half. Common practice, no source.
# Least, most, step.
HELPED_BY = (0.5, 1.5, 0.5)
# Aims are not spread over less than so much energy a gram. [kcal/g]
LEAST_DENSITY = 0.3
# From so much of it on a day is planned whole. [share]
WHOLE = 0.999
# What a caution is called by that a limit is passed.
PASSED = ("over_", "under_")
# Foods that bring protein of their own. Common practice, no source.
PROTEIN_GROUPS = ("legume", "soy", "seitan", "nut", "seed")


def servings_for(kcal: float) -> tuple[float, float, float]:
    """How a dish is counted for who plans for so much energy a day [kcal]: least, most, step."""
    return LARGE_EATERS if kcal >= LARGE_FROM_KCAL else SERVINGS


def helpings_of(kinds: Collection[str]) -> tuple[float, float, float]:
    """How a food that stands for these kinds is counted: least, most, step."""
    return next((OF_KIND[kind] for kind in OF_KIND if kind in kinds), OF_FOOD)


# A batch is made from half the recipe on. Common practice, no source. [share]
LEAST_BATCH = 0.5
# What holds a food that somebody named as liked is so much nearer, in shares of an aim a day.
# Common practice, no source.
LIKED = 0.5


def candidate_of(
    one: Portion,
    kinds: Collection[str],
    counts: tuple[float, float, float],
    keys: Iterable[str],
    parts: Mapping[str, float] | None = None,
    keeping: Keeping | None = None,
    liked: int = 0,
    at_once_ml: float = MOST_AT_ONCE_ML,
) -> Candidate:
    """A portion as something that can be counted: one of it is what the portion is of. `counts` are
    the least, the most and the step; `keeping` says whether it is good cold and travels;
    `at_once_ml` what a meal may take. [mL]"""
    least, most, step = counts
    ceiling = math.inf
    if one.volume_ml > 0:
        # a large bowl is more than is usually eaten at once, and one bowl; a small stomach is small
        whole = 1.0 if at_once_ml >= MOST_AT_ONCE_ML else 0.0
        largest = max(at_once_ml / one.volume_ml, least, whole)
        ceiling = least + int((largest - least) / step + 1e-9) * step
    wanted = set(keys) - {DENSITY} | {"energy_kcal"}
    return Candidate(
        key=one.key,
        name=one.name,
        kinds=frozenset(kinds),
        amounts={key: amount_of(one.profile, key).amount for key in wanted},
        unknown={key: more * one.grams for key, more in one.unknown.items() if key in wanted},
        grams=one.profile.grams,
        least=least,
        most=min(most, ceiling),
        step=step,
        usual=1.0,
        ceiling=ceiling,
        parts=dict(parts or {}),
        plants=frozenset(distinct_plants(one.foods)),
        colors=frozenset(colors_in(one.foods)),
        proteins=frozenset(
            distinct_plants([part for part in one.foods if part.food.group in PROTEIN_GROUPS])
        ),
        cold=keeping.cold if keeping else True,
        travels=keeping.travels if keeping else True,
        dish=one.food is None or not set(kinds) <= PLAIN,
        liked=liked,
        foods=tuple(one.foods),
        profile=one.profile,
    )


def helpers_of(gate: Gate, keys: Collection[str]) -> tuple[Candidate, ...]:
    """The foods that could help a week, and may be served."""
    return tuple(
        candidate_of(food_portion(food, first_helping_g(food), key=food.slug), (), HELPED_BY, keys)
        for food in staples(gate)
        if not gate.why_not(food)
    )


def usual_day_g(day: DayTargets) -> float:
    """What a day weighs at the density that is aimed at. [g]"""
    density = day.targets[DENSITY].aim if DENSITY in day.targets else 1.0
    return day.targets["energy_kcal"].aim / max(density, LEAST_DENSITY)


def aims_of_day(
    day: DayTargets,
    watched: Collection[str],
    known: Callable[[str], float],
    share: float = 1.0,
    stops: Mapping[str, float] | None = None,
) -> tuple[Aim, ...]:
    """What a day is held against of which a `share` is planned [0 to 1]. Nothing is asked of what
    is too little `known` [0 to 1]; of upper levels that nobody wished for what is known counts, and
    those that whole plants pass are left out. From what the page `stops` a day stays away. In each
    key's unit."""
    each = aims_for(day, watched, share)
    plates = [aim for aim in each if not (aim.weight <= 0 and aim.key in OF_PLANTS)]
    return judged(_under_the_stops(plates, stops or {}), known)


def _under_the_stops(aims: Sequence[Aim], stops: Mapping[str, float]) -> list[Aim]:
    """The aims with what is stopped at as a most that is never broken."""
    out, named = [], {aim.key for aim in aims}
    for aim in aims:
        most = stops.get(aim.key)
        if most is not None and (aim.high is None or aim.high > most):
            low = None if aim.low is None else min(aim.low, most)
            aim = replace(aim, low=low, aim=min(aim.aim, most), high=most, firm_high=True)
        out.append(aim)
    return out + [
        Aim(key=key, low=None, aim=most, high=most, weight=0.0, firm_high=True)
        for key, most in stops.items()
        if key not in named
    ]


def aims_of_week(
    day: DayTargets, watched: Collection[str], known: Callable[[str], float], share: float = 1.0
) -> tuple[Aim, ...]:
    """What only the average of the days is held against: targets that need no daily evenness, of
    which a `share` is planned on the average. [0 to 1]"""
    each = aims_of_day(day, watched, known)
    over_week = [
        Aim(
            key=key,
            low=target.low * share,
            aim=max(target.aim, target.low) * share,
            high=None,
            weight=WATCHED_WEIGHT if key in watched else OTHER_WEIGHT,
        )
        for key, target in day.targets.items()
        if scopes()[key].of == WEEK
        and target.low is not None
        # a least that a condition or an order sets is asked of each day already
        and not any(aim.key == key and aim.low is not None for aim in each)
    ]
    return judged(over_week, known)


def shares_of_days(
    skeleton: Skeleton, meals: Sequence[MealTarget], start: date, days: int
) -> dict[int, float]:
    """The share of the day that is planned, by day [0 to 1]: without the meals that are eaten away
    or have no place in the week. A day of which nothing is planned is not judged."""
    out = {}
    for at in range(days):
        weekday = skeleton.days[(start + timedelta(days=at)).weekday()]
        there = {meal for meal, places in weekday.meals.items() if places} - weekday.away
        out[at] = sum(one.share for one in meals if one.key in there)
    return out


def on_the_plate(aims: Sequence[Aim], base: Mapping[str, float]) -> tuple[Aim, ...]:
    """The aims without the upper levels that tablets pass by themselves: no plate can mend that.
    Nor with those that count for tablets alone, where some are taken: what plants bring beside them
    is harmless, and would be held back."""
    rows, out = upper_levels(), []
    for aim in within_upper_levels(aims, base):
        row = rows.get(aim.key)
        of_tablets = row is not None and not row.of_all and base.get(aim.key, 0.0) > 0
        if aim.firm_high and not aim.ordered and of_tablets:
            if aim.weight <= 0:
                continue
            aim = replace(aim, high=None, firm_high=False)
        out.append(aim)
    return tuple(out)


def known_share(candidates: Sequence[Candidate], besides: Profile) -> Callable[[str], float]:
    """The share of each target's amount that is known of some candidates and what is eaten besides,
    by weight. [0 to 1]"""
    whole = Profile.total([*(one.profile for one in candidates), besides])
    return lambda key: amount_of(whole, key).known


def week_base(besides: Profile, keys: Iterable[str]) -> dict[str, float]:
    """What is taken besides each day, by key. In each key's unit."""
    return {key: amount_of(besides, key).amount for key in {*keys, "energy_kcal"} if key != DENSITY}


def page_check(situation: Situation, gate: Gate, besides: Profile) -> Check:
    """Looks at a day as its own page does: what the gate holds back of all its foods together, and
    what its page would say to stop and ask about or that a limit is passed, beyond what is said of
    the person anyway, or what was settled for them."""
    of_the_person = {one.code for one in cautions_in(situation)}

    def check(meals: Meals) -> dict[str, str]:
        eaten = [pair for some in meals.values() for pair in some]
        if not eaten:
            return {}
        planned = planned_day(meals, besides)
        out = {f"bar {at}": bar.why for at, bar in enumerate(gate.bars(list(planned.foods)))}
        numbers = {**situation.numbers, **day_numbers(planned)}
        asked = replace(situation, numbers=numbers, foods=planned.foods, lines=())
        for one in cautions_in(asked):
            grave = one.level == LEVELS[0] or one.code.startswith(PASSED)
            known = one.code in of_the_person or (one.code, one.about) in gate.settled
            if grave and not known:
                out[one.code] = one.sentence
        return out

    return check


def asked_of_week(
    situation: Situation,
    days: Sequence[Meals],
    besides: Profile,
    supplements: Sequence[Supplement] = (),
) -> list[str]:
    """What the page of a planned week would say to stop and ask about for all its days together,
    such as that nothing in them brings vitamin B12. No dish of it is the cause, so it is told."""
    planned = [planned_day(meals, besides) for meals in days if any(meals.values())]
    before = {one.code for one in cautions_in(situation)}
    numbers = {**situation.numbers, **week_numbers(planned, supplements)}
    found = cautions_in(replace(situation, numbers=numbers))
    return [one.sentence for one in found if one.level == LEVELS[0] and one.code not in before]


def planned_day(meals: Meals, besides: Profile) -> PlannedDay:
    """What is eaten on a day as the cautions look at it."""
    foods = {
        meal: [part.times(count) for one, count in some for part in one.foods]
        for meal, some in meals.items()
    }
    mains = [meal for meal, some in meals.items() if some and meal in MAIN_MEALS]
    profiles = {
        meal: Profile.total(one.profile * count for one, count in some)
        for meal, some in meals.items()
    }
    carbohydrate = [profiles[meal]["carbohydrate_g"].amount for meal in mains]
    return PlannedDay(
        profile=Profile.total([*profiles.values(), besides]),
        foods=[one for some in foods.values() for one in some],
        main_meals=len(mains),
        least_meal_carbohydrate_g=min(carbohydrate, default=None),
        **meal_sizes(list(foods.values())),
    )
