"""A day's targets as plain data, to be kept in a version and read back."""

import json
from dataclasses import asdict
from typing import Any

from nutrition.composition.nutrients import NUTRIENT
from nutrition.targets.body import WeightUsed
from nutrition.targets.conditions import conditions
from nutrition.targets.day import DayTargets
from nutrition.targets.energy_plan import EnergyPlan
from nutrition.targets.meals import MealTarget
from nutrition.targets.orders import BY_CHOICE, BY_ORDER
from nutrition.targets.person import Person, Referred
from nutrition.targets.pregnancy import GestationalGain
from nutrition.targets.voices import (
    CONDITION,
    GENERAL,
    GENERAL_VOICE,
    ORDER,
    SCHOOL,
    WISH,
    Disagreement,
    Target,
    Voice,
)
from nutrition.targets.weight_forecast import Forecast
from schools.choices import school_named

# What a target says of whose it and its bounds are.
VOICES = ("rank", "low_by", "high_by")


def to_data(day: DayTargets) -> dict[str, Any]:
    """Everything but the school's own data, of which code and name are kept."""
    person = asdict(day.person) | {
        "conditions": sorted(day.person.conditions),
        "allergies": sorted(day.person.allergies),
        "old_values": sorted(day.person.old_values),
    }
    data = {
        "person": person,
        "school": day.school.code if day.school else "",
        "school_name": day.school.name if day.school else "",
        "weight": asdict(day.weight),
        "energy": asdict(day.energy),
        "targets": {key: asdict(target) for key, target in day.targets.items()},
        "computed": {key: asdict(target) for key, target in day.computed.items()},
        "disagreements": [asdict(row) for row in day.disagreements],
        "meals": [asdict(row) for row in day.meals],
        "forecast": asdict(day.forecast) if day.forecast else None,
        "gain": asdict(day.gain) if day.gain else None,
    }
    # as it will come back from the database, so that two versions can be compared
    return json.loads(json.dumps(data))


def _targets(rows: dict[str, Any]) -> dict[str, Target]:
    return {key: _target(row) for key, row in rows.items() if key in NUTRIENT}


def _target(row: dict[str, Any]) -> Target:
    if "high_by" in row:
        voices = {name: Voice(**row[name]) for name in ("low_by", "high_by")}
        return Target(**row | voices)
    # kept before each bound knew whose it is: both are taken for the one whose the target was
    by = Voice(row["voice"], _rank_of(row["voice"]))
    return Target(**row, rank=by.rank, low_by=by, high_by=by)


def _rank_of(voice: str) -> int:
    if voice == GENERAL_VOICE:
        return GENERAL
    if voice.startswith(BY_ORDER):
        return ORDER
    if voice.startswith(BY_CHOICE):
        return WISH
    return CONDITION if voice in {row.name for row in conditions().values()} else SCHOOL


def same_targets(one: dict[str, Any], other: dict[str, Any]) -> bool:
    """Whether two versions hold the same numbers for the same person, whoever's each bound is."""
    return _bare(one) == _bare(other)


def _bare(data: dict[str, Any]) -> dict[str, Any]:
    # a version that was kept before blood values counted has none of them
    # ... and how long ago an operation was changes by itself
    person = {
        name: value
        for name, value in data.get("person", {}).items()
        if name not in ("found", "old_values", "surgery_months")
        or (value and name != "surgery_months")
    }
    return (
        data
        | {"person": person}
        | {
            name: {
                key: {word: value for word, value in row.items() if word not in VOICES}
                for key, row in data.get(name, {}).items()
            }
            for name in ("targets", "computed")
        }
    )


def from_data(data: dict[str, Any]) -> DayTargets:
    """The day's targets as they were made. A key that has left the table of nutrients is
    dropped. Raises Referred for a version that was kept without targets."""
    school = school_named(data.get("school") or "")
    if "referred" in data:
        raise Referred("", data["referred"], data["refer_to"])
    ahead = data["forecast"]
    person = data["person"]
    return DayTargets(
        person=Person(
            **person
            | {
                "conditions": frozenset(person["conditions"]),
                "allergies": frozenset(person["allergies"]),
                "old_values": frozenset(person.get("old_values", ())),
                "found": tuple((code, words) for code, words in person.get("found", ())),
            }
        ),
        school=school,
        weight=WeightUsed(**data["weight"]),
        energy=EnergyPlan(**data["energy"]),
        targets=_targets(data["targets"]),
        computed=_targets(data["computed"]),
        disagreements=tuple(Disagreement(**row) for row in data["disagreements"]),
        meals=tuple(MealTarget(**row) for row in data["meals"]),
        forecast=Forecast(**ahead | {"points": tuple(tuple(point) for point in ahead["points"])})
        if ahead
        else None,
        gain=GestationalGain(**data["gain"]) if data.get("gain") else None,
    )
