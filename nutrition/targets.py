"""A person -> the day's targets, each with its value, band, reason and source."""

from __future__ import annotations

from dataclasses import dataclass

from nutrition import energy
from nutrition.nutrients import NUTRIENT
from nutrition.reference import SOURCE, reference_intakes

KCAL_FLOOR = {"female": 1200.0, "male": 1500.0}
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
FORMULA_WORDS = {"dri_2023": "reference equations of 2023", "mifflin": "Mifflin-St Jeor times activity"}
# kcal a day added to the day's need. Common practice, no source.
GOAL_KCAL = {"hold": 0.0, "lose": -500.0, "gain": 300.0, "muscle": 250.0}
GOAL_WORDS = {"hold": "hold weight", "lose": "lose weight", "gain": "gain weight", "muscle": "build muscle"}
PROTEIN_G_PER_KG = {
    "hold": (0.8, f"RDA for adults, {SOURCE} (2005)"),
    "lose": (1.2, "common practice, no source"),
    "gain": (1.2, "common practice, no source"),
    "muscle": (1.6, "within 1.4 to 2.0 g/kg, ISSN position stand (2017)"),
}
PROTEIN_LIFE_STAGE_G_PER_KG = {"pregnant": 1.1, "lactating": 1.3}
FIBER_G_PER_1000_KCAL = 14.0
SODIUM_CDRR_MG = 2300.0
SODIUM_AI_MG = 1500.0
ENERGY_BAND = 0.10
FAT_KCAL_PER_G, SUGAR_KCAL_PER_G = 9.0, 4.0
# share of the day's energy: least, most
FAT_AMDR = (0.20, 0.35)
SATURATED_MOST, ADDED_SUGARS_MOST = 0.10, 0.10
LIMITS = {"age_years": (18, 110), "height_cm": (120, 230), "weight_kg": (30, 300)}
# What is watched from the start; the others are there on request.
MAIN_KEYS = ("energy_kcal", "protein_g", "fiber_g", "sodium_mg")


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
    life_stage: str = "adult"
    formula: str = "dri_2023"


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
    for field, known, message in (
        ("activity", ACTIVITY_WORDS, "Choose an activity level."),
        ("goal", GOAL_KCAL, "Choose a goal."),
        ("life_stage", LIFE_STAGE_WORDS, "Choose a life stage."),
        ("formula", FORMULA_WORDS, "Choose how the energy is computed."),
    ):
        if getattr(person, field) not in known:
            raise OutOfRange(field, message)
    if person.life_stage != "adult":
        if person.sex == "male":
            raise OutOfRange("life_stage", "Pregnancy and nursing need the female equations.")
        if person.goal == "lose":
            raise OutOfRange("goal", "No weight loss is planned here in pregnancy or while nursing: ask the midwife or physician.")


def _energy(person: Person) -> Target:
    if person.formula == "mifflin":
        resting = energy.mifflin_st_jeor(person.sex, person.weight_kg, person.height_cm, person.age_years)
        factor = energy.ACTIVITY_FACTOR[person.activity]
        need = resting * factor
        words = f"Resting {resting:.0f} kcal x {factor:g} for activity = {need:.0f}"
        source = "Mifflin-St Jeor (1990) times activity"
    else:
        need = energy.eer_2023(person.sex, person.age_years, person.height_cm, person.weight_kg, person.activity)
        words = (
            f"Requirement at {person.age_years:g} years, {person.height_cm:g} cm, {person.weight_kg:g} kg, "
            f"{ACTIVITY_WORDS[person.activity].split(':')[0]}: {need:.0f} kcal"
        )
        source = "Dietary Reference Intakes for Energy (2023), coefficients from memory"
    stage, change, floor = energy.life_stage_kcal(person.life_stage), GOAL_KCAL[person.goal], KCAL_FLOOR[person.sex]
    wanted = need + stage + change
    if stage:
        words += f", {stage:+.0f} for {LIFE_STAGE_WORDS[person.life_stage]}"
    if change:
        words += f", {change:+.0f} to {GOAL_WORDS[person.goal]}"
        source += "; change for the goal: common practice, no source"
    if wanted < floor:
        words += f"; lifted to the floor of {floor:.0f}"
    aim = max(wanted, floor)
    return Target("energy_kcal", max(aim * (1 - ENERGY_BAND), floor), aim, aim * (1 + ENERGY_BAND), "kcal", source, f"{words}.")


def _protein(person: Person) -> Target:
    per_kg, source = PROTEIN_G_PER_KG[person.goal]
    stage = PROTEIN_LIFE_STAGE_G_PER_KG.get(person.life_stage.split("_")[0], 0.0)
    if stage > per_kg:
        per_kg, source = stage, f"RDA for {LIFE_STAGE_WORDS[person.life_stage]}, {SOURCE} (2005), from memory"
    protein = per_kg * person.weight_kg
    reason = f"{per_kg:g} g per kg x {person.weight_kg:g} kg = {protein:.0f} g at least; a tenth more as the aim."
    return Target("protein_g", protein, protein * 1.1, None, "g", source, reason)


def _shares_of_energy(kcal: float) -> list[Target]:
    least, most = (share * kcal / FAT_KCAL_PER_G for share in FAT_AMDR)
    saturated, sugars = SATURATED_MOST * kcal / FAT_KCAL_PER_G, ADDED_SUGARS_MOST * kcal / SUGAR_KCAL_PER_G
    guidelines = "Dietary Guidelines for Americans 2020-2025"
    return [
        Target(
            "fat_g", least, (least + most) / 2, most, "g", f"AMDR, {SOURCE} (2005)",
            f"20 to 35 % of {kcal:.0f} kcal at 9 kcal/g = {least:.0f} to {most:.0f} g.",
        ),
        Target(
            "saturated_fat_g", None, saturated / 2, saturated, "g", guidelines,
            f"Under 10 % of {kcal:.0f} kcal at 9 kcal/g = {saturated:.0f} g.",
        ),
        Target(
            "added_sugars_g", None, 0.0, sugars, "g", guidelines,
            f"Under 10 % of {kcal:.0f} kcal at 4 kcal/g = {sugars:.0f} g; none is needed.",
        ),
    ]  # fmt: skip


def day_targets(person: Person) -> dict[str, Target]:
    """The day's targets by nutrient key, the main ones first. Raises OutOfRange."""
    check(person)
    kcal = _energy(person)
    fiber = FIBER_G_PER_1000_KCAL * kcal.aim / 1000.0
    out = [
        kcal,
        _protein(person),
        Target(
            "fiber_g", fiber, fiber * 1.2, None, "g", f"AI of 14 g per 1000 kcal, {SOURCE} (2005)",
            f"14 g x {kcal.aim:.0f} / 1000 kcal = {fiber:.0f} g at least.",
        ),
        Target(
            "sodium_mg", None, SODIUM_AI_MG, SODIUM_CDRR_MG, "mg",
            f"AI and chronic disease risk reduction level, {SOURCE} (2019)",
            "1500 mg is adequate; above 2300 mg less is better.",
        ),
        *_shares_of_energy(kcal.aim),
    ]  # fmt: skip
    for row in reference_intakes(person.sex, person.age_years, person.life_stage).values():
        unit = NUTRIENT[row.key].unit
        most = f", at most {row.upper:g} {unit}" if row.upper else ""
        reason = f"{row.kind} for {row.group}: {row.value:g} {unit}{most}."
        out.append(Target(row.key, row.value, row.value, row.upper, unit, f"{row.source}, from memory", reason))
    return {target.key: target for target in out}


def judge(target: Target, amount: float) -> tuple[str, float]:
    """ "under", "inside" or "over" the band, and by how much, in the target's unit."""
    if target.low is not None and amount < target.low:
        return "under", target.low - amount
    if target.high is not None and amount > target.high:
        return "over", amount - target.high
    return "inside", 0.0
