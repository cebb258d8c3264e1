"""Body size: the index, the least weight that may be aimed for, and which weight counts for what
goes by the kilogram."""

from __future__ import annotations

from dataclasses import dataclass

from nutrition.targets.person import Person

UNDERWEIGHT_BMI, OBESE_BMI = 18.5, 30.0
# Older people are frail before they are as thin as that. GLIM criteria (2019), from memory.
OLDER_UNDERWEIGHT_BMI, OLDER_FROM_YEARS = 20.0, 65.0
# The weight at the top of the normal band stands for the lean body; a quarter of what is above it
# counts.
REFERENCE_BMI, COUNTED_EXCESS = 25.0, 0.25


@dataclass(frozen=True)
class WeightUsed:
    """The weight [kg] that grams per kilogram are multiplied by, its kind, and the arithmetic in
    words."""

    kg: float
    kind: str
    reason: str


def bmi(weight_kg: float, height_cm: float) -> float:
    """Body mass index. [kg/m²]

    References: World Health Organization, Technical Report Series 894 (2000), for the bands at
    18.5, 25 and 30.
    """
    return weight_kg / (height_cm / 100.0) ** 2


def least_bmi(age_years: float) -> float:
    """The body mass index under which, and down to which, no loss is planned. [kg/m²]

    References: World Health Organization, Technical Report Series 894 (2000); from 65 years on GLIM
    (2019), from memory.
    """
    return OLDER_UNDERWEIGHT_BMI if age_years >= OLDER_FROM_YEARS else UNDERWEIGHT_BMI


def least_weight(person: Person) -> float:
    """The weight under which, and down to which, no loss is planned. [kg]"""
    return least_bmi(person.age_years) * (person.height_cm / 100.0) ** 2


def must_gain(person: Person) -> bool:
    """Whether what is rich in little room is what this body needs: to gain, when frail or thin."""
    return person.goal == "gain" or is_thin_or_frail(person)


def is_thin_or_frail(person: Person) -> bool:
    """Whether their food is made richer, and not larger: nobody who eats little eats a larger
    plate."""
    thin = bmi(person.weight_kg, person.height_cm) < least_bmi(person.age_years)
    return thin or "frail" in person.conditions


def adjusted_weight(weight_kg: float, height_cm: float) -> float:
    """The reference weight at BMI 25 and a quarter of what is above it. [kg]

    References: the quarter is the factor of the adjusted body weight of KDOQI (2000); the reference
    weight at BMI 25 is common practice, no source.
    """
    reference = REFERENCE_BMI * (height_cm / 100.0) ** 2
    return reference + COUNTED_EXCESS * (weight_kg - reference)


def weight_used(person: Person) -> WeightUsed:
    """Actual, target or adjusted weight, as the person's basis says; "auto" adjusts over BMI 30,
    in pregnancy the weight before it counts, where it is known."""
    kg, name = person.weight_kg, "actual weight"
    if person.pregnant and person.weight_before_kg is not None:
        kg, name = person.weight_before_kg, "weight before pregnancy"
    now = bmi(kg, person.height_cm)
    if person.weight_basis == "target" and person.target_weight_kg:
        return WeightUsed(
            person.target_weight_kg,
            "target",
            f"target weight {person.target_weight_kg:g} kg, as chosen",
        )
    if person.weight_basis == "adjusted" or (person.weight_basis == "auto" and now > OBESE_BMI):
        reference = REFERENCE_BMI * (person.height_cm / 100.0) ** 2
        above = kg - reference
        kg = adjusted_weight(kg, person.height_cm)
        words = (
            f"{reference:.1f} kg at BMI 25 + a quarter of the {above:.1f} kg above it = {kg:.1f} kg"
        )
        if name != "actual weight":
            words = f"{words}, from the {name}"
        why = f"BMI {now:.1f} is over 30" if person.weight_basis == "auto" else "as chosen"
        return WeightUsed(kg, "adjusted", f"adjusted weight, {why}: {words}")
    return WeightUsed(
        kg, "actual" if name == "actual weight" else "before", f"{name} {kg:g} kg (BMI {now:.1f})"
    )
