"""A client as a FHIR R4 bundle. What FHIR has no element for stands in an extension of ours, named
in docs/formats.md.

References: HL7 FHIR R4 (4.0.1) Bundle, Patient, Observation, AllergyIntolerance, NutritionOrder,
CarePlan, Goal; LOINC; UCUM.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from datetime import UTC, date, datetime
from fractions import Fraction
from math import isfinite
from typing import Any
from uuid import NAMESPACE_URL, uuid5

from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.profile import Amount
from nutrition.formats.fhir.chart import Chart, Intake, LabValue, Limit, Taken
from nutrition.formats.fhir.codes import (
    HEIGHT,
    LOINC,
    OWN,
    UCUM,
    WEIGHT,
    loinc_of,
    nutrient_coding,
    ucum_of,
)

Resource = dict[str, Any]
CATEGORY = "http://terminology.hl7.org/CodeSystem/observation-category"
CLINICAL = "http://terminology.hl7.org/CodeSystem/allergyintolerance-clinical"
VERIFIED = "http://terminology.hl7.org/CodeSystem/allergyintolerance-verification"
ACHIEVED = "http://terminology.hl7.org/CodeSystem/goal-category"
PRESSURE = "85354-9"
VITAL, LABORATORY, SURVEY = "vital-signs", "laboratory", "survey"
VITALS = {"systolic", "diastolic", "waist"}
INTAKE, EATEN = "intake-of-a-day", "food-eaten"
# Times a week that are no whole number stand as so many in so many weeks, up to this many.
MOST_WEEKS = 52


def to_bundle(chart: Chart, made: datetime) -> Resource:
    """The client as a bundle of the type "collection". The same chart gives the same bundle.

    `made`: when it is written, with its time zone. Raises ValueError for a moment without one.
    """
    if made.tzinfo is None:
        raise ValueError("when it is made needs a time zone")
    names = _Names(chart)
    patient = _patient(chart, names)
    allergies = [_allergy(chart, names, one) for one in chart.allergies]
    orders = list(_orders(chart, names, made))
    goals = list(_goals(chart, names))
    resources = [patient, *_observations(chart, names), *allergies, *orders, *goals]
    if orders or goals:
        resources.append(_care_plan(chart, names, orders, goals, made))
    return {
        "resourceType": "Bundle",
        "id": names.id("Bundle", "all"),
        "type": "collection",
        "timestamp": made.astimezone(UTC).isoformat(timespec="seconds"),
        "entry": [{"fullUrl": f"urn:uuid:{one['id']}", "resource": one} for one in resources],
    }


class _Names:
    """The name of every resource of a chart: the same whenever it is written."""

    def __init__(self, chart: Chart) -> None:
        self.root = uuid5(NAMESPACE_URL, f"{OWN}/{chart.identifier}")
        self.patient = {"reference": self.reference("Patient", "self")}

    def id(self, kind: str, key: str) -> str:
        return str(uuid5(self.root, f"{kind}/{key}"))

    def reference(self, kind: str, key: str) -> str:
        return f"urn:uuid:{self.id(kind, key)}"


def _concept(coding: Iterable[dict[str, str]], text: str) -> Resource:
    found = list(coding)
    return {"coding": found, "text": text} if found else {"text": text}


def _quantity(value: float, unit: str) -> Resource:
    """A number with its unit; as exact as it is kept."""
    whole = int(value) if value == int(value) and abs(value) < 1e15 else value
    return {"value": whole, "unit": unit, "system": UCUM, "code": ucum_of(unit)}


def _patient(chart: Chart, names: _Names) -> Resource:
    out: Resource = {
        "resourceType": "Patient",
        "id": names.id("Patient", "self"),
        "identifier": [{"system": f"{OWN}:client", "value": chart.identifier or "unnamed"}],
    }
    if chart.name:
        out["name"] = [{"text": chart.name}]
    if chart.sex:
        out["gender"] = chart.sex
    if chart.birth_date:
        out["birthDate"] = chart.birth_date.isoformat()
    elif chart.birth_year:
        out["birthDate"] = f"{chart.birth_year:04}"
    return out


def _observation(names: _Names, key: str, category: str, on: date, code: Resource) -> Resource:
    return {
        "resourceType": "Observation",
        "id": names.id("Observation", key),
        "status": "final",
        "category": [{"coding": [{"system": CATEGORY, "code": category}]}],
        "code": code,
        "subject": names.patient,
        "effectiveDateTime": on.isoformat(),
    }


def _loinc(code: str, words: str) -> Resource:
    return {"coding": [{"system": LOINC, "code": code, "display": words}], "text": words}


def _observations(chart: Chart, names: _Names) -> Iterator[Resource]:
    if chart.height_cm is not None and chart.measured_on is not None:
        height = _observation(
            names, "height", VITAL, chart.measured_on, _loinc(HEIGHT, "Body height")
        )
        yield height | {"valueQuantity": _quantity(chart.height_cm, "cm")}
    for at, one in enumerate(chart.weights):
        weight = _observation(names, f"weight-{at}", VITAL, one.on, _loinc(WEIGHT, "Body weight"))
        yield weight | {"valueQuantity": _quantity(one.kg, "kg")}
    yield from _values(chart.values, names)
    for one_day in chart.intakes:
        yield _intake(one_day, names)


def _values(values: Sequence[LabValue], names: _Names) -> Iterator[Resource]:
    """What was measured; both pressures of a day as the one that FHIR knows."""
    lower = {one.measured.on: one for one in values if one.measured.key == "diastolic"}
    joined: set[int] = set()
    for one in values:
        other = lower.get(one.measured.on) if one.measured.key == "systolic" else None
        if other is not None and _told(one) == _told(other):
            joined |= {id(one), id(other)}
            yield _pressure(one, other, names)
    for at, one in enumerate(values):
        if id(one) not in joined:
            yield _value(at, one, names)


def _told(one: LabValue) -> tuple[str, str]:
    return one.laboratory, one.remark


def _pressure(upper: LabValue, lower: LabValue, names: _Names) -> Resource:
    on = upper.measured.on
    code = _loinc(PRESSURE, "Blood pressure panel")
    out = _observation(names, f"pressure-{on}", VITAL, on, code)
    out["component"] = [
        {"code": _code_of(one), **_measured(one, ranges=True)} for one in (upper, lower)
    ]
    return out | _said(upper)


def _code_of(one: LabValue) -> Resource:
    measured = one.measured
    return _loinc(loinc_of(measured.key, measured.unit), measured.analyte.name)


def _value(at: int, one: LabValue, names: _Names) -> Resource:
    category = VITAL if one.measured.key in VITALS else LABORATORY
    name = f"value-{at}-{one.measured.key}-{one.measured.on}"
    out = _observation(names, name, category, one.measured.on, _code_of(one))
    return out | _measured(one, ranges=True) | _said(one)


def _measured(one: LabValue, ranges: bool) -> Resource:
    measured = one.measured
    out: Resource = {"valueQuantity": _quantity(measured.value, measured.unit)}
    edges = {
        name: _quantity(edge, measured.unit)
        for name, edge in (("low", measured.low), ("high", measured.high))
        if edge is not None
    }
    if edges and ranges:
        out["referenceRange"] = [edges]
    return out


def _said(one: LabValue) -> Resource:
    out: Resource = {}
    if one.laboratory:
        out["performer"] = [{"display": one.laboratory}]
    if one.remark:
        out["note"] = [{"text": one.remark}]
    return out


def _intake(one: Intake, names: _Names) -> Resource:
    """What was eaten on a day: R4 has no NutritionIntake, so it is an observation with a component
    for each nutrient and each food."""
    code = {
        "coding": [{"system": f"{OWN}:observation", "code": INTAKE}],
        "text": "What was eaten on a day",
    }
    out = _observation(names, f"intake-{one.on}", SURVEY, one.on, code)
    out["status"] = "final" if one.whole else "preliminary"
    parts = [_of_nutrient(key, amount) for key, amount in one.amounts.items()]
    eaten = {"coding": [{"system": f"{OWN}:observation", "code": EATEN}], "text": "eaten"}
    parts += [{"code": eaten, "valueString": words} for words in one.foods]
    return out | {"component": parts} if parts else out


def _of_nutrient(key: str, amount: Amount) -> Resource:
    unit = NUTRIENT[key].unit
    known = [
        {"url": name, "valueQuantity": _quantity(value, unit)}
        for name, value in (("low", amount.low), ("high", amount.high))
    ]
    if isfinite(amount.could_add):
        known.append({"url": "could-add", "valueQuantity": _quantity(amount.could_add, unit)})
    counts: list[Resource] = [
        {"url": "known", "valueDecimal": amount.known},
        {"url": "lines", "valueInteger": amount.lines},
        {"url": "unknown", "valueInteger": amount.unknown_lines},
        {"url": "missing", "valueInteger": amount.missing},
    ]
    return {
        "extension": [{"url": f"{OWN}:range", "extension": [*known, *counts]}],
        "code": _concept(nutrient_coding(key), NUTRIENT[key].name),
        "valueQuantity": _quantity(amount.amount, unit),
    }


def _allergy(chart: Chart, names: _Names, words: str) -> Resource:
    return {
        "resourceType": "AllergyIntolerance",
        "id": names.id("AllergyIntolerance", words),
        "clinicalStatus": {"coding": [{"system": CLINICAL, "code": "active"}]},
        "verificationStatus": {"coding": [{"system": VERIFIED, "code": "unconfirmed"}]},
        "category": ["food"],
        "code": {"text": words},
        "patient": names.patient,
    }


def _orders(chart: Chart, names: _Names, made: datetime) -> Iterator[Resource]:
    """One for what is planned, and one for each clinician who ordered something."""
    planned = [one for one in chart.limits if not one.by]
    if planned or chart.diet or chart.textures or chart.supplements:
        out = _order(names, "plan", "plan", made, chart)
        diet: Resource = {}
        if chart.diet:
            diet["type"] = [{"text": chart.diet}]
        if planned:
            diet["nutrient"] = [_limit(one) for one in planned]
        if chart.textures:
            diet["texture"] = [{"modifier": {"text": words}} for words in chart.textures]
        if diet:
            out["oralDiet"] = diet
        if chart.supplements:
            out["supplement"] = [_supplement(one) for one in chart.supplements]
        yield out
    for by in dict.fromkeys((one.by, one.license) for one in chart.limits if one.by):
        mine = [one for one in chart.limits if (one.by, one.license) == by]
        out = _order(names, f"order-{by[0]}-{by[1]}", "order", made, chart)
        out["orderer"] = {"display": by[0]}
        if by[1]:
            out["extension"] = [{"url": f"{OWN}:license", "valueString": by[1]}]
        out["oralDiet"] = {"nutrient": [_limit(one) for one in mine]}
        yield out


def _order(names: _Names, key: str, intent: str, made: datetime, chart: Chart) -> Resource:
    out: Resource = {
        "resourceType": "NutritionOrder",
        "id": names.id("NutritionOrder", key),
        "status": "active",
        "intent": intent,
        "patient": names.patient,
        "dateTime": made.astimezone(UTC).isoformat(timespec="seconds"),
    }
    if chart.allergies:
        out["allergyIntolerance"] = [
            {"reference": names.reference("AllergyIntolerance", words)} for words in chart.allergies
        ]
    return out


def _limit(one: Limit) -> Resource:
    """What a day is to bring of a nutrient. FHIR has one amount; least, aim and most stand in an
    extension, the amount is the one that binds most."""
    unit = NUTRIENT[one.key].unit
    stated = {
        name: value
        for name, value in (("low", one.low), ("aim", one.aim), ("high", one.high))
        if value is not None
    }
    parts: list[Resource] = [
        {"url": name, "valueQuantity": _quantity(value, unit)} for name, value in stated.items()
    ]
    if one.reason:
        parts.append({"url": "reason", "valueString": one.reason})
    binding = next((stated[name] for name in ("aim", "high", "low") if name in stated), None)
    out: Resource = {
        "extension": [{"url": f"{OWN}:limits", "extension": parts}],
        "modifier": _concept(nutrient_coding(one.key), NUTRIENT[one.key].name),
    }
    if binding is not None:
        out["amount"] = _quantity(binding, unit)
    return out


def _supplement(one: Taken) -> Resource:
    name = NUTRIENT[one.key].name
    weeks = Fraction(one.per_week).limit_denominator(MOST_WEEKS)
    return {
        "type": _concept(nutrient_coding(one.key), f"{name}, {one.form}" if one.form else name),
        **({"productName": one.form} if one.form else {}),
        "schedule": [
            {
                "repeat": {
                    "frequency": weeks.numerator,
                    "period": weeks.denominator,
                    "periodUnit": "wk",
                }
            }
        ],
        "quantity": _quantity(one.dose, NUTRIENT[one.key].unit),
    }


def _goals(chart: Chart, names: _Names) -> Iterator[Resource]:
    if not chart.goal:
        return
    out: Resource = {
        "resourceType": "Goal",
        "id": names.id("Goal", "weight"),
        "lifecycleStatus": "active",
        "category": [{"coding": [{"system": ACHIEVED, "code": "dietary"}]}],
        "description": {"text": chart.goal},
        "subject": names.patient,
    }
    if chart.target_kg is not None:
        measure = _loinc(WEIGHT, "Body weight")
        out["target"] = [{"measure": measure, "detailQuantity": _quantity(chart.target_kg, "kg")}]
    yield out


def _care_plan(
    chart: Chart,
    names: _Names,
    orders: Sequence[Resource],
    goals: Sequence[Resource],
    made: datetime,
) -> Resource:
    out: Resource = {
        "resourceType": "CarePlan",
        "id": names.id("CarePlan", "plan"),
        "status": "active",
        "intent": "plan",
        "title": "Nutrition care plan",
        "subject": names.patient,
        "created": made.astimezone(UTC).isoformat(timespec="seconds"),
    }
    if chart.diet:
        out["description"] = chart.diet
    if goals:
        out["goal"] = [{"reference": f"urn:uuid:{one['id']}"} for one in goals]
    if orders:
        out["activity"] = [{"reference": {"reference": f"urn:uuid:{one['id']}"}} for one in orders]
    return out
