"""Who the targets are for, and what of a person's figures can be computed with."""

from __future__ import annotations

import math
from dataclasses import dataclass

from nutrition.composition.errors import CoreError
from nutrition.targets.conditions import clash
from nutrition.targets.refeeding import refeeding_risk

SEXES = ("female", "male")
ACTIVITY_WORDS = {
    "inactive": "inactive: mostly sitting",
    "low_active": "low active: on the feet, or light exercise 1 to 3 days",
    "active": "active: exercise 3 to 5 days",
    "very_active": "very active: hard exercise or heavy work most days",
}
LIFE_STAGE_WORDS = {
    "adult": "adult",
    "pregnant_1": "pregnant, first trimester",
    "pregnant_2": "pregnant, second trimester",
    "pregnant_3": "pregnant, third trimester",
    "lactating_0_6": "nursing, first half year",
    "lactating_7_12": "nursing, second half year",
}
FORMULA_WORDS = {
    "dri_2023": "reference equations of 2023",
    "mifflin": "Mifflin-St Jeor times activity",
    "kcal_per_kg": "kcal per kg of body weight",
    "measured": "a measured value",
}
GOAL_WORDS = {
    "hold": "hold weight",
    "lose": "lose weight",
    "gain": "gain weight",
    "muscle": "build muscle",
}
WEIGHT_BASIS_WORDS = {
    "auto": "actual, or adjusted over BMI 30",
    "actual": "actual weight",
    "target": "target weight",
    "adjusted": "adjusted weight",
}
MEAL_PATTERN_WORDS = {"2": "two meals", "3": "three meals", "3_snacks": "three meals and snacks"}
# What the formulas here cover, and what no living person can be: between them the person is
# referred.
LIMITS = {"age_years": (18.0, 110.0), "height_cm": (120.0, 230.0), "weight_kg": (30.0, 300.0)}
POSSIBLE = {"age_years": (0.0, 122.0), "height_cm": (40.0, 275.0), "weight_kg": (1.0, 640.0)}
KCAL_PER_KG_LIMITS = (15.0, 70.0)
MEASURED_LIMITS = (600.0, 8000.0)
PACE_LIMIT = 3.0
TWINS, EATING_DISORDER = "twin_pregnancy", "active_eating_disorder"
_WORDS = {
    "age_years": "Age",
    "height_cm": "Height",
    "weight_kg": "Weight",
    "target_weight_kg": "Target weight",
    "weight_before_kg": "Weight before pregnancy",
}
_UNITS = {
    "age_years": "years",
    "height_cm": "cm",
    "weight_kg": "kg",
    "target_weight_kg": "kg",
    "weight_before_kg": "kg",
}


class OutOfRange(CoreError):
    """A person's figure that nothing here can be computed with. `field` names it."""

    def __init__(self, field: str, message: str) -> None:
        super().__init__(message, field)


class Referred(OutOfRange):
    """A possible person whom the formulas here do not cover; `refer_to` says who plans for them."""

    def __init__(self, field: str, message: str, refer_to: str) -> None:
        super().__init__(field, message)
        self.refer_to = refer_to


@dataclass(frozen=True, kw_only=True)
class Person:
    """Who the targets are for. `sex` is the one used in equations, "female" or "male". [years],
    [cm], [kg]

    `pace_kg_per_week` is how fast weight is to change, without a sign; None takes the school's or
    the usual pace. `weight_basis` says which weight counts for what goes by the kilogram;
    `kcal_per_kg` and `measured_kcal` are for the formulas of that name. `vegan_iron` and
    `vegan_zinc` raise those two reference intakes for a plant-only diet. `weight_before_kg` is the
    weight before pregnancy. `found` are the conditions that only a blood value stands for, each
    with that value in words; they are among the conditions. `old_values` are the kinds of blood
    value that were measured once and are too old to go by. `surgery_months` is how long ago the
    stomach was operated on, `fat_free_kg` what of the body is not fat, where it was measured.
    """

    sex: str
    age_years: float
    height_cm: float
    weight_kg: float
    activity: str = "low_active"
    goal: str = "hold"
    life_stage: str = "adult"
    formula: str = "dri_2023"
    conditions: frozenset[str] = frozenset()
    allergies: frozenset[str] = frozenset()
    target_weight_kg: float | None = None
    pace_kg_per_week: float | None = None
    weight_basis: str = "auto"
    kcal_per_kg: float | None = None
    measured_kcal: float | None = None
    vegan_iron: bool = True
    vegan_zinc: bool = True
    meals: str = "3"
    weight_before_kg: float | None = None
    found: tuple[tuple[str, str], ...] = ()
    old_values: frozenset[str] = frozenset()
    surgery_months: float | None = None
    fat_free_kg: float | None = None

    @property
    def pregnant(self) -> bool:
        return self.life_stage.startswith("pregnant")

    @property
    def nursing(self) -> bool:
        return self.life_stage.startswith("lactating")


def _check_size(person: Person, field: str) -> None:
    value = getattr(person, field)
    if value is None:
        return
    name, unit = _WORDS[field], _UNITS[field]
    measure = "weight_kg" if field.endswith("weight_kg") or field == "weight_before_kg" else field
    low, high = POSSIBLE[measure]
    if not math.isfinite(value) or not low <= value <= high:
        raise OutOfRange(
            field, f"{name} {value:g} {unit} is not possible: give {low:g} to {high:g} {unit}."
        )
    low, high = LIMITS[measure]
    if not low <= value <= high:
        message = (
            f"{name} {value:g} is outside {low:g} to {high:g} {unit}, which is what the "
            f"formulas here cover."
        )
        if field == "age_years" and value < low:
            raise Referred(field, message, "a pediatric dietitian, with the child's physician")
        raise Referred(field, message, "a clinical dietitian, who sets the numbers by hand")


def check(person: Person) -> None:
    """Raises OutOfRange, naming the field, for what cannot be; Referred for a person whom the
    formulas do not cover."""
    for field in _WORDS:
        _check_size(person, field)
    if person.sex not in SEXES:
        raise OutOfRange("sex", "Choose the sex used in the equations.")
    for field, known, message in (
        ("activity", ACTIVITY_WORDS, "Choose an activity level."),
        ("goal", GOAL_WORDS, "Choose a goal."),
        ("life_stage", LIFE_STAGE_WORDS, "Choose a life stage."),
        ("formula", FORMULA_WORDS, "Choose how the energy is computed."),
        ("weight_basis", WEIGHT_BASIS_WORDS, "Choose which weight counts."),
        ("meals", MEAL_PATTERN_WORDS, "Choose two meals, three, or three and snacks."),
    ):
        if getattr(person, field) not in known:
            raise OutOfRange(field, message)
    if person.life_stage != "adult" and person.sex == "male":
        raise OutOfRange("life_stage", "Pregnancy and nursing need the female equations.")
    _check_choices(person)
    _check_conditions(person)


def _check_conditions(person: Person) -> None:
    clashing = clash(person.conditions)
    if clashing:
        raise OutOfRange("conditions", clashing)
    if person.sex == "male" and not person.conditions.isdisjoint((TWINS, "gestational_diabetes")):
        raise OutOfRange("conditions", "Twins and gestational diabetes are of a pregnancy.")
    risk = refeeding_risk(person.weight_kg / (person.height_cm / 100.0) ** 2, person.conditions)
    if risk:
        raise Referred(
            "weight_kg" if risk.startswith("BMI") and " and " not in risk else "conditions",
            f"{risk[0].upper()}{risk[1:]}: starting to eat again can drop "
            f"phosphate, potassium and magnesium in the blood "
            "within days. No energy is computed; it is usually begun at 5 to 10 kcal per kg with "
            "thiamine, in a hospital's hands "
            "(NICE guideline CG32, from memory).",
            "the client's physician today, and a hospital nutrition team",
        )
    if EATING_DISORDER in person.conditions:
        raise Referred(
            "conditions",
            "An eating disorder now: no numbers are computed, for they feed the illness. Regular "
            "meals are agreed on with those who treat it "
            "(Academy for Eating Disorders, medical care standards (2021), from memory).",
            "the treating therapist and physician",
        )


def _check_choices(person: Person) -> None:
    pace = person.pace_kg_per_week
    if pace is not None and not 0 <= pace <= PACE_LIMIT:
        raise OutOfRange(
            "pace_kg_per_week", f"A pace is 0 to {PACE_LIMIT:g} kg a week, without a sign."
        )
    for formula, field, unit, (low, high) in (
        ("kcal_per_kg", "kcal_per_kg", "kcal per kg", KCAL_PER_KG_LIMITS),
        ("measured", "measured_kcal", "kcal", MEASURED_LIMITS),
    ):
        value = getattr(person, field)
        if person.formula == formula and (value is None or not low <= value <= high):
            raise OutOfRange(
                field, f"Give {low:g} to {high:g} {unit} for this way of computing the energy."
            )
    if person.weight_basis == "target" and person.target_weight_kg is None:
        raise OutOfRange(
            "target_weight_kg", "Give a target weight, or choose another weight to count."
        )
