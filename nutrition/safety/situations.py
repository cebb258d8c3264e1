"""The numbers that cautions look at: of a client's plan, of what they take, of a day and of the
days planned around it."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import KW_ONLY, dataclass

from nutrition.composition.fluid import fluid_ml
from nutrition.composition.food_classes import classes_of
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import KEYS, NUTRIENT
from nutrition.composition.profile import Profile
from nutrition.composition.supplements import Supplement
from nutrition.safety.cautions import Situation
from nutrition.safety.limits_in_force import FAR, Limit, limits_of
from nutrition.targets import energy
from nutrition.targets.body import bmi, least_bmi
from nutrition.targets.body_composition import energy_available, outside_equation
from nutrition.targets.conditions import in_play
from nutrition.targets.day import DayTargets
from nutrition.targets.energy_plan import KCAL_FLOOR
from nutrition.targets.gastric import stomach_ml, tablets_to_take
from nutrition.targets.meals import MAIN_MEALS, PATTERN_SHARES
from nutrition.targets.orders import Order
from nutrition.targets.person import Person
from nutrition.targets.pregnancy import gestational_gain
from nutrition.targets.refeeding import refeeding_risk
from nutrition.targets.standing import judge
from nutrition.targets.voices import CONDITION, GENERAL, Target, band_words

IODINE_SOURCES = {"salt-iodized"}
PACES = ("pace_kg", "pace_percent", "asked_pace_kg", "asked_pace_percent", "pace_cut")
# What stands for the salt of a day that nobody asked to change. Common practice, no source. [mg]
USUAL_SODIUM_MG = 2300.0


@dataclass(frozen=True)
class PlannedDay:
    """A day as planned: what it brings, supplements included, its foods, the lines nobody could
    read, how many main meals have something in them, the carbohydrate of the one that has least
    [g], and the room of the largest meal [mL]."""

    profile: Profile
    foods: Sequence[Ingredient]
    main_meals: int
    _: KW_ONLY
    least_meal_carbohydrate_g: float | None = None
    lines: Sequence[str] = ()
    most_meal_ml: float | None = None
    most_meal_fast_sugar_g: float | None = None


def body_numbers(person: Person) -> dict[str, float]:
    """Age, body mass index now and at the target, the least that is planned for, and whether eating
    again is a danger."""
    now = bmi(person.weight_kg, person.height_cm)
    codes = in_play(person.conditions, person.age_years)
    out = {
        "age_years": person.age_years,
        "bmi": now,
        "least_bmi": least_bmi(person.age_years),
        "refeeding": float(bool(refeeding_risk(now, codes))),
    }
    if person.pregnant:
        out["weight_before_missing"] = float(person.weight_before_kg is None)
        out["gain_known"] = float(person.weight_before_kg is not None)
    if person.target_weight_kg is not None:
        out["target_bmi"] = bmi(person.target_weight_kg, person.height_cm)
    return out


def plan_numbers(
    day: DayTargets, orders: Sequence[Order] = (), measured_kg_per_week: float | None = None
) -> dict[str, float]:
    """Of the targets in force: energy, pace, protein, limits, and numbers by hand that leave the
    computed band of a condition."""
    person, kcal, protein = day.person, day.targets["energy_kcal"].aim, day.targets["protein_g"]
    # the usual pace is nobody's wish: that it is capped needs no word
    asked = day.energy.asked_pace if _asked_for(day) else 0.0
    out = body_numbers(person) | {
        "energy_kcal": kcal,
        "energy_floor": KCAL_FLOOR[person.sex],
        "resting_kcal": energy.mifflin_st_jeor(
            person.sex, person.weight_kg, person.height_cm, person.age_years
        ),
        "floored": float(day.energy.floored),
        "energy_short": day.energy.need - kcal,
        "asked_pace_kg": asked,
        "asked_pace_percent": asked / person.weight_kg * 100.0,
        "pace_cut": float(asked > day.energy.pace + 1e-9),
        "pace_kg": day.energy.pace,
        "pace_percent": day.energy.pace / person.weight_kg * 100.0,
        "protein_g_per_kg": protein.aim / day.weight.kg,
        "protein_percent": protein.aim * 4.0 / kcal * 100.0,
        # the usual aim is nobody's order: only what somebody asked for lowers the salt
        "sodium_aim_mg": day.targets["sodium_mg"].aim
        if day.targets["sodium_mg"].rank != GENERAL
        else USUAL_SODIUM_MG,
        "potassium_aim_mg": day.targets["potassium_mg"].aim,
        "meals": float(sum(1 for key in PATTERN_SHARES[person.meals] if key in MAIN_MEALS)),
    }
    for name, key in (
        ("potassium_most_mg", "potassium_mg"),
        ("protein_most_g", "protein_g"),
        ("phosphorus_most_mg", "phosphorus_mg"),
        ("saturated_most_g", "saturated_fat_g"),
    ):
        target = day.targets[key]
        if target.high is not None:
            # a restriction without a value behind it aims, and stops nobody
            out[name if target.firm_high or target.high_by.rank == GENERAL else f"soft_{name}"] = (
                target.high
            )
    left = energy_available(person, kcal)
    if left is not None and person.goal == "lose":
        out["energy_available"] = left
    out["outside_equation"] = float(bool(outside_equation(person)))
    room = stomach_ml(person.conditions, person.surgery_months)
    if room is not None:
        out |= {"stomach_ml": room, "surgery_dated": float(person.surgery_months is not None)}
    if protein.low is not None:
        out["protein_least_g"] = protein.low
    for name in ("phosphorus", "soft_phosphorus", "soft_potassium"):
        if f"{name}_most_mg" in out:
            out[f"{name}_far_mg"] = out[f"{name}_most_mg"] * FAR
    if day.energy.held_because:
        out |= dict.fromkeys(PACES, 0.0)
    return out | measured_numbers(person, measured_kg_per_week) | _by_hand(day, orders)


def _asked_for(day: DayTargets) -> bool:
    """Whether somebody asked for a pace: the client, the practitioner or the school."""
    return day.person.pace_kg_per_week is not None or day.school is not None


def measured_numbers(person: Person, kg_per_week: float | None) -> dict[str, float]:
    """How the weight moves by the scale; nothing where that is not known. [kg/week]"""
    if kg_per_week is None:
        return {}
    return {
        "measured_loss_percent": max(-kg_per_week, 0.0) / person.weight_kg * 100.0,
        "measured_gain_kg": max(kg_per_week, 0.0),
    }


def _by_hand(day: DayTargets, orders: Sequence[Order]) -> dict[str, float]:
    against = {"order": 0.0, "choice": 0.0}
    least = day.energy.least
    for order in orders:
        if order.key == "energy_kcal" and order.kind != "order" and min(order.stated) < least - 0.5:
            against["choice"] += 1.0
    for order, computed in _of_conditions(day, orders):
        aim = (
            order.aim
            if order.aim is not None
            else order.low
            if order.low is not None
            else order.high
        )
        if aim is not None and judge(computed, aim)[0] != "inside":
            against[order.kind] += 1.0
    return {
        "orders_against": against["order"],
        "choices_against": against["choice"],
        "orders_opened": float(len(_opened(day, orders))),
    }


def _of_conditions(day: DayTargets, orders: Iterable[Order]) -> list[tuple[Order, Target]]:
    """Numbers set by hand whose computed target a condition set."""
    found = ((order, day.computed.get(order.key)) for order in orders)
    return [
        (order, computed)
        for order, computed in found
        if computed is not None and computed.rank == CONDITION
    ]


def _opened(day: DayTargets, orders: Iterable[Order]) -> list[str]:
    """The orders that leave more room than a condition does, in words with both numbers."""
    out = []
    for order, computed in _of_conditions(day, orders):
        if order.kind != "order" or computed.high is None:
            continue
        asked = max(order.stated)
        if asked > computed.high * (1 + 1e-6):
            says = (
                band_words(order.key, order.low, order.high)
                if (order.low, order.high) != (None, None)
                else f"about {order.aim:g}"
            )
            out.append(
                f"{NUTRIENT[order.key].name} {says}, where {computed.voice} sets "
                f"{band_words(computed.key, computed.low, computed.high)}"
            )
    for order in orders:
        asked = max(order.stated, default=day.energy.least)
        if order.key == "energy_kcal" and order.kind == "order" and asked < day.energy.least - 0.5:
            out.append(
                f"Energy at most {asked:.0f} kcal, where no less than {day.energy.least:.0f} kcal "
                f"is planned for this body"
            )
    return out


def plan_words(day: DayTargets, orders: Iterable[Order] = ()) -> dict[str, str]:
    """What cautions say in words of the targets in force: the orders that open a condition's limit,
    by name."""
    gain = gestational_gain(day.person)
    return {
        "opened": "; ".join(_opened(day, orders)),
        "wished": "; ".join(_wished(day, orders)),
        "gain": gain.words if gain else "",
        "outside": ", ".join(outside_equation(day.person)),
        "tablets": "; ".join(tablets_to_take(day.person.conditions)),
    }


def _wished(day: DayTargets, orders: Iterable[Order]) -> list[str]:
    """The practitioner's own numbers that a limit holds back, in words with both numbers."""
    out = []
    for order in orders:
        stated = order.stated
        if order.kind == "order" or not stated:
            continue
        held = day.targets[order.key]
        computed = day.computed.get(order.key)
        of_body = order.key == "energy_kcal" and min(stated) < day.energy.least - 0.5
        against = computed is not None and computed.rank == CONDITION
        aim = order.aim if order.aim is not None else stated[0]
        outside = computed is not None and judge(computed, aim)[0] != "inside"
        if not (of_body or (against and outside)):
            continue
        says = (
            band_words(order.key, order.low, order.high)
            if (order.low, order.high) != (None, None)
            else f"about {order.aim:,.0f} {NUTRIENT[order.key].unit}"
        )
        stays = band_words(order.key, held.low, held.high)
        out.append(f"{NUTRIENT[order.key].name} {says} was asked for, {stays} stays")
    return out


def tablet_numbers(supplements: Sequence[Supplement]) -> dict[str, float]:
    """What the supplements bring in a day, by nutrient, and the minerals that bind a tablet
    together."""
    out = {f"tablet_{key}": 0.0 for key in KEYS}
    for supplement in supplements:
        out[f"tablet_{supplement.key}"] += supplement.per_day
    out["tablet_binding_mg"] = sum(
        out[f"tablet_{key}"] for key in ("iron_mg", "calcium_mg", "magnesium_mg")
    )
    return out


def day_numbers(planned: PlannedDay) -> dict[str, float]:
    """A planned day's totals by nutrient, and its main meals. What is unknown of a total can only
    add to it."""
    out = {"day_meals": float(planned.main_meals), "whole_day": 1.0}
    out["day_fluid_ml"] = fluid_ml(planned.foods)
    for key in KEYS:
        amount = planned.profile[key]
        out[f"day_{key}"] = amount.amount
        # an unknown that nobody can put a most to says nothing here: the page names it
        more = amount.could_add if math.isfinite(amount.could_add) else 0.0
        out[f"day_most_{key}"] = amount.amount + more
    if planned.least_meal_carbohydrate_g is not None:
        out["meal_least_carbohydrate_g"] = planned.least_meal_carbohydrate_g
    if planned.most_meal_ml is not None:
        out["meal_most_ml"] = planned.most_meal_ml
    if planned.most_meal_fast_sugar_g is not None:
        out["meal_most_fast_sugar_g"] = planned.most_meal_fast_sugar_g
    return out


def week_numbers(
    days: Sequence[PlannedDay], supplements: Sequence[Supplement] = ()
) -> dict[str, float]:
    """Of the days planned around now: B12, how vitamin K swings, whether there are sources of
    iodine and omega-3."""
    filled = [day for day in days if day.main_meals]
    if not filled:
        return {"week_days": 0.0}
    foods = [part for day in filled for part in day.foods]
    vitamin_k = [day.profile["vitamin_k_ug"].amount for day in filled]
    taken = {supplement.key for supplement in supplements}
    iodine = [
        part
        for part in foods
        if "sea vegetables" in classes_of(part.food) or part.food.slug in IODINE_SOURCES
    ]
    iodine += [
        part
        for part in foods
        if part.food.group == "supplement" and part.food.slug.startswith("iodine")
    ]
    omega = [
        part
        for part in foods
        if "omega-3 plants" in classes_of(part.food) or part.food.slug.startswith("algae-oil")
    ]
    out = {
        "week_days": float(len(filled)),
        "week_b12_ug": sum(day.profile["vitamin_b12_ug"].amount for day in filled) / len(filled),
        "week_iodine_sources": float(len(iodine) + ("iodine_ug" in taken)),
        "week_omega_3_sources": float(len(omega) + bool(taken & {"epa_g", "dha_g", "ala_g"})),
    }
    if min(vitamin_k) > 0:
        out["week_vitamin_k_swing"] = max(vitamin_k) / min(vitamin_k)
    return out


def situation(
    person: Person,
    school_code: str = "",
    numbers: Mapping[str, float] | None = None,
    foods: Sequence[Ingredient] | None = None,
    *,
    dislikes: tuple[str, ...] = (),
    words: Mapping[str, str] | None = None,
    lines: Sequence[str] = (),
    limits: Sequence[Limit] = (),
) -> Situation:
    """A person's situation with the numbers and foods at hand."""
    return Situation(
        conditions=in_play(person.conditions, person.age_years),
        life_stage=person.life_stage,
        goal=person.goal,
        school=school_code,
        allergies=person.allergies,
        dislikes=dislikes,
        numbers=numbers or {},
        foods=foods,
        lines=lines,
        limits=limits,
        words=words or {},
    )


def planned_situation(
    day: DayTargets,
    orders: Sequence[Order] = (),
    *,
    numbers: Mapping[str, float] | None = None,
    foods: Sequence[Ingredient] | None = None,
    lines: Sequence[str] = (),
) -> Situation:
    """The situation of somebody whose day's targets are computed, with what is in force; `numbers`
    are known besides those of the plan."""
    return situation(
        day.person,
        day.school.code if day.school else "",
        plan_numbers(day, orders) | dict(numbers or {}),
        foods,
        words=plan_words(day, orders),
        lines=lines,
        limits=limits_of(day),
    )
