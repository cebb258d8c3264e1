"""The schools of practice: what each sets, avoids, favors and asks for every day, from
data/schools.toml."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass, fields
from functools import lru_cache
from typing import Any

from nutrition.composition.food_classes import food_classes
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.tables import DATA, BadTable, only
from nutrition.targets.adjustments import (
    BadRow,
    FoodStance,
    Shift,
    is_published,
    read_shift,
    read_stance,
)

# What general guidance calls a usual pace of losing weight, one to two pounds a week at most. From
# memory. [kg/week]
USUAL_LOSS = (0.25, 0.9)
GENERAL_PACE = {"lose": 0.5, "gain": 0.25, "muscle": 0.2}
FASTEST_PACE = 1.5


@dataclass(frozen=True, kw_only=True)
class PlatePart:
    """A part of the plate and its share of the volume [0 to 1]."""

    part: str
    classes: tuple[str, ...]
    share: float
    reason: str
    source: str


@dataclass(frozen=True, kw_only=True)
class Habit:
    """Something to tick every day: at least so much of these foods, or at most. [g/day]"""

    name: str
    classes: tuple[str, ...]
    least_g: float | None
    most_g: float | None
    reason: str
    source: str

    @property
    def published(self) -> bool:
        return is_published(self.source)


@dataclass(frozen=True, kw_only=True)
class Pace:
    """How fast weight is to change. [kg/week] Within `near_kg` of the target the pace `near` holds
    for losing."""

    lose: float
    gain: float
    muscle: float
    near_kg: float | None
    near: float | None
    reason: str
    source: str

    def of(self, goal: str, to_go_kg: float | None) -> float:
        """The pace for a goal with so far to go. [kg/week] from [kg]; zero to hold."""
        if goal == "lose":
            close = (
                self.near is not None
                and self.near_kg is not None
                and to_go_kg is not None
                and to_go_kg <= self.near_kg
            )
            return self.near if close and self.near is not None else self.lose
        return {"gain": self.gain, "muscle": self.muscle}.get(goal, 0.0)


@dataclass(frozen=True, kw_only=True)
class School:
    """One school of practice; every line has its reason and its source."""

    code: str
    name: str
    leads: str
    typical_day: str
    watched: tuple[str, ...]
    targets: tuple[Shift, ...]
    foods: tuple[FoodStance, ...]
    plate: tuple[PlatePart, ...]
    meals: tuple[tuple[str, str], ...]
    habits: tuple[Habit, ...]
    starch_order: tuple[str, ...]
    starch_reason: str
    pace: Pace
    meal_protein_g_per_kg: float
    meal_protein_least_g: float
    meal_protein_most_g: float | None
    meal_protein_reason: str
    stands: Mapping[str, str]
    each_meal: bool = False
    of_meal: tuple[str, ...] = ()


SCHOOL_KEYS = tuple(one.name for one in fields(School) if one.name != "code")
PACE_KEYS = tuple(one.name for one in fields(Pace))
HABIT_KEYS = tuple(one.name for one in fields(Habit))
PLATE_KEYS = tuple(one.name for one in fields(PlatePart))


def _known_classes(names: tuple[str, ...]) -> tuple[str, ...]:
    for name in names:
        if name not in food_classes():
            raise BadRow(f"there is no kind of food “{name}”")
    if not names:
        raise BadRow("a row needs its kinds of food")
    return names


def _amount(row: Mapping[str, Any], name: str, low: float, high: float, what: str) -> float | None:
    value = row.get(name)
    if value in (None, ""):
        return None
    try:
        number = float(value)
    except (TypeError, ValueError):
        raise BadRow(f"{what} is a number, not “{value}”") from None
    if not low <= number <= high:
        raise BadRow(f"{what} is {low:g} to {high:g}, not {number:g}")
    return number


def _habit(row: Mapping[str, Any]) -> Habit:
    only(row, HABIT_KEYS, "a habit")
    least, most = (
        _amount(row, name, 0, 5000, f"{row.get('name', 'a habit')} in grams")
        for name in ("least_g", "most_g")
    )
    if (least is None) == (most is None):
        raise BadRow(f"{row.get('name', 'a habit')} needs a least or a most in grams, not both")
    return Habit(
        name=str(row["name"]),
        classes=_known_classes(tuple(row["classes"])),
        least_g=least,
        most_g=most,
        reason=str(row["reason"]),
        source=str(row["source"]),
    )


def _plate_part(row: Mapping[str, Any]) -> PlatePart:
    only(row, PLATE_KEYS, "a part of the plate")
    share = _amount(row, "share", 0, 1, f"the share of {row.get('part', 'a part')}")
    return PlatePart(
        part=str(row["part"]),
        classes=_known_classes(tuple(row["classes"])),
        share=share or 0.0,
        reason=str(row["reason"]),
        source=str(row["source"]),
    )


def _pace(row: Mapping[str, Any]) -> Pace:
    def of(name: str) -> float | None:
        return _amount(
            row, name, 0, 10 if name == "near_kg" else FASTEST_PACE, "a pace in kg a week"
        )

    only(row, PACE_KEYS, "the pace")
    lose, gain, muscle = (of(name) for name in ("lose", "gain", "muscle"))
    return Pace(
        lose=GENERAL_PACE["lose"] if lose is None else lose,
        gain=GENERAL_PACE["gain"] if gain is None else gain,
        muscle=GENERAL_PACE["muscle"] if muscle is None else muscle,
        near_kg=of("near_kg"),
        near=of("near"),
        reason=str(row["reason"]),
        source=str(row["source"]),
    )


def _typical_meal(row: Mapping[str, Any]) -> tuple[str, str]:
    only(row, ("name", "what"), "a typical meal")
    return str(row["name"]), str(row["what"])


def read_school(code: str, data: Mapping[str, Any]) -> School:
    """A school from its data, built in or a practitioner's copy. Raises BadRow saying what is wrong
    in which line."""
    # a copy holds what its school said when it was made; flags that came later are its school's
    built_in = school_data().get(code.partition(":")[0], {})
    try:
        only(data, SCHOOL_KEYS, code)
        plate = tuple(_plate_part(row) for row in data["plate"])
        if plate and abs(sum(part.share for part in plate) - 1.0) > 0.011:
            raise BadRow("the shares of the plate do not add up to 1")
        for key in data["watched"]:
            if key not in NUTRIENT:
                raise BadRow(f"there is no target “{key}”")
        return School(
            code=code,
            name=str(data["name"]),
            leads=str(data["leads"]),
            typical_day=str(data["typical_day"]),
            watched=tuple(data["watched"]),
            targets=tuple(read_shift(row) for row in data["targets"]),
            foods=tuple(read_stance(row) for row in data["foods"]),
            plate=plate,
            meals=tuple(_typical_meal(row) for row in data["meals"]),
            habits=tuple(_habit(row) for row in data["habits"]),
            starch_order=tuple(data["starch_order"]),
            starch_reason=str(data["starch_reason"]),
            pace=_pace(data["pace"]),
            meal_protein_g_per_kg=_amount(
                data, "meal_protein_g_per_kg", 0, 1, "the protein at a meal per kg"
            )
            or 0.0,
            meal_protein_least_g=_amount(
                data, "meal_protein_least_g", 0, 80, "the least protein at a meal"
            )
            or 0.0,
            meal_protein_most_g=_amount(
                data, "meal_protein_most_g", 0, 120, "the most protein at a meal"
            ),
            meal_protein_reason=str(data["meal_protein_reason"]),
            stands=dict(data["stands"]),
            each_meal=bool(data.get("each_meal", built_in.get("each_meal", False))),
            of_meal=tuple(data.get("of_meal", built_in.get("of_meal", ()))),
        )
    except KeyError as error:
        raise BadRow(f"a line lacks its {error.args[0]}") from None
    except BadTable as error:
        raise BadRow(str(error), error.field) from None


@lru_cache(maxsize=1)
def school_data() -> dict[str, dict[str, Any]]:
    """The built-in schools as plain data, which a practitioner's copy starts from."""
    return tomllib.loads((DATA / "schools.toml").read_text(encoding="utf-8"))


@lru_cache(maxsize=1)
def schools() -> dict[str, School]:
    """The built-in schools by code."""
    return {code: read_school(code, data) for code, data in school_data().items()}
