"""A person's day: targets, meals, disagreements, forecast and cautions."""

from __future__ import annotations

from typing import Any

from nutrition.composition.nutrients import NUTRIENT
from nutrition.requests.cautions import outside
from nutrition.requests.person import Asked
from nutrition.requests.planned_person import situation_of
from nutrition.requests.structure import Told
from nutrition.safety.cautions import cautions_in
from nutrition.targets.day import DayTargets
from nutrition.targets.person import Person, Referred
from nutrition.targets.reference_intakes import VEGAN_FACTOR, reference_intakes
from nutrition.targets.voices import Target, band_words, target_words
from nutrition.targets.weight_forecast import Forecast


class TargetTold(Told):
    """A target in its unit, whose it is and why; of iron and zinc what the tables say before a
    plant-only diet asks more."""

    min: float | None
    aim: float
    max: float | None
    unit: str
    source: str
    reason: str
    in_force: str
    plain: float | None = None
    vegan_factor: float | None = None


class WeightTold(Told):
    """The weight that counts for what goes by the kilogram. [kg]"""

    kg: float
    kind: str
    reason: str


class GainTold(Told):
    """How much is to be gained in a pregnancy [kg], and in each week [kg/week]."""

    band: str
    bmi_before: float
    low_kg: float | None
    high_kg: float | None
    weekly_low_kg: float
    weekly_high_kg: float
    so_far_kg: float
    twins: bool
    text: str


class MealTold(Told):
    """What a meal is of the day: its share [0 to 1], energy [kcal] and protein. [g]"""

    key: str
    name: str
    share: float
    energy_kcal: float
    protein_g: float
    protein_min_g: float | None
    reason: str


class DisagreementTold(Told):
    """Two voices that ask for different things, which is in force, and why."""

    key: str
    about: str
    in_force: str
    in_force_says: str
    other: str
    other_says: str
    why: str
    text: str


class PointTold(Told):
    """Where the weight is after so many weeks, by either rule. [kg]"""

    weeks: int
    dynamic_kg: float
    static_kg: float


class ForecastTold(Told):
    """How a lasting change of intake moves the weight. [kcal a day, kg, weeks]"""

    kcal_per_day: float
    points: list[PointTold]
    eventual_kg: float
    weeks_to_target_dynamic: float | None
    weeks_to_target_static: float | None
    text: str


class RuleTold(Told):
    """A caution with all that is known of it."""

    code: str
    level: str
    text: str
    why: str
    refer_to: str
    source: str
    about: str
    names: list[str]
    because: list[str]
    client: str
    by_amount: bool
    urgent: str
    todo: str
    measured: str


class DayAnswer(Told):
    """The day's targets by key. `computed` is what stood before an order; `referred` that nothing
    is computed, and why."""

    targets: dict[str, TargetTold]
    computed: dict[str, TargetTold] = {}
    weight_used: WeightTold | None = None
    gestational_gain: GainTold | None = None
    meals: list[MealTold]
    disagreements: list[DisagreementTold]
    forecast: ForecastTold | None
    cautions: list[RuleTold]
    referred: str = ""
    why: dict[str, Any] = {}


def _target(target: Target, **more: float) -> TargetTold:
    return TargetTold(
        min=target.low,
        aim=target.aim,
        max=target.high,
        unit=target.unit,
        source=target.source,
        reason=target.reason,
        in_force=target.voice,
        **more,
    )


def _plain(person: Person) -> dict[str, dict[str, float]]:
    """What stands in the tables of a nutrient that a plant-only diet asks more of."""
    rows = reference_intakes(person.sex, person.age_years, person.life_stage)
    raised = {"iron_mg": person.vegan_iron, "zinc_mg": person.vegan_zinc}
    return {
        key: {"plain": rows[key].value, "vegan_factor": VEGAN_FACTOR[key]}
        for key, holds in raised.items()
        if holds
    }


def report(asked: Asked) -> DayAnswer:
    """A person whom the formulas do not cover is referred: no targets, the caution, and to whom to
    turn. Raises OutOfRange."""
    try:
        day = asked.day()
    except Referred as error:
        found = cautions_in(situation_of(asked, None))
        return DayAnswer(
            targets={},
            meals=[],
            disagreements=[],
            forecast=None,
            cautions=[RuleTold.model_validate(one) for one in (outside(error), *found)],
            referred=str(error),
        )
    return _told(day, asked)


def _told(day: DayTargets, asked: Asked) -> DayAnswer:
    plain, ordered = _plain(day.person), {order.key for order in asked.orders}
    gain, ahead = day.gain, day.forecast
    return DayAnswer(
        targets={key: _target(target, **plain.get(key, {})) for key, target in day.targets.items()},
        computed={key: _target(one) for key, one in day.computed.items() if key in ordered},
        weight_used=WeightTold.model_validate(day.weight),
        gestational_gain=GainTold(**vars(gain), text=gain.words) if gain else None,
        meals=[MealTold.model_validate(meal) for meal in day.meals],
        disagreements=[DisagreementTold(**vars(one), text=one.words) for one in day.disagreements],
        forecast=_forecast(ahead) if ahead else None,
        cautions=[RuleTold.model_validate(one) for one in cautions_in(situation_of(asked, day))],
    )


def _forecast(ahead: Forecast) -> ForecastTold:
    return ForecastTold(
        kcal_per_day=ahead.kcal_per_day,
        points=[
            PointTold(weeks=weeks, dynamic_kg=dynamic, static_kg=static)
            for weeks, dynamic, static in ahead.points
        ],
        eventual_kg=ahead.eventual_kg,
        weeks_to_target_dynamic=ahead.dynamic_weeks,
        weeks_to_target_static=ahead.static_weeks,
        text=ahead.words,
    )


def as_text(answer: DayAnswer) -> str:
    """The report for reading in a terminal."""
    out = []
    for caution in answer.cautions:
        out += [
            f"{caution.level.upper()}: {caution.text}",
            f"    {caution.why} Turn to: {caution.refer_to}. ({caution.source})",
        ]
    out += [f"THEY DISAGREE: {row.text}" for row in answer.disagreements]
    for key, row in answer.targets.items():
        target = Target(
            key=key,
            low=row.min,
            aim=row.aim,
            high=row.max,
            unit=row.unit,
            source=row.source,
            reason=row.reason,
        )
        out.append(f"{NUTRIENT[key].name:32} {target_words(target):40} {row.reason} [{row.source}]")
    for meal in answer.meals:
        least = (
            ""
            if meal.protein_min_g is None
            else f", protein {band_words('protein_g', meal.protein_min_g, None)}"
        )
        out.append(f"{meal.name:32} {meal.share * 100:.0f} %: {meal.energy_kcal:.0f} kcal{least}")
    if answer.weight_used:
        out.append(f"Weight that counts per kg: {answer.weight_used.reason}.")
    if answer.forecast:
        out.append(answer.forecast.text)
    return "\n".join(out)
