"""The energy of a day: what holds the weight, the pace that is planned and why another is not, the
least that is planned without a clinician's order."""

from __future__ import annotations

from dataclasses import dataclass

from nutrition.targets import energy
from nutrition.targets.body import OBESE_BMI, bmi, least_bmi, least_weight
from nutrition.targets.conditions import speaking
from nutrition.targets.person import ACTIVITY_WORDS, GOAL_WORDS, LIFE_STAGE_WORDS, TWINS, Person
from nutrition.targets.pregnancy import TWIN_KCAL, band_of
from nutrition.targets.schools import GENERAL_PACE, School
from nutrition.targets.voices import Statement
from nutrition.targets.weight_forecast import static_kcal

KCAL_FLOOR = {"female": 1200.0, "male": 1500.0}
ENERGY_BAND = 0.10
# A loss that leads to the least weight within so long is not begun. [weeks]
WEEKS_AHEAD = 4.0
# The fastest loss that is planned: a share of the body weight a week [%], less for these; faster is
# a clinician's order. Common practice, no source, but for nursing: National Academies, Nutrition
# During Lactation (1991), from memory. [% a week], [kg/week]
FASTEST_PERCENT = 1.0
FASTEST_PERCENT_WITH = {
    "frail": 0.25,
    "ckd_3": 0.5,
    "ckd_4": 0.5,
    "ckd_5": 0.5,
    "dialysis": 0.5,
    "kidney_transplant": 0.5,
    "gout": 0.7,
}
FASTEST_NURSING_KG = 0.5


@dataclass(frozen=True, kw_only=True)
class EnergyPlan:
    """How the day's energy came about. [kcal/day], [kg/week]

    `need` holds the weight; `change` is what the goal adds or takes; `pace` is the pace in force,
    `pace_from` whose it is, `asked_pace` the one that was wished for before it was capped;
    `held_because` says why a wanted change was not computed. Less than `least` only an order plans.
    """

    need: float
    change: float
    aim: float
    pace: float
    pace_from: str
    held_because: str
    floored: bool
    asked_pace: float = 0.0
    least: float = 0.0


def energy_need(person: Person, kg: float) -> tuple[float, str, str]:
    """What holds the weight, the arithmetic in words, and the source. [kcal/day] `kg`: the weight
    used for kcal per kg."""
    stage = energy.life_stage_kcal(person.life_stage)
    if TWINS in person.conditions and person.life_stage in energy.GESTATION_WEEK:
        stage += TWIN_KCAL
    stage_words = f", {stage:+.0f} for {LIFE_STAGE_WORDS[person.life_stage]}" if stage else ""
    if person.formula == "measured":
        value = person.measured_kcal or 0.0
        return value, f"Measured: {value:.0f} kcal", "a measured value, as entered"
    if person.formula == "kcal_per_kg":
        per_kg = person.kcal_per_kg or 0.0
        # over BMI 30 never less than at BMI 30, so that a heavier person never needs less
        counted = (
            max(kg, min(person.weight_kg, OBESE_BMI * (person.height_cm / 100.0) ** 2))
            if kg < person.weight_kg
            else kg
        )
        need = per_kg * counted
        return (
            need + stage,
            f"{per_kg:g} kcal x {counted:.1f} kg = {need:.0f}{stage_words}",
            "kcal per kg: common practice, no source",
        )
    if person.formula == "mifflin":
        resting = energy.mifflin_st_jeor(
            person.sex, person.weight_kg, person.height_cm, person.age_years
        )
        factor = energy.ACTIVITY_FACTOR[person.activity]
        need = resting * factor
        words = f"Resting {resting:.0f} kcal x {factor:g} for activity = {need:.0f}{stage_words}"
        return need + stage, words, "Mifflin-St Jeor (1990) times activity"
    source = "Dietary Reference Intakes for Energy (2023), coefficients from memory"
    level = ACTIVITY_WORDS[person.activity].split(":")[0]
    before = person.weight_before_kg
    # while little is gained yet the weight before it is the body's own
    counted = before if person.pregnant and before is not None else person.weight_kg
    figures = f"{person.age_years:g} years, {person.height_cm:g} cm, {counted:g} kg, {level}"
    if person.life_stage in energy.GESTATION_WEEK:
        return (*_pregnant_need(person, level), source)
    if person.age_years < energy.ADULT_FROM_YEARS:
        need = energy.eer_2023_at_18(
            person.sex, person.age_years, person.height_cm, counted, person.activity
        )
        figures += ", by the equation of 14 to 18 years with growth"
    else:
        need = energy.eer_2023(
            person.sex, person.age_years, person.height_cm, counted, person.activity
        )
    return need + stage, f"Requirement at {figures}: {need:.0f} kcal{stage_words}", source


def _pregnant_need(person: Person, level: str) -> tuple[float, str]:
    """What the second or third trimester asks for, and the arithmetic in words. [kcal/day]"""
    week = energy.GESTATION_WEEK[person.life_stage]
    before = person.weight_before_kg
    band, deposited = ("normal", 200.0)
    if before is not None:
        band, deposited = band_of(bmi(before, person.height_cm))
    need = energy.eer_2023_pregnant(
        person.age_years, person.height_cm, person.weight_kg, person.activity, week, deposited
    )
    words = (
        f"Requirement in week {week:.0f} of pregnancy at {person.age_years:g} years, "
        f"{person.height_cm:g} cm, {person.weight_kg:g} kg, {level}: {need:.0f} kcal, "
        f"{deposited:+.0f} of it laid down, for a weight before it that is {band}"
    )
    if before is None:
        words += " (taken for granted: enter it)"
    if TWINS in person.conditions:
        need += TWIN_KCAL
        words += f", {TWIN_KCAL:+.0f} for the second child: common practice, no source"
    return need, words


def fastest_loss(person: Person) -> tuple[float, str]:
    """The fastest loss that is planned without an order, and why. [kg/week]"""
    rows = [
        (percent, code)
        for code, percent in FASTEST_PERCENT_WITH.items()
        if code in person.conditions
    ]
    percent, code = min(rows, default=(FASTEST_PERCENT, ""))
    most = percent / 100.0 * person.weight_kg
    why = f"{percent:g} % of body weight a week"
    if code:
        why += f" with {next(one.name for one in speaking([code]))}"
    if person.nursing and most > FASTEST_NURSING_KG:
        most, why = FASTEST_NURSING_KG, f"{FASTEST_NURSING_KG:g} kg a week while nursing"
    return most, why


def pace_in_force(person: Person, school: School | None) -> tuple[float, str]:
    """How fast weight is to change, without a sign, and whose pace it is. [kg/week]"""
    if person.goal == "hold":
        return 0.0, ""
    if person.pace_kg_per_week is not None:
        return person.pace_kg_per_week, "as chosen"
    to_go = (
        None if person.target_weight_kg is None else abs(person.weight_kg - person.target_weight_kg)
    )
    if school is not None:
        return school.pace.of(person.goal, to_go), f"the pace of {school.name}"
    return GENERAL_PACE[person.goal], "the usual pace: common practice, no source"


def held_because(person: Person, pace: float = 0.0) -> str:
    """Why the change of weight that is wanted is not planned, at so much a week [kg/week]; empty
    where it is."""
    if person.goal == "lose":
        if person.pregnant:
            return "no loss is planned in pregnancy"
        line, least = (
            f"BMI {least_bmi(person.age_years):g} ({least_weight(person):.1f} kg)",
            least_weight(person),
        )
        if "cancer_treatment" in person.conditions:
            return "no loss is planned while cancer is treated: ask the oncology team"
        if person.weight_kg <= least:
            return f"no loss is planned at or under {line}: hold the weight, and ask the physician"
        if person.target_weight_kg is not None and person.target_weight_kg < least:
            return (
                f"the target weight is under {line}, and no loss is planned into that: "
                f"choose a higher one, or ask the physician"
            )
        if person.target_weight_kg is None and person.weight_kg - WEEKS_AHEAD * pace < least:
            return (
                f"within four weeks it would lead to {line}: hold the weight, or set a "
                f"target weight above it"
            )
        if person.target_weight_kg is not None and person.weight_kg <= person.target_weight_kg:
            return "the target weight is reached"
    if (
        person.goal == "gain"
        and person.target_weight_kg is not None
        and person.weight_kg >= person.target_weight_kg
    ):
        return "the target weight is reached"
    return ""


def energy_plan(person: Person, school: School | None, kg: float) -> tuple[EnergyPlan, Statement]:
    need, words, source = energy_need(person, kg)
    asked, whose = pace_in_force(person, school)
    pace, (fastest, why) = asked, fastest_loss(person)
    if person.goal == "lose" and asked > fastest:
        pace, whose = fastest, f"{asked:g} kg was asked for; the most is {why}"
    held = held_because(person, pace)
    change = 0.0 if held else static_kcal(-pace if person.goal == "lose" else pace)
    # nobody small is lifted above what holds their weight
    floor = min(KCAL_FLOOR[person.sex], need)
    if held:
        words += f"; goal “{GOAL_WORDS[person.goal]}” not applied: {held}"
    elif change:
        words += (
            f", {change:+.0f} to {GOAL_WORDS[person.goal]} at {pace:.2g} kg a week "
            f"({whose}; 7700 kcal per kg)"
        )
        source += "; change for the goal: common practice, no source"
    aim = max(need + change, floor)
    floored = need + change < floor
    if floored:
        words += f"; lifted to the floor of {floor:.0f}"
    least = _least_energy(person, need, fastest, floor)
    low, high = max(aim * (1 - ENERGY_BAND), floor, least), aim * (1 + ENERGY_BAND)
    plan = EnergyPlan(
        need=need,
        change=change,
        aim=aim,
        pace=pace,
        pace_from=whose,
        held_because=held,
        floored=floored,
        asked_pace=asked,
        least=least,
    )
    return plan, Statement(
        key="energy_kcal",
        low=low,
        aim=aim,
        high=high,
        source=source,
        reason=f"{words}.",
    )


def _least_energy(person: Person, need: float, fastest: float, floor: float) -> float:
    """The least energy that is planned without a clinician's order: no loss in pregnancy or where
    the body has none to lose, and nowhere a faster one than the fastest. [kcal/day]"""
    nothing_to_lose = person.pregnant or person.weight_kg <= least_weight(person)
    loss = 0.0 if nothing_to_lose else static_kcal(fastest)
    return max(need * (1 - ENERGY_BAND) if nothing_to_lose else need - loss, min(floor, need))
