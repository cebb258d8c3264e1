"""What a school and conditions say over general guidance, and where they disagree."""

from __future__ import annotations

from dataclasses import replace

from nutrition.targets.adjustments import FoodStance
from nutrition.targets.body import bmi, least_bmi
from nutrition.targets.conditions import speaking
from nutrition.targets.energy_plan import EnergyPlan
from nutrition.targets.person import Person
from nutrition.targets.schools import USUAL_LOSS, School
from nutrition.targets.voices import (
    CONDITION,
    GENERAL_VOICE,
    SCHOOL,
    WHY_IN_FORCE,
    Disagreement,
    Statement,
)


def states_of(person: Person) -> frozenset[str]:
    """What is planned and how the body is, as rows of numbers may ask for it."""
    return frozenset(
        name
        for name, holds in (
            ("losing", person.goal == "lose"),
            ("underweight", bmi(person.weight_kg, person.height_cm) < least_bmi(person.age_years)),
            ("pregnant", person.pregnant),
            ("nursing", person.nursing),
            ("potassium_old", "potassium" in person.old_values),
            ("phosphate_old", "phosphate" in person.old_values),
        )
        if holds
    )


def laid_over(person: Person, school: School | None, kg: float, kcal: float) -> list[Statement]:
    out, have = [], person.conditions | states_of(person)
    if school is not None:
        out += [
            shift.statement(SCHOOL, school.name, kg, kcal)
            for shift in school.targets
            if shift.holds(have)
        ]
    found = dict(person.found)
    for condition in speaking(person.conditions):
        rows = [
            shift.statement(CONDITION, condition.name, kg, kcal, have)
            for shift in condition.targets
            if shift.holds(have)
        ]
        if condition.code in found:
            said = f"{found[condition.code][:1].upper()}{found[condition.code][1:]}"
            rows = [replace(row, reason=f"{said}: {row.reason}") for row in rows]
        out += rows
    return out


def food_disagreements(person: Person, school: School | None) -> list[Disagreement]:
    """Foods a school favors and a condition holds back, or the other way round."""
    if school is None:
        return []
    told: dict[str, FoodStance] = {stance.food_class: stance for stance in school.foods}
    out: dict[str, Disagreement] = {}
    for condition in speaking(person.conditions):
        for stance in condition.foods:
            said = told.get(stance.food_class)
            if (
                said is None
                or said.stance == stance.stance
                or "favor" not in (said.stance, stance.stance)
            ):
                continue
            about = stance.food_class[0].upper() + stance.food_class[1:]
            out.setdefault(
                stance.food_class,
                Disagreement(
                    key="",
                    about=about,
                    in_force=condition.name,
                    in_force_says=f"{stance.stance} ({stance.reason})",
                    other=school.name,
                    other_says=f"{said.stance} ({said.reason})",
                    why=WHY_IN_FORCE[CONDITION],
                ),
            )
    return list(out.values())


def pace_disagreement(
    person: Person, school: School | None, plan: EnergyPlan
) -> list[Disagreement]:
    if (
        school is None
        or person.goal != "lose"
        or plan.held_because
        or person.pace_kg_per_week is not None
    ):
        return []
    low, high = USUAL_LOSS
    if low - 1e-9 <= plan.pace <= high:
        return []
    return [
        Disagreement(
            key="",
            about="Pace of losing weight",
            in_force=school.name,
            in_force_says=f"{plan.pace:g} kg a week ({school.pace.reason})",
            other=GENERAL_VOICE,
            other_says=f"{low:g} to {high:g} kg a week",
            why=WHY_IN_FORCE[SCHOOL] + "; choose another pace on the client's page",
        )
    ]
