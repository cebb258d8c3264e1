"""A person -> the day's targets, each with its value, band, reason and source."""

from __future__ import annotations

from dataclasses import dataclass

KCAL_FLOOR = {"female": 1200.0, "male": 1500.0}
ACTIVITY = {"inactive": 1.2, "low_active": 1.375, "active": 1.55, "very_active": 1.725}
ACTIVITY_WORDS = {
    "inactive": "inactive: mostly sitting",
    "low_active": "low active: on the feet, or light exercise 1 to 3 days",
    "active": "active: exercise 3 to 5 days",
    "very_active": "very active: hard exercise or heavy work most days",
}
# kcal a day added to the day's need. Common practice, no source.
GOAL_KCAL = {"hold": 0.0, "lose": -500.0, "gain": 300.0, "muscle": 250.0}
GOAL_WORDS = {"hold": "hold weight", "lose": "lose weight", "gain": "gain weight", "muscle": "build muscle"}
PROTEIN_G_PER_KG = {
    "hold": (0.8, "RDA for adults, Dietary Reference Intakes (2005)"),
    "lose": (1.2, "common practice, no source"),
    "gain": (1.2, "common practice, no source"),
    "muscle": (1.6, "within 1.4 to 2.0 g/kg, ISSN position stand (2017)"),
}
FIBER_G_PER_1000_KCAL = 14.0
SODIUM_CDRR_MG = 2300.0
SODIUM_AI_MG = 1500.0
ENERGY_BAND = 0.10
LIMITS = {"age_years": (18, 110), "height_cm": (120, 230), "weight_kg": (30, 300)}


class OutOfRange(ValueError):
    """A person's figure that no formula here covers. `field` names it."""

    def __init__(self, field: str, message: str) -> None:
        super().__init__(message)
        self.field = field


@dataclass(frozen=True)
class Person:
    """Who the targets are for. `sex` is the one used in equations, "female" or "male". [years], [cm], [kg]"""

    sex: str
    age_years: float
    height_cm: float
    weight_kg: float
    activity: str = "low_active"
    goal: str = "hold"


@dataclass(frozen=True)
class Target:
    """One target of the day. `low` and `high` bound the band, either may be open (None)."""

    key: str
    low: float | None
    aim: float
    high: float | None
    unit: str
    source: str
    reason: str


def check(person: Person) -> None:
    """Raises OutOfRange, naming the field, for a figure outside what these formulas cover."""
    words = {"age_years": "Age", "height_cm": "Height", "weight_kg": "Weight"}
    units = {"age_years": "years", "height_cm": "cm", "weight_kg": "kg"}
    for field, (low, high) in LIMITS.items():
        value = getattr(person, field)
        if not low <= value <= high:
            raise OutOfRange(
                field, f"{words[field]} {value:g} is outside {low} to {high} {units[field]}, which is what the formulas here cover."
            )
    if person.sex not in KCAL_FLOOR:
        raise OutOfRange("sex", "Choose the sex used in the equations.")
    if person.activity not in ACTIVITY:
        raise OutOfRange("activity", "Choose an activity level.")
    if person.goal not in GOAL_KCAL:
        raise OutOfRange("goal", "Choose a goal.")


def mifflin_st_jeor(sex: str, weight_kg: float, height_cm: float, age_years: float) -> float:
    """Resting energy expenditure. [kcal/day] from weight [kg], height [cm], age [years].

    References: Mifflin, St Jeor et al., Am J Clin Nutr 51:241 (1990); adults of 19 to 78 years.
    """
    return 10.0 * weight_kg + 6.25 * height_cm - 5.0 * age_years + (5.0 if sex == "male" else -161.0)


def day_targets(person: Person) -> dict[str, Target]:
    """The day's targets by nutrient key. Raises OutOfRange."""
    check(person)
    resting = mifflin_st_jeor(person.sex, person.weight_kg, person.height_cm, person.age_years)
    factor = ACTIVITY[person.activity]
    change = GOAL_KCAL[person.goal]
    floor = KCAL_FLOOR[person.sex]
    wanted = resting * factor + change
    energy = max(wanted, floor)
    reason = (
        f"Resting {resting:.0f} kcal x {factor:g} for activity = {resting * factor:.0f}"
        + (f", {change:+.0f} to {GOAL_WORDS[person.goal]}" if change else "")
        + (f"; lifted to the floor of {floor:.0f}" if wanted < floor else "")
        + "."
    )
    per_kg, protein_source = PROTEIN_G_PER_KG[person.goal]
    protein = per_kg * person.weight_kg
    fiber = FIBER_G_PER_1000_KCAL * energy / 1000.0
    return {
        "energy_kcal": Target(
            "energy_kcal", max(energy * (1 - ENERGY_BAND), floor), energy, energy * (1 + ENERGY_BAND), "kcal",
            "Mifflin-St Jeor (1990) times activity; change for the goal: common practice, no source", reason,
        ),
        "protein_g": Target(
            "protein_g", protein, protein * 1.1, None, "g", protein_source,
            f"{per_kg:g} g per kg x {person.weight_kg:g} kg = {protein:.0f} g at least; a tenth more as the aim.",
        ),
        "fiber_g": Target(
            "fiber_g", fiber, fiber * 1.2, None, "g", "AI of 14 g per 1000 kcal, Dietary Reference Intakes (2005)",
            f"14 g x {energy:.0f} / 1000 kcal = {fiber:.0f} g at least.",
        ),
        "sodium_mg": Target(
            "sodium_mg", None, SODIUM_AI_MG, SODIUM_CDRR_MG, "mg",
            "AI and chronic disease risk reduction level, Dietary Reference Intakes (2019)",
            "1500 mg is adequate; above 2300 mg less is better.",
        ),
    }  # fmt: skip


def judge(target: Target, amount: float) -> tuple[str, float]:
    """ "under", "inside" or "over" the band, and by how much, in the target's unit."""
    if target.low is not None and amount < target.low:
        return "under", target.low - amount
    if target.high is not None and amount > target.high:
        return "over", amount - target.high
    return "inside", 0.0
