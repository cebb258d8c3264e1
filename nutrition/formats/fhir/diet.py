"""What somebody is to eat and must not, out of FHIR: allergies, orders for nutrition, goals."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from nutrition.composition.nutrients import NUTRIENT
from nutrition.formats.fhir.chart import Limit, Taken
from nutrition.formats.fhir.codes import LOINC, OWN, WEIGHT, unit_of
from nutrition.formats.fhir.parts import (
    Json,
    SoFar,
    called,
    codes_in,
    extension_of,
    number_in,
    object_in,
    quantity_in,
    rows_in,
    text_in,
)

WEEKS_OF = {"d": 7.0, "wk": 1.0}
KG_OF = {"kg": 1.0, "g": 0.001, "lb": 0.45359237}
# An order that is one of these is still what somebody is to eat.
IN_FORCE = ("active", "on-hold", "draft", "completed")


def read_diet(resources: Iterable[Json], so: SoFar) -> None:
    for one in resources:
        kind = one["resourceType"]
        if kind == "AllergyIntolerance":
            _allergy(one, so)
        elif kind == "NutritionOrder":
            _order(one, so)
        elif kind == "Goal":
            _goal(one, so)


def _allergy(one: Json, so: SoFar) -> None:
    words = called(one.get("code"))
    clinical, verified = _status(one, "clinicalStatus"), _status(one, "verificationStatus")
    if clinical & {"inactive", "resolved"} or verified & {"refuted", "entered-in-error"}:
        so.told.append(f"Allergy to {words}: no longer so where it comes from; ask.")
        return
    if words:
        so.chart = replace(so.chart, allergies=(*so.chart.allergies, words))
    else:
        so.told.append("An allergy that does not say to what: ask.")


def _status(one: Json, name: str) -> set[str]:
    return {text_in(row.get("code")) for row in rows_in(object_in(one.get(name)).get("coding"))}


def _order(one: Json, so: SoFar) -> None:
    if one.get("status") not in IN_FORCE:
        so.told.append("An order for nutrition that is no longer in force is not kept.")
        return
    diet = object_in(one.get("oralDiet"))
    if one.get("enteralFormula"):
        so.told.append("Feeding by tube: nothing of it is planned here, and nothing is kept.")
    ordered = one.get("intent") == "order"
    by = text_in(object_in(one.get("orderer")).get("display")) if ordered else ""
    license_of = next(
        (
            text_in(row.get("valueString"))
            for row in rows_in(one.get("extension"))
            if row.get("url") == f"{OWN}:license"
        ),
        "",
    )
    limits = [
        found for row in rows_in(diet.get("nutrient")) if (found := _limit(row, by, license_of, so))
    ]
    textures = [
        words for row in rows_in(diet.get("texture")) if (words := called(row.get("modifier")))
    ]
    kind = next((words for row in rows_in(diet.get("type")) if (words := called(row))), "")
    taken = [dose for row in rows_in(one.get("supplement")) if (dose := _supplement(row, so))]
    so.chart = replace(
        so.chart,
        limits=(*so.chart.limits, *limits),
        textures=(*so.chart.textures, *textures),
        diet=so.chart.diet or kind,
        supplements=(*so.chart.supplements, *taken),
    )


def _limit(row: Json, by: str, license_of: str, so: SoFar) -> Limit | None:
    key = nutrient_named(row.get("modifier"), so)
    if key is None:
        return None
    parts = extension_of(row, "limits")
    low, aim, high = (quantity_in(parts.get(name)) for name in ("low", "aim", "high"))
    if not parts:
        amount = object_in(row.get("amount"))
        aim = number_in(amount.get("value"))
        unit = unit_of(text_in(amount.get("code")) or text_in(amount.get("unit")))
        if aim is None or unit != NUTRIENT[key].unit:
            so.told.append(f"{NUTRIENT[key].name}: its amount is in no unit known here, not kept.")
            return None
    reason = text_in(object_in(parts.get("reason")).get("valueString"))
    return Limit(key=key, low=low, aim=aim, high=high, by=by, license=license_of, reason=reason)


def _supplement(row: Json, so: SoFar) -> Taken | None:
    key = nutrient_named(row.get("type"), so)
    quantity = object_in(row.get("quantity"))
    dose = number_in(quantity.get("value"))
    repeat = object_in(next(iter(rows_in(row.get("schedule"))), {}).get("repeat"))
    times, period = number_in(repeat.get("frequency")), number_in(repeat.get("period"))
    weeks = WEEKS_OF.get(text_in(repeat.get("periodUnit")))
    if key is None or dose is None:
        return None
    unit = unit_of(text_in(quantity.get("code")) or text_in(quantity.get("unit")))
    if unit != NUTRIENT[key].unit or not times or not period or weeks is None:
        so.told.append(
            f"{NUTRIENT[key].name} as a supplement: how much and how often is not clear."
        )
        return None
    return Taken(
        key=key, dose=dose, form=text_in(row.get("productName")), per_week=times * weeks / period
    )


def _goal(one: Json, so: SoFar) -> None:
    if one.get("lifecycleStatus") not in ("proposed", "planned", "accepted", "active", "on-hold"):
        return
    target = next(
        (
            row
            for row in rows_in(one.get("target"))
            if WEIGHT in codes_in(row.get("measure"), LOINC)
        ),
        {},
    )
    quantity = object_in(target.get("detailQuantity"))
    value = number_in(quantity.get("value"))
    unit = unit_of(text_in(quantity.get("code")) or text_in(quantity.get("unit")))
    so.chart = replace(
        so.chart,
        goal=so.chart.goal or text_in(object_in(one.get("description")).get("text")),
        target_kg=value * KG_OF[unit] if value is not None and unit in KG_OF else None,
    )


def nutrient_named(concept: object, so: SoFar) -> str | None:
    """The key of a nutrient by our code; None, and said, for one that is not known."""
    key = next(iter(codes_in(concept, f"{OWN}:nutrient")), "")
    if key in NUTRIENT:
        return key
    so.told.append(f"{called(concept) or 'A nutrient'}: not known here, not kept.")
    return None
