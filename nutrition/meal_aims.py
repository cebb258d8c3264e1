"""The day's targets as aims for portions: of the whole day, or of one meal's share of it."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import replace

from nutrition.balance import DENSITY, Aim, Part
from nutrition.conditions import KIDNEY, conditions
from nutrition.meals import MealTarget
from nutrition.nutrients import NUTRIENT
from nutrition.reference import reference_intakes
from nutrition.targets import DayTargets, Order

# A watched target counts twice as much as one that is only bounded; energy and protein three times.
# Common practice, no source.
WATCHED_WEIGHT, OTHER_WEIGHT = 2.0, 1.0
LEADING = {"energy_kcal": 3.0, "protein_g": 3.0}
MOST_AIMS = 25
# The most of a mineral or vitamin is of the whole day, but for sodium, for what an order sets, and
# where the kidneys must keep up with each meal. Common practice, no source.
OF_THE_DAY, SPREAD = ("minerals", "vitamins"), ("sodium_mg",)
EACH_MEAL = KIDNEY | {"ckd_1", "ckd_2", "high_potassium_blood"}
# A least that these parts can bring under a tenth of is left to supplements and to other food.
OUT_OF_REACH = 0.1


def firm_keys(day: DayTargets, orders: Sequence[Order]) -> tuple[frozenset[str], frozenset[str]]:
    """The keys whose bounds an order sets, and those whose most a condition sets: these are never
    broken."""
    ordered = frozenset(order.key for order in orders if order.kind == "order")
    voices = {conditions()[code].name for code in day.person.conditions if code in conditions()}
    by_condition = frozenset(
        key
        for key, target in day.targets.items()
        if target.voice in voices and target.high is not None
    )
    return ordered, by_condition - ordered


def _every_meal_counts(day: DayTargets) -> bool:
    """Whether the kidneys must keep up with what each meal brings."""
    gentle = day.school is not None and day.school.code.partition(":")[0] == "kidney_gentle"
    return gentle or bool(day.person.conditions & EACH_MEAL)


def aims_for(
    day: DayTargets,
    orders: Sequence[Order],
    watched: Collection[str],
    share: float = 1.0,
    meal: MealTarget | None = None,
) -> tuple[Aim, ...]:
    """The watched targets, and those that are never broken, for a share of the day [0 to 1].

    A meal's own least of protein stands in place of its share of the day's. Calorie density is the
    same for a meal and a day.
    """
    ordered, by_condition = firm_keys(day, orders)
    whole_most = share < 1 and not _every_meal_counts(day)
    out = []
    for key, target in day.targets.items():
        hard = key in ordered or key in by_condition
        if key not in watched and not hard:
            continue
        by = 1.0 if key == DENSITY else share
        low, high = (None if value is None else value * by for value in (target.low, target.high))
        if (
            whole_most
            and NUTRIENT[key].group in OF_THE_DAY
            and key not in SPREAD
            and key not in ordered
        ):
            # one meal may bring most of it
            high = target.high if hard else None
        aim = target.aim * by
        if meal is not None and key == "protein_g" and meal.protein_min_g is not None:
            low = meal.protein_min_g if high is None else min(meal.protein_min_g, high)
            aim = max(aim, low)
        weight = LEADING.get(key, WATCHED_WEIGHT if key in watched else OTHER_WEIGHT)
        out.append(Aim(key, low, aim, high, weight, hard, hard_low=key in ordered))
    kept = out[:MOST_AIMS]
    return with_upper_levels(kept, upper_levels(day))


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
        if most is not None and not aim.hard:
            high = most if aim.high is None else min(aim.high, most)
            aim = replace(
                aim,
                high=high,
                low=None if aim.low is None else min(aim.low, high),
                aim=min(aim.aim, high),
                hard=True,
                hard_low=False,
            )
        out.append(aim)
    return (
        *out,
        *(
            Aim(key, None, most, most, 0.0, True, False)
            for key, most in upper.items()
            if key not in named
        ),
    )


def within_upper_levels(aims: Sequence[Aim], base: Mapping[str, float]) -> tuple[Aim, ...]:
    """The aims without the upper levels that what is eaten besides, a tablet for instance, passes
    by itself: no portion can mend that, and the cautions speak of it."""
    out = []
    for aim in aims:
        if (
            aim.hard
            and not aim.hard_low
            and aim.high is not None
            and base.get(aim.key, 0.0) >= aim.high
        ):
            if not aim.weight:
                continue
            aim = replace(aim, high=None, hard=False)
        out.append(aim)
    return tuple(out)


def within_reach(
    aims: Sequence[Aim], parts: Sequence[Part], base: Mapping[str, float]
) -> tuple[Aim, ...]:
    """The aims without those whose least these parts cannot come near, however large they are; a
    most of such a key is kept."""
    out = []
    for aim in aims:
        if aim.key != DENSITY and aim.low is not None and aim.low > 0:
            most = base.get(aim.key, 0.0) + sum(
                part.amount(aim.key) * max(part.most, part.grams) for part in parts
            )
            if most < OUT_OF_REACH * aim.low:
                if aim.high is None:
                    continue
                aim = replace(aim, low=None, aim=min(most, aim.high), weight=OTHER_WEIGHT)
        out.append(aim)
    return tuple(out)
