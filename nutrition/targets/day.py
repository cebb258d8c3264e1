"""A person -> the day's targets: what each voice says, what is in force and why, the meals, and
where weight is heading."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from nutrition.targets.body import WeightUsed, least_weight, weight_used
from nutrition.targets.conditions import in_play
from nutrition.targets.energy_plan import EnergyPlan, energy_plan
from nutrition.targets.general_guidance import general_guidance
from nutrition.targets.guidance_layers import food_disagreements, laid_over, pace_disagreement
from nutrition.targets.macronutrient_fit import fitted
from nutrition.targets.meals import MealTarget, meal_targets
from nutrition.targets.orders import Order, by_hand, check_order
from nutrition.targets.person import Person, check
from nutrition.targets.pregnancy import GestationalGain, gestational_gain
from nutrition.targets.referral import check_referral
from nutrition.targets.schools import School
from nutrition.targets.voices import ORDER, WISH, Disagreement, Statement, Target, settle
from nutrition.targets.weight_forecast import Forecast, forecast

# Nothing is forecast beyond it for a gain: from there on no formula here holds. [kg/m²]
GREATEST_BMI = 40.0


@dataclass(frozen=True, kw_only=True)
class DayTargets:
    """One day's targets: in force, as computed without orders, the voices that disagree, the meals,
    the forecast, and the gain that a pregnancy asks for."""

    person: Person
    school: School | None
    weight: WeightUsed
    energy: EnergyPlan
    targets: Mapping[str, Target]
    computed: Mapping[str, Target]
    disagreements: tuple[Disagreement, ...]
    meals: tuple[MealTarget, ...]
    forecast: Forecast | None
    gain: GestationalGain | None = None

    def __getitem__(self, key: str) -> Target:
        return self.targets[key]


def day_targets(
    person: Person,
    school: School | None = None,
    orders: Sequence[Order] = (),
    shares: Mapping[str, float] | None = None,
) -> DayTargets:
    """The day's targets, the main ones first. `shares` are the meals' shares of the day [0 to 1],
    the usual ones if None.

    An order stands over a condition, a condition over the school, the school over general guidance.
    Raises OutOfRange, or Referred for a person whom the formulas do not cover.
    """
    # Whole: a day in the order in which it is made.
    check(person)
    for order in orders:
        check_order(order)
    person = replace(person, conditions=in_play(person.conditions, person.age_years))
    check_referral(person, {order.key for order in orders if order.kind == "order"})
    if "gestational_diabetes" in person.conditions and shares is None:
        # carbohydrate is spread over three meals and what is eaten between them
        person = replace(person, meals="3_snacks")
    weight = weight_used(person)
    plan, base = energy_plan(person, school, weight.kg)
    set_by_hand = by_hand(orders, plan.least)
    # the energy first: shares and fiber go by what is in force
    above = [
        row
        for row in (*laid_over(person, school, weight.kg, plan.aim), *set_by_hand)
        if row.key == "energy_kcal"
    ]
    kcal, computed_kcal, disagreements = settle([base, *above])
    plan = replace(plan, aim=kcal.aim)
    told: dict[str, list[Statement]] = {}
    for row in (
        *general_guidance(person, weight, kcal.aim),
        *laid_over(person, school, weight.kg, kcal.aim),
        *set_by_hand,
    ):
        if row.key != "energy_kcal":
            told.setdefault(row.key, []).append(row)
    targets, computed = {"energy_kcal": kcal}, {"energy_kcal": computed_kcal}
    for key, rows in told.items():
        targets[key], without_orders, found = settle(rows)
        if any(row.rank not in (WISH, ORDER) for row in rows):
            computed[key] = without_orders
        disagreements += found
    targets |= fitted(targets, check_together=True)
    computed |= fitted(computed)
    disagreements += pace_disagreement(person, school, plan) + food_disagreements(person, school)
    protein = targets["protein_g"]
    meals = meal_targets(person, school, weight.kg, kcal.aim, (protein.low, protein.aim), shares)
    change = kcal.aim - plan.need
    ends = least_weight(person), GREATEST_BMI * (person.height_cm / 100.0) ** 2
    ahead = (
        forecast(person.weight_kg, change, person.target_weight_kg, *ends)
        if abs(change) >= 1 and not person.pregnant
        else None
    )
    return DayTargets(
        person=person,
        school=school,
        weight=weight,
        energy=plan,
        targets=targets,
        computed=computed,
        disagreements=tuple(disagreements),
        meals=meals,
        forecast=ahead,
        gain=gestational_gain(person),
    )
