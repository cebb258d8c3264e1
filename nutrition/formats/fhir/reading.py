"""A client, or a laboratory's values, out of a FHIR R4 bundle, with a report of what was read how
surely: what is not understood, and what lacks a unit or a date, is said and never guessed."""

from __future__ import annotations

import json
import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from datetime import date

from nutrition.composition.errors import CoreError
from nutrition.composition.profile import Amount
from nutrition.formats.fhir.chart import Chart, Intake, LabValue, Weight
from nutrition.formats.fhir.codes import HEIGHT, LOINC, OWN, WEIGHT, analyte_of, unit_of
from nutrition.formats.fhir.diet import KG_OF, nutrient_named, read_diet
from nutrition.formats.fhir.parts import (
    MOST_RESOURCES,
    MOST_SIZE,
    Asked,
    Json,
    SoFar,
    called,
    codes_in,
    date_in,
    extension_of,
    number_in,
    object_in,
    quantity_in,
    rows_in,
    subject_of,
    text_in,
)
from nutrition.formats.fhir.writing import EATEN, INTAKE, PRESSURE
from nutrition.targets.blood import BadValue, Measured, check_value, likely_units

CM_OF = {"cm": 1.0, "m": 100.0, "in": 2.54}
READ = {
    *("Patient", "Observation", "AllergyIntolerance", "NutritionOrder", "Goal", "CarePlan"),
    *("Bundle", "DiagnosticReport"),
}


class UnreadableBundle(CoreError):
    """A file that is no FHIR R4 bundle, or none that can be read; the message says why."""


@dataclass(frozen=True, kw_only=True)
class Found:
    """What was read. `told` says what was not, line by line; `asked` are values that somebody has
    to complete."""

    chart: Chart
    told: tuple[str, ...] = ()
    asked: tuple[Asked, ...] = ()


def read_bundle(text: str) -> Found:
    """The bundle in a text: of one client, or of observations alone.

    Raises UnreadableBundle for what is none, and for one of several clients.
    """
    resources = list(_resources(_parsed(text)))
    if len(resources) > MOST_RESOURCES:
        raise UnreadableBundle(f"It has more than {MOST_RESOURCES:,} entries.")
    so = SoFar()
    patients = [one for one in resources if one["resourceType"] == "Patient"]
    if len(patients) > 1:
        raise UnreadableBundle(f"It is about {len(patients)} people: give each one apart.")
    subjects = {subject_of(one) for one in resources} - {""}
    if not patients and len(subjects) > 1:
        raise UnreadableBundle(f"It is about {len(subjects)} people: give each one apart.")
    for one in patients:
        _patient(one, so)
    for one in resources:
        kind = str(one["resourceType"])
        if kind not in READ:
            so.told.append(f"{kind}: nothing of it is kept.")
    for one in (row for row in resources if row["resourceType"] == "Observation"):
        _observation(one, so)
    read_diet(resources, so)
    return Found(chart=_sorted(so.chart), told=tuple(so.told), asked=tuple(so.asked))


def _parsed(text: str) -> Json:
    if len(text) > MOST_SIZE:
        raise UnreadableBundle(f"It has more than {MOST_SIZE:,} characters.")
    try:
        found = json.loads(text.lstrip("\ufeff"))
    except (json.JSONDecodeError, RecursionError) as error:
        raise UnreadableBundle(f"It is no JSON: {error}.") from error
    if not isinstance(found, dict) or not isinstance(found.get("resourceType"), str):
        raise UnreadableBundle("It is JSON, and no FHIR resource: it names no resourceType.")
    return found


def _resources(found: Json) -> Iterator[Json]:
    """The resources of a bundle, of bundles within it, or the one that stands alone."""
    if found["resourceType"] != "Bundle":
        yield found
        return
    for entry in rows_in(found.get("entry")):
        inner = entry.get("resource")
        if isinstance(inner, dict) and isinstance(inner.get("resourceType"), str):
            if inner["resourceType"] == "Bundle":
                yield from (one for one in _resources(inner) if one["resourceType"] != "Bundle")
            else:
                yield inner


def _patient(one: Json, so: SoFar) -> None:
    name = next(iter(rows_in(one.get("name"))), {})
    parts = [part for part in name.get("given") or [] if isinstance(part, str)]
    said = text_in(name.get("text")) or text_in(" ".join([*parts, text_in(name.get("family"))]))
    sex = text_in(one.get("gender"))
    if sex not in ("female", "male", ""):
        so.told.append(f"Gender “{sex}”: the sex that the equations use is to be chosen by hand.")
        sex = ""
    born = text_in(one.get("birthDate"))
    on = date_in(born)
    year = int(born[:4]) if born[:4].isdigit() else None
    identifier = next(
        (
            text_in(row.get("value"))
            for row in rows_in(one.get("identifier"))
            if row.get("system") == f"{OWN}:client"
        ),
        "",
    )
    so.chart = replace(
        so.chart,
        name=said,
        sex=sex,
        birth_date=on if len(born) == 10 else None,
        birth_year=year,
        identifier="" if identifier == "unnamed" else identifier,
    )


def _when(one: Json) -> date | None:
    period = object_in(one.get("effectivePeriod"))
    for said in (
        one.get("effectiveDateTime"),
        one.get("effectiveInstant"),
        period.get("end"),
        period.get("start"),
    ):
        if (on := date_in(text_in(said))) is not None:
            return on
    return None


def _observation(one: Json, so: SoFar) -> None:
    if one.get("status") in ("entered-in-error", "cancelled"):
        so.told.append(f"{called(one.get('code')) or 'A value'}: taken back where it comes from.")
        return
    if INTAKE in codes_in(one.get("code"), f"{OWN}:observation"):
        _intake(one, so)
        return
    parts = rows_in(one.get("component"))
    if parts and (PRESSURE in codes_in(one.get("code"), LOINC) or "valueQuantity" not in one):
        for part in parts:
            _measurement(one, part, so)
        return
    _measurement(one, one, so)


def _measurement(whole: Json, part: Json, so: SoFar) -> None:
    """One value: a weight, a height, an analyte; or what is said of one that is none of these."""
    name = called(part.get("code")) or "a value without a name"
    codes = codes_in(part.get("code"), LOINC)
    quantity = object_in(part.get("valueQuantity"))
    value = number_in(quantity.get("value"))
    on = _when(whole)
    if value is None:
        so.told.append(f"{name}: it has no number, and is not kept.")
        return
    if quantity.get("comparator"):
        words = f"{quantity['comparator']} {value:g} {text_in(quantity.get('unit'))}".strip()
        so.told.append(f"{name}: “{words}” is no number but a bound, and is not kept.")
        return
    unit = unit_of(text_in(quantity.get("code")) or text_in(quantity.get("unit")))
    if WEIGHT in codes or HEIGHT in codes:
        _of_the_body(WEIGHT in codes, name, value, unit, on, so)
        return
    key = next((found for code in codes if (found := analyte_of(code))), None)
    if key is None:
        so.told.append(f"{name}{f' ({codes[0]})' if codes else ''}: not known here, not kept.")
        return
    _analyte(key, whole, part, (value, unit, on), so)


def _of_the_body(
    weighed: bool, name: str, value: float, unit: str, on: date | None, so: SoFar
) -> None:
    factors = KG_OF if weighed else CM_OF
    if unit not in factors or on is None:
        missing = "unit" if unit not in factors else "date"
        so.asked.append(
            Asked(
                what=name,
                key="weight" if weighed else "height",
                text=f"{value:g} {unit}".strip(),
                missing=missing,
                value=value,
                unit=unit if unit in factors else "",
                on=on,
                units=tuple(factors),
            )
        )
        return
    said = value * factors[unit]
    if weighed:
        so.chart = replace(so.chart, weights=(*so.chart.weights, Weight(on=on, kg=said)))
    elif so.chart.measured_on is None or on >= so.chart.measured_on:
        so.chart = replace(so.chart, height_cm=said, measured_on=on)


def _analyte(
    key: str, whole: Json, part: Json, read: tuple[float, str, date | None], so: SoFar
) -> None:
    value, unit, on = read
    name = called(part.get("code"))
    low, high = _range(part.get("referenceRange"), unit)
    try:
        check_value(key, value, unit)
        measured = Measured(key=key, value=value, unit=unit, on=on or date.min, low=low, high=high)
    except BadValue as error:
        likely = tuple(likely_units(key, value))
        if unit and not likely:
            so.told.append(f"{name}: {error}")
            return
        asked = Asked(
            what=name,
            key=key,
            text=f"{value:g} {unit}".strip(),
            missing="unit",
            value=value,
            on=on,
            units=likely,
        )
        so.asked.append(asked)
        return
    if on is None:
        so.asked.append(
            Asked(
                what=name,
                key=key,
                text=f"{value:g} {unit}",
                missing="date",
                value=value,
                unit=unit,
                units=(unit,),
            )
        )
        return
    lab = text_in(next(iter(rows_in(whole.get("performer"))), {}).get("display"))
    remark = text_in(next(iter(rows_in(whole.get("note"))), {}).get("text"))
    one = LabValue(measured=measured, laboratory=lab, remark=remark)
    so.chart = replace(so.chart, values=(*so.chart.values, one))


def _range(rows: object, unit: str) -> tuple[float | None, float | None]:
    """The laboratory's own range, where it is in the unit of the value."""
    row = next(iter(rows_in(rows)), {})
    edges = []
    for name in ("low", "high"):
        edge = object_in(row.get(name))
        said = unit_of(text_in(edge.get("code")) or text_in(edge.get("unit")))
        edges.append(number_in(edge.get("value")) if said in (unit, "") else None)
    return edges[0], edges[1]


def _intake(one: Json, so: SoFar) -> None:
    on = _when(one)
    if on is None:
        so.told.append("What was eaten on a day: without a date, not kept.")
        return
    amounts: dict[str, Amount] = {}
    foods = []
    for part in rows_in(one.get("component")):
        if EATEN in codes_in(part.get("code"), f"{OWN}:observation"):
            foods.append(str(part.get("valueString", "")))
            continue
        key, value = nutrient_named(part.get("code"), so), quantity_in(part)
        if key is not None and value is not None:
            amounts[key] = _amount(value, extension_of(part, "range"))
    intake = Intake(on=on, whole=one.get("status") == "final", amounts=amounts, foods=tuple(foods))
    so.chart = replace(so.chart, intakes=(*so.chart.intakes, intake))


def _amount(value: float, parts: Mapping[str, Json]) -> Amount:
    low, high = (quantity_in(parts.get(name)) for name in ("low", "high"))
    counts = {
        name: int(number_in(object_in(parts.get(name)).get("valueInteger")) or 0)
        for name in ("lines", "unknown", "missing")
    }
    known = number_in(object_in(parts.get("known")).get("valueDecimal"))
    could = quantity_in(parts.get("could-add"))
    return Amount(
        amount=value,
        low=value if low is None else low,
        high=value if high is None else high,
        known=1.0 if known is None else known,
        unknown_lines=counts["unknown"],
        lines=counts["lines"],
        missing=counts["missing"],
        could_add=math.inf if could is None else could,
    )


def _sorted(chart: Chart) -> Chart:
    """In the order of time, however the file has them."""
    return replace(
        chart,
        weights=tuple(sorted(chart.weights, key=lambda one: one.on)),
        values=tuple(sorted(chart.values, key=lambda one: (one.measured.on, one.measured.key))),
        intakes=tuple(sorted(chart.intakes, key=lambda one: one.on)),
    )
