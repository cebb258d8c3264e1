"""The day's targets as aims for portions: of the whole day, or of one meal's share of it."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import replace

from nutrition.composition.nutrients import NUTRIENT
from nutrition.targets.aim import Aim
from nutrition.targets.conditions import those
from nutrition.targets.day import DayTargets
from nutrition.targets.meals import MealTarget
from nutrition.targets.reference_intakes import reference_intakes
from nutrition.targets.voices import ORDER

# A watched target counts twice as much as one that is only bounded; energy and protein three times.
# Common practice, no source.
WATCHED_WEIGHT, OTHER_WEIGHT = 2.0, 1.0
LEADING = {"energy_kcal": 3.0, "protein_g": 3.0}
MOST_AIMS = 25
# The most of a mineral or vitamin is of the whole day, but for sodium, for what an order sets, and
# where the kidneys must keep up with each meal. Common practice, no source.
OF_THE_DAY, SPREAD = ("minerals", "vitamins"), ("sodium_mg",)


def _every_meal_counts(day: DayTargets) -> bool:
    """Whether the body must keep up with what each meal brings."""
    gentle = day.school is not None and day.school.each_meal
    return gentle or any(one.each_meal for one in those(day.person.conditions))


def aims_for(
    day: DayTargets,
    watched: Collection[str],
    share: float = 1.0,
    meal: MealTarget | None = None,
) -> tuple[Aim, ...]:
    """The watched targets, and those that are never broken, for a share of the day [0 to 1].

    A meal's own least of protein stands in place of its share of the day's. Calorie density is the
    same for a meal and a day.
    """
    whole_most = share < 1 and not _every_meal_counts(day)
    out = []
    for key, target in day.targets.items():
        if key not in watched and not (target.firm_low or target.firm_high):
            continue
        scaled = target.scaled(share)
        if (
            whole_most
            and NUTRIENT[key].group in OF_THE_DAY
            and key not in SPREAD
            and target.high_by.rank != ORDER
        ):
            # one meal may bring most of it
            scaled = replace(scaled, high=target.high if target.firm_high else None)
        if meal is not None and key == "protein_g" and meal.protein_min_g is not None:
            most = scaled.high
            low = meal.protein_min_g if most is None else min(meal.protein_min_g, most)
            scaled = replace(scaled, low=low, aim=max(scaled.aim, low))
        weight = LEADING.get(key, WATCHED_WEIGHT if key in watched else OTHER_WEIGHT)
        out.append(Aim.of(scaled, weight))
    return with_upper_levels(out[:MOST_AIMS], upper_levels(day))


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
        if most is not None and not (aim.ordered and max(aim.aim, aim.low or 0.0) > most):
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
