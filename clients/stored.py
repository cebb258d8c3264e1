"""A day's targets as plain data, to be kept in a version and read back."""

import json
from dataclasses import asdict
from typing import Any

from nutrition.composition.nutrients import NUTRIENT
from nutrition.targets.body import WeightUsed
from nutrition.targets.day import DayTargets, EnergyPlan
from nutrition.targets.meals import MealTarget
from nutrition.targets.person import Person
from nutrition.targets.voices import Disagreement, Target
from nutrition.targets.weight_forecast import Forecast
from schools.chosen import school_named


def to_data(day: DayTargets) -> dict[str, Any]:
    """Everything but the school's own data, of which code and name are kept."""
    person = asdict(day.person) | {
        "conditions": sorted(day.person.conditions),
        "allergies": sorted(day.person.allergies),
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
    }
    # as it will come back from the database, so that two versions can be compared
    return json.loads(json.dumps(data))


def from_data(data: dict[str, Any]) -> DayTargets:
    """The day's targets as they were made. A key that has left the table of nutrients is
    dropped."""
    ahead = data["forecast"]
    person = data["person"]
    return DayTargets(
        person=Person(
            **person
            | {
                "conditions": frozenset(person["conditions"]),
                "allergies": frozenset(person["allergies"]),
            }
        ),
        school=school_named(data["school"]) if data["school"] else None,
        weight=WeightUsed(**data["weight"]),
        energy=EnergyPlan(**data["energy"]),
        targets={key: Target(**row) for key, row in data["targets"].items() if key in NUTRIENT},
        computed={key: Target(**row) for key, row in data["computed"].items() if key in NUTRIENT},
        disagreements=tuple(Disagreement(**row) for row in data["disagreements"]),
        meals=tuple(MealTarget(**row) for row in data["meals"]),
        forecast=Forecast(**ahead | {"points": tuple(tuple(point) for point in ahead["points"])})
        if ahead
        else None,
    )
