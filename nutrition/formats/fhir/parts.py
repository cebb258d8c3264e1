"""What stands in a FHIR resource, taken with care: a file may hold anything."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Any

from nutrition.formats.fhir.chart import Chart
from nutrition.formats.fhir.codes import OWN

Json = Mapping[str, Any]
# No file of a client has more. [resources, characters]
MOST_RESOURCES, MOST_SIZE = 5_000, 5_000_000


@dataclass(frozen=True, kw_only=True)
class Asked:
    """A value that lacks something: what it is of, as it stands, what is `missing` ("unit" or
    "date"), and the units it could be in, the likeliest first."""

    what: str
    key: str
    text: str
    missing: str
    value: float
    unit: str = ""
    on: date | None = None
    units: tuple[str, ...] = ()


@dataclass
class SoFar:
    """What is found while a bundle is read."""

    chart: Chart = field(default_factory=Chart)
    told: list[str] = field(default_factory=list)
    asked: list[Asked] = field(default_factory=list)


def rows_in(value: object) -> list[Json]:
    return [one for one in value if isinstance(one, dict)] if isinstance(value, list) else []


def object_in(value: object) -> Json:
    return value if isinstance(value, dict) else {}


def text_in(value: object) -> str:
    return " ".join(value.split()) if isinstance(value, str) else ""


def date_in(text: str) -> date | None:
    """The day of a date or a moment; None for none, and for a month or a year alone."""
    try:
        return datetime.fromisoformat(text).date() if len(text) >= 10 else None
    except ValueError:
        return None


def codes_in(concept: object, system: str) -> list[str]:
    rows = rows_in(object_in(concept).get("coding"))
    return [text_in(row.get("code")) for row in rows if row.get("system") == system]


def called(concept: object) -> str:
    """What a concept is called."""
    found = object_in(concept)
    displays = [text_in(row.get("display")) for row in rows_in(found.get("coding"))]
    codes = [text_in(row.get("code")) for row in rows_in(found.get("coding"))]
    return next((word for word in (text_in(found.get("text")), *displays, *codes) if word), "")


def number_in(value: object) -> float | None:
    if isinstance(value, bool) or not isinstance(value, int | float):
        return None
    return float(value) if math.isfinite(value) else None


def extension_of(one: Json, url: str) -> dict[str, Json]:
    """The parts of one of our extensions by name."""
    for row in rows_in(one.get("extension")):
        if row.get("url") == f"{OWN}:{url}":
            return {text_in(part.get("url")): part for part in rows_in(row.get("extension"))}
    return {}


def quantity_in(part: Json | None) -> float | None:
    return number_in(object_in(object_in(part).get("valueQuantity")).get("value"))


def subject_of(one: Json) -> str:
    who = object_in(one.get("subject") or one.get("patient"))
    return text_in(who.get("reference"))
