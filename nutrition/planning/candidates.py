"""What can stand in a week: a portion of something made into a candidate, and what is held against
the days of a person."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from dataclasses import replace

from nutrition.composition.amounts import DENSITY, amount_of
from nutrition.composition.portion import Portion
from nutrition.composition.profile import Profile
from nutrition.insight.variety import colors_in, distinct_plants
from nutrition.planning.week import Candidate, Check
from nutrition.portions.problem import OF_PLANTS
from nutrition.portions.serving_limits import (
    BOWL_COUNTS,
    MOST_AT_ONCE_ML,
    MOST_HELPINGS,
    SERVING_COUNTS,
)
from nutrition.prep.keeping import Keeping
from nutrition.safety.caution_rules import LEVELS
from nutrition.safety.cautions import Situation, cautions_in
from nutrition.safety.gate import Gate
from nutrition.safety.situations import PlannedDay, day_numbers
from nutrition.targets.aim import Aim
from nutrition.targets.aims import OTHER_WEIGHT, WATCHED_WEIGHT, aims_for, judged
from nutrition.targets.day import DayTargets
from nutrition.targets.scope import WEEK, scopes

# Recipes and bowls are counted as Balance counts them, a food by the half helping up to as much as
# Balance would add. Common practice, no source. Least, most, step.
OF_RECIPE, OF_BOWL, OF_FOOD = SERVING_COUNTS, BOWL_COUNTS, (0.5, MOST_HELPINGS, 0.5)


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
    if one.volume_ml > 0:
        largest = max(at_once_ml / one.volume_ml, least)
        most = min(most, least + int((largest - least) / step + 1e-9) * step)
    wanted = set(keys) - {DENSITY} | {"energy_kcal"}
    return Candidate(
        key=one.key,
        name=one.name,
        kinds=frozenset(kinds),
        amounts={key: amount_of(one.profile, key).amount for key in wanted},
        unknown={key: more * one.grams for key, more in one.unknown.items() if key in wanted},
        grams=one.profile.grams,
        least=least,
        most=most,
        step=step,
        usual=1.0,
        parts=dict(parts or {}),
        plants=frozenset(distinct_plants(one.foods)),
        colors=frozenset(colors_in(one.foods)),
        cold=keeping.cold if keeping else True,
        travels=keeping.travels if keeping else True,
        liked=liked,
        foods=tuple(one.foods),
        profile=one.profile,
    )


def aims_of_days(
    day: DayTargets, watched: Collection[str], known: Callable[[str], float]
) -> tuple[tuple[Aim, ...], tuple[Aim, ...]]:
    """What each day is held against, and what the average of the week is: targets that need no
    daily evenness. Nothing is asked of what is too little `known` [0 to 1]; of upper levels that
    nobody wished for what is known counts, and those that whole plants pass are left out."""
    each = [aim for aim in aims_for(day, watched) if not (aim.weight <= 0 and aim.key in OF_PLANTS)]
    over_week = [
        Aim(
            key=key,
            low=target.low,
            aim=max(target.aim, target.low),
            high=None,
            weight=WATCHED_WEIGHT if key in watched else OTHER_WEIGHT,
        )
        for key, target in day.targets.items()
        if scopes()[key].of == WEEK
        and target.low is not None
        # a least that a condition or an order sets is asked of each day already
        and not any(aim.key == key and aim.low is not None for aim in each)
    ]
    return judged(each, known), judged(over_week, known)


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
    what stands as stop and ask by its totals, unless it stands for an empty day as well."""
    always = _stops(situation, PlannedDay(besides, (), 0))

    def check(eaten: Sequence[tuple[Candidate, float]]) -> list[str]:
        foods = [part.times(count) for one, count in eaten for part in one.foods]
        whole = Profile.total([*(one.profile * count for one, count in eaten), besides])
        said = [bar.why for bar in gate.bars(foods)]
        stops = _stops(situation, PlannedDay(whole, foods, 0))
        return [*said, *(text for code, text in stops.items() if code not in always)]

    return check


def _stops(situation: Situation, planned: PlannedDay) -> dict[str, str]:
    """What stands as stop and ask about a day by its totals, by code."""
    numbers = {**situation.numbers, **day_numbers(planned)}
    # how many meals it has is the skeleton's, and told by its own page
    numbers.pop("day_meals")
    asked = replace(situation, numbers=numbers, foods=None, lines=())
    return {one.code: one.sentence for one in cautions_in(asked) if one.level == LEVELS[0]}
