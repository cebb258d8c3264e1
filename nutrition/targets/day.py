"""A person -> the day's targets: what each voice says, what is in force and why, the meals, and
where weight is heading."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from nutrition.composition.nutrients import NUTRIENT
from nutrition.targets import energy
from nutrition.targets.adjustments import FoodStance
from nutrition.targets.amino_needs import needs_g
from nutrition.targets.body import (
    OBESE_BMI,
    WeightUsed,
    bmi,
    least_bmi,
    least_weight,
    weight_used,
)
from nutrition.targets.conditions import in_play, speaking
from nutrition.targets.meals import MealTarget, meal_targets
from nutrition.targets.person import (
    ACTIVITY_WORDS,
    GOAL_WORDS,
    LIFE_STAGE_WORDS,
    TWINS,
    OutOfRange,
    Person,
    check,
)
from nutrition.targets.pregnancy import (
    TWIN_KCAL,
    TWIN_PROTEIN_G,
    GestationalGain,
    band_of,
    gestational_gain,
)
from nutrition.targets.reference_intakes import SOURCE, VEGAN_FACTOR, Reference, reference_intakes
from nutrition.targets.referral import check_referral
from nutrition.targets.schools import GENERAL_PACE, USUAL_LOSS, School
from nutrition.targets.together import fitted
from nutrition.targets.voices import (
    CONDITION,
    GENERAL,
    GENERAL_VOICE,
    ORDER,
    SCHOOL,
    WHY_IN_FORCE,
    WISH,
    Disagreement,
    Statement,
    Target,
    settle,
)
from nutrition.targets.weight_forecast import Forecast, forecast, static_kcal

KCAL_FLOOR = {"female": 1200.0, "male": 1500.0}
PROTEIN_G_PER_KG = {
    "hold": (0.8, f"RDA for adults, {SOURCE} (2005)"),
    "lose": (1.2, "common practice, no source"),
    "gain": (1.2, "common practice, no source"),
    "muscle": (1.6, "within 1.4 to 2.0 g/kg, ISSN position stand (2017)"),
}
PROTEIN_LIFE_STAGE_G_PER_KG = {"pregnant": 1.1, "lactating": 1.3}
# For who trains hard or does heavy work most days. [g/kg]
PROTEIN_VERY_ACTIVE = (1.2, 2.0)
PROTEIN_VERY_ACTIVE_SOURCE = (
    "1.2 to 2.0 g/kg, American College of Sports Medicine, Academy of Nutrition and Dietetics and "
    "Dietitians of Canada (2016), from memory"
)
# RDA at 14 to 18 years. Dietary Reference Intakes (2005), from memory. [g/kg]
PROTEIN_AT_18_G_PER_KG = 0.85
FIBER_G_PER_1000_KCAL = 14.0
SODIUM_CDRR_MG = 2300.0
SODIUM_AI_MG = 1500.0
ENERGY_BAND = 0.10
# Share of the day's energy, least and most, and kcal per gram: acceptable macronutrient
# distribution ranges (2005).
AMDR = {
    "protein_g": (0.10, 0.35, 4.0),
    "fat_g": (0.20, 0.35, 9.0),
    "carbohydrate_g": (0.45, 0.65, 4.0),
}
SATURATED_MOST, ADDED_SUGARS_MOST = 0.10, 0.10
# What is watched from the start, whoever it is; school and conditions add theirs.
MAIN_KEYS = ("energy_kcal", "protein_g", "fiber_g", "sodium_mg")
MOST_WATCHED = 7


# No body lives on less or more than this, by anybody's order. Common practice, no source.
# [kcal/day]
ENERGY_BY_HAND = (450.0, 8000.0)
# What a number set by hand may be besides zero, in any unit: beyond these nothing is eaten, and no
# solver holds them.
LEAST_BY_HAND, MOST_BY_HAND = 1e-4, 1e6
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
# Nothing is forecast beyond it for a gain: from there on no formula here holds. [kg/m²]
GREATEST_BMI = 40.0


@dataclass(frozen=True, kw_only=True)
class Order:
    """A number set by hand: a clinician's order ("order"), or the practitioner's own choice
    ("choice"), a wish that stays within what a condition sets. In the key's unit. An `aim` of None
    leaves the computed one, moved into the bounds.

    `by` gave it; the `license` is the clinician's, without which there is no order.
    """

    key: str
    low: float | None
    aim: float | None
    high: float | None
    kind: str
    reason: str
    by: str = ""
    license: str = ""

    @property
    def stated(self) -> list[float]:
        """The numbers that were set, the least first."""
        return [one for one in (self.low, self.aim, self.high) if one is not None]


def check_order(order: Order) -> None:
    """Raises OutOfRange, naming "low", "aim" or "high", for numbers that cannot be, are in the
    wrong order, or none at all."""
    name = NUTRIENT[order.key].name
    numbers = {
        field: value
        for field in ("low", "aim", "high")
        if (value := getattr(order, field)) is not None
    }
    if not numbers:
        raise OutOfRange("low", f"{name}: give a least, an aim or a most.")
    for field, value in numbers.items():
        if not math.isfinite(value) or abs(value) > MOST_BY_HAND or 0 < abs(value) < LEAST_BY_HAND:
            raise OutOfRange(field, f"{name}: {value:g} is no number to plan with.")
        if value < 0 and order.key != "pral_meq":
            raise OutOfRange(field, f"{name}: a target cannot be below zero.")
        least, most = ENERGY_BY_HAND
        if order.key == "energy_kcal" and not least <= value <= most:
            raise OutOfRange(
                field, f"No body lives on {value:g} kcal a day: give {least:g} to {most:g} kcal."
            )
    given = list(numbers.items())
    words = {"low": "least", "aim": "aim", "high": "most"}
    for (lower, less), (higher, more) in pairwise(given):
        if less > more and lower == "low":
            raise OutOfRange(
                "low", f"{name}: the least of {less:g} is above the {words[higher]} of {more:g}."
            )
        if less > more:
            raise OutOfRange("high", f"{name}: the most of {more:g} is below the aim of {less:g}.")


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


def amdr_g(key: str, kcal: float) -> tuple[float, float]:
    """Least and most of protein, fat or carbohydrate by its share of the energy. [g/day] from
    [kcal/day]

    References: National Academies, Dietary Reference Intakes (2005), acceptable macronutrient
    distribution ranges: protein 10 to 35 %, fat 20 to 35 %, carbohydrate 45 to 65 % of the energy.
    """
    low, high, per_g = AMDR[key]
    return low * kcal / per_g, high * kcal / per_g


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


def _energy(person: Person, school: School | None, kg: float) -> tuple[EnergyPlan, Statement]:
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
        rank=GENERAL,
        voice=GENERAL_VOICE,
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


def _protein(person: Person, weight: WeightUsed, kcal: float) -> list[Statement]:
    per_kg, source = PROTEIN_G_PER_KG[person.goal]
    trains = person.activity == "very_active"
    if trains and per_kg < PROTEIN_VERY_ACTIVE[0]:
        per_kg, source = PROTEIN_VERY_ACTIVE[0], PROTEIN_VERY_ACTIVE_SOURCE
    if person.age_years < energy.ADULT_FROM_YEARS and per_kg < PROTEIN_AT_18_G_PER_KG:
        per_kg, source = PROTEIN_AT_18_G_PER_KG, f"RDA at 14 to 18, {SOURCE} (2005), from memory"
    protein = per_kg * weight.kg
    most = max(amdr_g("protein_g", kcal)[1], protein * 1.1)
    reason = (
        f"{per_kg:g} g per kg x {weight.kg:.4g} kg = {protein:.0f} g at least ({weight.reason}); a "
        f"tenth more as the aim; at most 35 % of the energy."
    )
    if trains:
        most = max(most, PROTEIN_VERY_ACTIVE[1] * weight.kg)
        reason += f" Up to {PROTEIN_VERY_ACTIVE[1]:g} g per kg serve who trains hard."
    out = [
        Statement(
            key="protein_g",
            rank=GENERAL,
            voice=GENERAL_VOICE,
            low=protein,
            aim=protein * 1.1,
            high=most,
            source=source,
            reason=reason,
        )
    ]
    stage = PROTEIN_LIFE_STAGE_G_PER_KG.get(person.life_stage.split("_")[0], 0.0)
    if stage > 0:
        least = stage * weight.kg
        words = f"{stage:g} g per kg x {weight.kg:.4g} kg = {least:.0f} g at least"
        if TWINS in person.conditions and person.life_stage in energy.GESTATION_WEEK:
            least += TWIN_PROTEIN_G
            words += f", {TWIN_PROTEIN_G:.0f} g for the second child: {least:.0f} g"
        words += f" ({weight.reason})."
        source = f"RDA for {LIFE_STAGE_WORDS[person.life_stage]}, {SOURCE} (2005), from memory"
        voice = "pregnancy" if person.pregnant else "nursing"
        out.append(
            Statement(
                key="protein_g",
                rank=CONDITION,
                voice=voice,
                low=least,
                aim=None,
                high=None,
                source=source,
                reason=words,
                priority=40,
            )
        )
    return out


def _shares_of_energy(kcal: float, carbohydrate: Reference) -> list[Statement]:
    fat, carbs = amdr_g("fat_g", kcal), amdr_g("carbohydrate_g", kcal)
    saturated, sugars = SATURATED_MOST * kcal / 9.0, ADDED_SUGARS_MOST * kcal / 4.0
    guidelines = "Dietary Guidelines for Americans 2020-2025"

    def general(
        key: str, low: float | None, aim: float, high: float, source: str, reason: str
    ) -> Statement:
        return Statement(
            key=key,
            rank=GENERAL,
            voice=GENERAL_VOICE,
            low=low,
            aim=aim,
            high=high,
            source=source,
            reason=reason,
        )

    return [
        general(
            "fat_g",
            fat[0],
            sum(fat) / 2,
            fat[1],
            f"AMDR, {SOURCE} (2005)",
            f"20 to 35 % of {kcal:.0f} kcal at 9 kcal/g = {fat[0]:.0f} to {fat[1]:.0f} g.",
        ),
        general(
            "saturated_fat_g",
            None,
            saturated / 2,
            saturated,
            guidelines,
            f"Under 10 % of {kcal:.0f} kcal at 9 kcal/g = {saturated:.0f} g.",
        ),
        general(
            "added_sugars_g",
            None,
            0.0,
            sugars,
            guidelines,
            f"Under 10 % of {kcal:.0f} kcal at 4 kcal/g = {sugars:.0f} g; none is needed.",
        ),
        general(
            "carbohydrate_g",
            max(carbs[0], carbohydrate.value),
            max(sum(carbs) / 2, carbohydrate.value),
            max(carbs[1], carbohydrate.value),
            f"AMDR, {SOURCE} (2005)",
            f"45 to 65 % of {kcal:.0f} kcal at 4 kcal/g = {carbs[0]:.0f} to {carbs[1]:.0f} g; RDA "
            f"{carbohydrate.value:g} g.",
        ),
    ]


def _reference(person: Person, row: Reference) -> Statement:
    unit = NUTRIENT[row.key].unit
    most = f", at most {row.upper:g} {unit}" if row.upper else ""
    reason, source, value = (
        f"{row.kind} for {row.group}: {row.value:g} {unit}{most}.",
        f"{row.source}, from memory",
        row.value,
    )
    if (row.key == "iron_mg" and person.vegan_iron) or (row.key == "zinc_mg" and person.vegan_zinc):
        factor = VEGAN_FACTOR[row.key]
        value = row.value * factor
        reason = (
            f"{row.kind} for {row.group}: {row.value:g} {unit} x {factor:g} on plants "
            f"alone = {value:.3g} {unit}{most}; without the factor it is {row.value:g} {unit}."
        )
    low, aim, upper = value, value, row.upper
    if upper is not None and value > upper:
        reason += (
            f" That is above the upper level of {upper:g} {unit}, which stays: {row.value:g} "
            f"{unit} is the least, and the physician or midwife decides on a tablet."
        )
        low, aim = row.value, upper
    return Statement(
        key=row.key,
        rank=GENERAL,
        voice=GENERAL_VOICE,
        low=low,
        aim=aim,
        high=upper,
        source=source,
        reason=reason,
    )


def _general(person: Person, weight: WeightUsed, kcal: float) -> list[Statement]:
    fiber = FIBER_G_PER_1000_KCAL * kcal / 1000.0
    references = reference_intakes(person.sex, person.age_years, person.life_stage)
    out = [
        *_protein(person, weight, kcal),
        Statement(
            key="fiber_g",
            rank=GENERAL,
            voice=GENERAL_VOICE,
            low=fiber,
            aim=fiber * 1.2,
            high=None,
            source=f"AI of 14 g per 1000 kcal, {SOURCE} (2005)",
            reason=f"14 g x {kcal:.0f} / 1000 kcal = {fiber:.0f} g at least.",
        ),
        Statement(
            key="sodium_mg",
            rank=GENERAL,
            voice=GENERAL_VOICE,
            low=None,
            aim=SODIUM_AI_MG,
            high=SODIUM_CDRR_MG,
            source=f"AI and chronic disease risk reduction level, {SOURCE} (2019)",
            reason="1500 mg is adequate; above 2300 mg less is better.",
        ),
        *_shares_of_energy(kcal, references["carbohydrate_g"]),
        *(_reference(person, row) for row in references.values() if row.key != "carbohydrate_g"),
    ]
    for key, grams in needs_g(weight.kg).items():
        reason = (
            f"{grams / weight.kg * 1000:.0f} mg per kg x {weight.kg:.4g} kg = {grams:.2f} "
            f"g at least."
        )
        source = "WHO/FAO/UNU Technical Report 935 (2007), from memory"
        out.append(
            Statement(
                key=key,
                rank=GENERAL,
                voice=GENERAL_VOICE,
                low=grams,
                aim=grams * 1.1,
                high=None,
                source=source,
                reason=reason,
            )
        )
    return out


def _laid_over(person: Person, school: School | None, kg: float, kcal: float) -> list[Statement]:
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


BY_ORDER, BY_CHOICE = "a clinician's order", "the practitioner's choice"


def _by_hand(orders: Iterable[Order], least_kcal: float) -> list[Statement]:
    """What was set by hand. Energy that only a clinician may plan is held at the least. [kcal]"""
    out = []
    for order in orders:
        low, aim, high, reason = order.low, order.aim, order.high, order.reason
        if order.key == "energy_kcal" and order.kind != "order":
            low, aim, high = (
                None if value is None else max(value, least_kcal) for value in (low, aim, high)
            )
            if (low, aim, high) != (order.low, order.aim, order.high):
                reason = (
                    f"{reason} Held at {least_kcal:.0f} kcal: less is a clinician's order."
                ).strip()
        if order.key == "energy_kcal" and aim is not None and low is None and high is None:
            # an aim of energy alone has the usual band around it, not that of another amount
            low, high = aim * (1 - ENERGY_BAND), aim * (1 + ENERGY_BAND)
            if order.kind != "order":
                low = max(low, min(least_kcal, aim))
        kind, rank = (BY_ORDER, ORDER) if order.kind == "order" else (BY_CHOICE, WISH)
        who = ", ".join(part for part in (order.by, order.license) if part)
        voice = f"{kind} ({who})" if who else kind
        out.append(
            Statement(
                key=order.key,
                rank=rank,
                voice=voice,
                low=low,
                aim=aim,
                high=high,
                source=kind,
                reason=reason,
            )
        )
    return out


def _food_disagreements(person: Person, school: School | None) -> list[Disagreement]:
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


def _pace_disagreement(
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
    check(person)
    for order in orders:
        check_order(order)
    person = replace(person, conditions=in_play(person.conditions, person.age_years))
    check_referral(person, {order.key for order in orders if order.kind == "order"})
    if "gestational_diabetes" in person.conditions and shares is None:
        # carbohydrate is spread over three meals and what is eaten between them
        person = replace(person, meals="3_snacks")
    weight = weight_used(person)
    plan, base = _energy(person, school, weight.kg)
    by_hand = _by_hand(orders, plan.least)
    # the energy first: shares and fiber go by what is in force
    above = [
        row
        for row in (*_laid_over(person, school, weight.kg, plan.aim), *by_hand)
        if row.key == "energy_kcal"
    ]
    kcal, computed_kcal, disagreements = settle([base, *above])
    plan = replace(plan, aim=kcal.aim)
    told: dict[str, list[Statement]] = {}
    for row in (
        *_general(person, weight, kcal.aim),
        *_laid_over(person, school, weight.kg, kcal.aim),
        *by_hand,
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
    disagreements += _pace_disagreement(person, school, plan) + _food_disagreements(person, school)
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


def watched_keys(
    person: Person, school: School | None, orders: Iterable[Order] = ()
) -> tuple[str, ...]:
    """The six or so targets that matter for this client: energy and protein, what was set by hand,
    what the conditions and the school watch, then fiber and sodium."""
    codes = in_play(person.conditions, person.age_years)
    keys = ["energy_kcal", "protein_g", *(order.key for order in orders)]
    for condition in speaking(codes):
        keys += condition.watched
    if person.pregnant:
        keys += ["iron_mg", "folate_ug", "iodine_ug"]
    keys += school.watched if school is not None else ()
    keys += MAIN_KEYS
    by_hand = len({order.key for order in orders} - {"energy_kcal", "protein_g"})
    return tuple(dict.fromkeys(keys))[: max(MOST_WATCHED, by_hand + 2)]
