"""What of a body is not fat, what energy training leaves for it, and which bodies the energy
equation was not made for."""

from __future__ import annotations

from nutrition.targets import energy
from nutrition.targets.body import bmi
from nutrition.targets.person import Person

# (per kg of weight, constant, per unit of body mass index), Janmahasatian et al. (2005).
_FAT_FREE = {"male": (9270.0, 6680.0, 216.0), "female": (9270.0, 8780.0, 244.0)}
# Bodies outside these were few where the equation was made. Common practice, no source.
MADE_FOR = {
    "age": (19.0, 90.0, "years"),
    "height": (145.0, 200.0, "cm"),
    "weight": (42.0, 150.0, "kg"),
    "BMI": (18.5, 40.0, ""),
}


def fat_free_kg(person: Person) -> float:
    """Fat-free mass, as it was entered, or else estimated. [kg] from weight [kg], height [cm]

    References: Janmahasatian et al., Clin Pharmacokinet 44:1051 (2005), lean body weight.
    """
    if person.fat_free_kg is not None:
        return person.fat_free_kg
    per_kg, constant, per_bmi = _FAT_FREE[person.sex]
    index = bmi(person.weight_kg, person.height_cm)
    return per_kg * person.weight_kg / (constant + per_bmi * index)


def energy_available(person: Person, kcal: float) -> float | None:
    """What is left for the body after training. [kcal per kg of fat-free mass] from [kcal/day];
    None for who does not train hard. Training is taken as what the requirement of the very active
    is over that of the low active.

    References: IOC consensus on relative energy deficiency in sport (2018), from memory; the energy
    of training so taken: common practice, no source.
    """
    if person.activity != "very_active" or person.age_years < energy.ADULT_FROM_YEARS:
        return None
    args = person.sex, person.age_years, person.height_cm, person.weight_kg
    training = energy.eer_2023(*args, "very_active") - energy.eer_2023(*args, "low_active")
    return (kcal - max(training, 0.0)) / fat_free_kg(person)


def outside_equation(person: Person) -> tuple[str, ...]:
    """In what a body is outside those that the energy equation was made from, in words."""
    own = {
        "age": person.age_years,
        "height": person.height_cm,
        "weight": person.weight_kg,
        "BMI": bmi(person.weight_kg, person.height_cm),
    }
    return tuple(
        f"{name} {own[name]:.4g} {unit}".strip()
        for name, (low, high, unit) in MADE_FOR.items()
        if not low <= own[name] <= high
    )
