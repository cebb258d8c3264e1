"""A person and their day as plain data: read from JSON, written back with targets, meals,
disagreements and cautions."""

from __future__ import annotations

import difflib
import math
from collections.abc import Mapping
from dataclasses import asdict, dataclass
from typing import Any

from nutrition.composition.allergens import UnknownAllergen
from nutrition.composition.allergies import allergies_named
from nutrition.composition.nutrients import NUTRIENT
from nutrition.safety.cautions import LEVELS, Caution, cautions_in
from nutrition.safety.situations import body_numbers, planned_situation, situation
from nutrition.targets.conditions import conditions
from nutrition.targets.day import DayTargets, day_targets
from nutrition.targets.orders import Order, check_order
from nutrition.targets.person import (
    ACTIVITY_WORDS,
    FORMULA_WORDS,
    GOAL_WORDS,
    LIFE_STAGE_WORDS,
    MEAL_PATTERN_WORDS,
    SEXES,
    WEIGHT_BASIS_WORDS,
    OutOfRange,
    Person,
    Referred,
)
from nutrition.targets.reference_intakes import VEGAN_FACTOR, reference_intakes
from nutrition.targets.schools import School, schools
from nutrition.targets.voices import Target, band_words, target_words

KNOWN_FIELDS = (
    "sex",
    "age_years",
    "height_cm",
    "weight_kg",
    "activity",
    "life_stage",
    "goal",
    "school",
    "conditions",
    "meals",
    "energy_formula",
    "kcal_per_kg",
    "measured_kcal",
    "weight_basis",
    "vegan_iron",
    "vegan_zinc",
    "meal_shares",
    "orders",
    "allergies",
    "weight_before_kg",
    "surgery_months",
    "fat_free_kg",
)


@dataclass(frozen=True, kw_only=True)
class Asked:
    """What a file asks for."""

    person: Person
    school: School | None
    orders: tuple[Order, ...]
    shares: Mapping[str, float] | None
    ignored: tuple[str, ...]


def _number(data: Mapping[str, Any], field: str, name: str | None = None) -> float:
    value = data.get(field)
    if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
        said = "is missing" if value is None else f"is a number, not {value!r}"
        raise OutOfRange(name or field, f"{name or field} {said}.")
    return float(value)


def _optional(data: Mapping[str, Any], field: str, name: str | None = None) -> float | None:
    return None if data.get(field) is None else _number(data, field, name)


def _choice(
    data: Mapping[str, Any],
    field: str,
    known: Mapping[str, str] | tuple[str, ...],
    default: str | None,
    name: str = "",
) -> str:
    value = data.get(field, default)
    if not isinstance(value, str) or value not in known:
        said = "is missing" if value is None else f"is {value!r}"
        raise OutOfRange(name or field, f"{name or field} {said}: choose {', '.join(known)}.")
    return value


def _codes(data: Mapping[str, Any]) -> tuple[frozenset[str], str | None]:
    """Condition codes, and a life stage named among them."""
    stated = data.get("conditions", [])
    if not isinstance(stated, list) or not all(isinstance(code, str) for code in stated):
        raise OutOfRange("conditions", "conditions is a list of names.")
    stages = [code for code in stated if code in LIFE_STAGE_WORDS]
    if len(stages) > 1:
        raise OutOfRange("conditions", f"{' and '.join(stages)} do not go together.")
    for code in stated:
        if code not in conditions() and code not in LIFE_STAGE_WORDS:
            near = _like_condition(code)
            raise OutOfRange(
                "conditions",
                f"There is no condition “{code}”{f': did you mean {near}?' if near else '.'}",
            )
    return frozenset(stated) - set(LIFE_STAGE_WORDS), stages[0] if stages else None


def _like_condition(word: str) -> str:
    """The condition whose name speaks of a word, as of a medicine of that kind, or whose code is
    most like it; empty for none."""
    said = word.replace("_", " ").lower()
    named = [code for code, one in conditions().items() if said in one.name.lower()]
    return next(iter(named or difflib.get_close_matches(word, list(conditions()), 1, 0.6)), "")


def _life_stage(data: Mapping[str, Any], among_conditions: str | None) -> str:
    stated = _choice(data, "life_stage", LIFE_STAGE_WORDS, among_conditions or "adult")
    if among_conditions and among_conditions != stated:
        raise OutOfRange(
            "life_stage", f"life_stage is {stated}, and the conditions say {among_conditions}."
        )
    return stated


def _meals(data: Mapping[str, Any]) -> str:
    value = data.get("meals", 3)
    pattern = {"3_and_snacks": "3_snacks", "3+snacks": "3_snacks"}.get(str(value), str(value))
    if isinstance(value, bool) or pattern not in MEAL_PATTERN_WORDS:
        raise OutOfRange("meals", f"meals is {value!r}: choose {', '.join(MEAL_PATTERN_WORDS)}.")
    return pattern


def _goal(data: Mapping[str, Any]) -> tuple[str, float | None, float | None]:
    stated = data.get("goal", {"kind": "hold"})
    if isinstance(stated, str):
        stated = {"kind": stated}
    if not isinstance(stated, dict):
        raise OutOfRange(
            "goal", "goal has a kind, and may have target_weight_kg and pace_kg_per_week."
        )
    kind = _choice(stated, "kind", GOAL_WORDS, None, "goal.kind")
    target = _optional(stated, "target_weight_kg", "target_weight_kg")
    pace = _optional(stated, "pace_kg_per_week", "pace_kg_per_week")
    # a loss may be written with its sign
    return kind, target, -pace if pace is not None and pace < 0 and kind == "lose" else pace


def _orders(data: Mapping[str, Any]) -> tuple[Order, ...]:
    out = []
    stated = data.get("orders", [])
    if not isinstance(stated, list):
        raise OutOfRange("orders", "orders is a list.")
    for row in stated:
        key = row.get("key") if isinstance(row, dict) else None
        if not isinstance(key, str) or key not in NUTRIENT:
            raise OutOfRange("orders", f"orders: there is no target {key!r}.")
        by, license = (row.get(name, "") for name in ("by", "license"))
        if not all(isinstance(text, str) for text in (by, license)):
            raise OutOfRange("orders", "orders: “by” and “license” are names.")
        # without the license of who gave it, it is a wish and no order
        kind = "order" if by.strip() and license.strip() else "choice"
        low, aim, high = (_optional(row, name, "orders") for name in ("min", "aim", "max"))
        order = Order(
            key=str(key),
            low=low,
            aim=aim,
            high=high,
            kind=kind,
            reason=str(row.get("reason", "")),
            by=by.strip(),
            license=license.strip(),
        )
        try:
            check_order(order)
        except OutOfRange as error:
            raise OutOfRange("orders", f"orders: {error}") from None
        out.append(order)
    return tuple(out)


def read_asked(data: object) -> Asked:
    """Raises OutOfRange naming the field that is missing, of the wrong kind, or not possible."""
    if not isinstance(data, dict):
        raise OutOfRange("file", "The file holds no JSON object.")
    codes, stage = _codes(data)
    kind, target, pace = _goal(data)
    shares = data.get("meal_shares")
    if shares is not None and not isinstance(shares, dict):
        raise OutOfRange("meals", "meal_shares gives a share for each meal.")
    allergies = data.get("allergies", [])
    if not isinstance(allergies, list):
        raise OutOfRange("allergies", "allergies is a list of names.")
    try:
        # one that matches no table is kept by its word, and says so
        refused = {one for name in allergies for one in allergies_named(str(name))}
    except UnknownAllergen as error:
        raise OutOfRange("allergies", str(error)) from None
    person = Person(
        sex=_choice(data, "sex", SEXES, None),
        age_years=_number(data, "age_years"),
        height_cm=_number(data, "height_cm"),
        weight_kg=_number(data, "weight_kg"),
        activity=_choice(data, "activity", ACTIVITY_WORDS, "low_active"),
        goal=kind,
        life_stage=_life_stage(data, stage),
        formula=_choice(data, "energy_formula", FORMULA_WORDS, "dri_2023"),
        conditions=codes,
        allergies=frozenset(refused),
        target_weight_kg=target,
        pace_kg_per_week=pace,
        weight_basis=_choice(data, "weight_basis", WEIGHT_BASIS_WORDS, "auto"),
        kcal_per_kg=_optional(data, "kcal_per_kg"),
        measured_kcal=_optional(data, "measured_kcal"),
        vegan_iron=data.get("vegan_iron") is not False,
        vegan_zinc=data.get("vegan_zinc") is not False,
        weight_before_kg=_optional(data, "weight_before_kg"),
        surgery_months=_optional(data, "surgery_months"),
        fat_free_kg=_optional(data, "fat_free_kg"),
        meals=_meals(data),
    )
    school = (
        None
        if data.get("school") is None
        else schools()[_choice(data, "school", tuple(schools()), None)]
    )
    weights = (
        None if shares is None else {str(key): _number(shares, key, "meals") for key in shares}
    )
    return Asked(
        person=person,
        school=school,
        orders=_orders(data),
        shares=weights,
        ignored=tuple(key for key in data if key not in KNOWN_FIELDS),
    )


def _plain(person: Person) -> dict[str, dict[str, object]]:
    """What stands in the tables of a nutrient that a plant-only diet asks more of."""
    rows = reference_intakes(person.sex, person.age_years, person.life_stage)
    raised = {"iron_mg": person.vegan_iron, "zinc_mg": person.vegan_zinc}
    return {
        key: {"plain": rows[key].value, "vegan_factor": VEGAN_FACTOR[key]}
        for key, holds in raised.items()
        if holds
    }


def _target_data(target: Target) -> dict[str, object]:
    return {
        "min": target.low,
        "aim": target.aim,
        "max": target.high,
        "unit": target.unit,
        "source": target.source,
        "reason": target.reason,
        "in_force": target.voice,
    }


def outside(error: Referred) -> Caution:
    """That nothing is computed for a person, why, and to whom to turn."""
    return Caution(
        code=f"outside_the_formulas_{error.field}",
        level=LEVELS[0],
        text=str(error),
        why="A number computed where no formula holds is a guess.",
        refer_to=error.refer_to,
        source="the ranges of the formulas used here",
    )


def report(asked: Asked) -> dict[str, Any]:
    """Targets, meals, disagreements, forecast and cautions of a day as plain data, for JSON.

    A person whom the formulas do not cover is referred: no targets, the caution, and to whom to
    turn. Raises OutOfRange.
    """
    code = asked.school.code if asked.school else ""
    try:
        day = day_targets(asked.person, asked.school, asked.orders, asked.shares)
    except Referred as error:
        found = cautions_in(situation(asked.person, code, body_numbers(asked.person)))
        told = [asdict(caution) for caution in found]
        return {
            "targets": {},
            "meals": [],
            "disagreements": [],
            "forecast": None,
            "cautions": [asdict(outside(error)), *told],
            "referred": str(error),
        }
    return _day_data(day, asked)


def _day_data(day: DayTargets, asked: Asked) -> dict[str, Any]:
    found = cautions_in(planned_situation(day, asked.orders))
    ahead, plain = day.forecast, _plain(day.person)
    return {
        "targets": {
            key: _target_data(target) | plain.get(key, {}) for key, target in day.targets.items()
        },
        "computed": {
            key: _target_data(target)
            for key, target in day.computed.items()
            if key in {order.key for order in asked.orders}
        },
        "weight_used": asdict(day.weight),
        "gestational_gain": None
        if day.gain is None
        else {**asdict(day.gain), "text": day.gain.words},
        "meals": [asdict(meal) for meal in day.meals],
        "disagreements": [{**asdict(row), "text": row.words} for row in day.disagreements],
        "forecast": None
        if ahead is None
        else {
            "kcal_per_day": ahead.kcal_per_day,
            "points": [
                {"weeks": weeks, "dynamic_kg": dynamic, "static_kg": static}
                for weeks, dynamic, static in ahead.points
            ],
            "eventual_kg": ahead.eventual_kg,
            "weeks_to_target_dynamic": ahead.dynamic_weeks,
            "weeks_to_target_static": ahead.static_weeks,
            "text": ahead.words,
        },
        "cautions": [asdict(caution) for caution in found],
    }


def as_text(data: Mapping[str, Any]) -> str:
    """The report for reading in a terminal."""
    out = []
    for caution in data["cautions"]:
        out += [
            f"{caution['level'].upper()}: {caution['text']}",
            f"    {caution['why']} Turn to: {caution['refer_to']}. ({caution['source']})",
        ]
    out += [f"THEY DISAGREE: {row['text']}" for row in data["disagreements"]]
    for key, row in data["targets"].items():
        target = Target(
            key=key,
            low=row["min"],
            aim=row["aim"],
            high=row["max"],
            unit=row["unit"],
            source=row["source"],
            reason=row["reason"],
        )
        out.append(
            f"{NUTRIENT[key].name:32} {target_words(target):40} {row['reason']} [{row['source']}]"
        )
    for meal in data["meals"]:
        least = (
            ""
            if meal["protein_min_g"] is None
            else f", protein {band_words('protein_g', meal['protein_min_g'], None)}"
        )
        out.append(
            f"{meal['name']:32} {meal['share'] * 100:.0f} %: {meal['energy_kcal']:.0f} kcal{least}"
        )
    if data.get("weight_used"):
        out.append(f"Weight that counts per kg: {data['weight_used']['reason']}.")
    if data["forecast"]:
        out.append(data["forecast"]["text"])
    return "\n".join(out)
