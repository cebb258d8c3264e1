"""What a day of living costs: the published energy equations, each its own small function."""

from __future__ import annotations

from types import MappingProxyType

# Activity factors for resting energy. Common practice, no source.
ACTIVITY_FACTOR = MappingProxyType(
    {"inactive": 1.2, "low_active": 1.375, "active": 1.55, "very_active": 1.725}
)

# (constant, per year of age, per cm of height, per kg of weight). From memory.
_EER = {
    ("male", "inactive"): (753.07, -10.83, 6.50, 14.10),
    ("male", "low_active"): (581.47, -10.83, 8.30, 14.94),
    ("male", "active"): (1004.82, -10.83, 6.52, 15.91),
    ("male", "very_active"): (-517.88, -10.83, 15.61, 19.11),
    ("female", "inactive"): (584.90, -7.01, 5.72, 11.71),
    ("female", "low_active"): (575.77, -7.01, 6.60, 12.14),
    ("female", "active"): (710.25, -7.01, 6.54, 12.34),
    ("female", "very_active"): (511.83, -7.01, 9.07, 12.56),
}
# Milk made, less what the body's own stores give, added to the need of a woman who does not nurse.
# [kcal/day] From memory.
NURSING_KCAL = MappingProxyType({"lactating_0_6": 540.0 - 140.0, "lactating_7_12": 380.0})
# Second and third trimester: (constant, per year, per cm, per kg), the same for all with the week
# of gestation and what is laid down in the body, which goes by the weight before pregnancy.
# [kcal/day] From memory.
_EER_PREGNANT = {
    "inactive": (1131.20, -2.04, 0.34, 12.15),
    "low_active": (693.35, -2.04, 5.73, 10.20),
    "active": (-223.84, -2.04, 13.23, 8.15),
    "very_active": (-779.72, -2.04, 18.45, 8.73),
}
PER_GESTATION_WEEK = 9.16
# The middle of the trimester stands for it.
GESTATION_WEEK = MappingProxyType({"pregnant_2": 20.0, "pregnant_3": 34.0})
# Customary additions over the need before pregnancy. [kcal/day] Dietary Reference Intakes (2005).
# From memory.
PREGNANCY_KCAL = MappingProxyType({"pregnant_1": 0.0, "pregnant_2": 340.0, "pregnant_3": 452.0})


def mifflin_st_jeor(sex: str, weight_kg: float, height_cm: float, age_years: float) -> float:
    """Resting energy expenditure. [kcal/day] from weight [kg], height [cm], age [years].

    References: Mifflin, St Jeor et al., Am J Clin Nutr 51:241 (1990); adults of 19 to 78 years.
    """
    return (
        10.0 * weight_kg + 6.25 * height_cm - 5.0 * age_years + (5.0 if sex == "male" else -161.0)
    )


def eer_2023(
    sex: str, age_years: float, height_cm: float, weight_kg: float, activity: str
) -> float:
    """Estimated energy requirement of an adult. [kcal/day] from age [years], height [cm], weight
    [kg].

    Raises KeyError for an unknown sex or activity.

    References: National Academies, Dietary Reference Intakes for Energy (2023), adults of 19 years
    and over; the coefficients are from memory.
    """
    constant, per_year, per_cm, per_kg = _EER[sex, activity]
    return constant + per_year * age_years + per_cm * height_cm + per_kg * weight_kg


# At 18 the equations of those who still grow hold: (constant, per year, per cm, per kg), and what
# growth takes. [kcal/day] From memory.
_EER_18 = {
    ("male", "inactive"): (-447.51, 3.68, 13.01, 13.15),
    ("male", "low_active"): (19.12, 3.68, 8.62, 20.28),
    ("male", "active"): (-388.19, 3.68, 12.66, 20.46),
    ("male", "very_active"): (-671.75, 3.68, 15.38, 23.25),
    ("female", "inactive"): (55.59, -22.25, 8.43, 17.07),
    ("female", "low_active"): (-297.54, -22.25, 12.77, 14.73),
    ("female", "active"): (-189.55, -22.25, 11.74, 18.34),
    ("female", "very_active"): (-709.59, -22.25, 18.22, 14.25),
}
GROWTH_KCAL, ADULT_FROM_YEARS = 20.0, 19.0


def eer_2023_at_18(
    sex: str, age_years: float, height_cm: float, weight_kg: float, activity: str
) -> float:
    """Estimated energy requirement at 14 to 18 years, growth counted in. [kcal/day] from age
    [years], height [cm], weight [kg].

    Raises KeyError for an unknown sex or activity.

    References: National Academies, Dietary Reference Intakes for Energy (2023); the coefficients
    are from memory.
    """
    constant, per_year, per_cm, per_kg = _EER_18[sex, activity]
    return constant + per_year * age_years + per_cm * height_cm + per_kg * weight_kg + GROWTH_KCAL


def eer_2023_pregnant(
    age_years: float,
    height_cm: float,
    weight_kg: float,
    activity: str,
    gestation_weeks: float,
    deposited_kcal: float = 200.0,
) -> float:
    """Estimated energy requirement in the second and third trimester. [kcal/day] from age [years],
    height [cm], weight now [kg], gestation [weeks].

    `deposited_kcal` is what is laid down a day: 200 for a normal weight before pregnancy. Raises
    KeyError for an unknown activity.

    References: National Academies, Dietary Reference Intakes for Energy (2023); the coefficients
    are from memory.
    """
    constant, per_year, per_cm, per_kg = _EER_PREGNANT[activity]
    grown = PER_GESTATION_WEEK * gestation_weeks + deposited_kcal
    return constant + per_year * age_years + per_cm * height_cm + per_kg * weight_kg + grown


def life_stage_kcal(life_stage: str) -> float:
    """What pregnancy or nursing adds to the day. [kcal/day] Zero for "adult"."""
    return PREGNANCY_KCAL.get(life_stage, 0.0) + NURSING_KCAL.get(life_stage, 0.0)
