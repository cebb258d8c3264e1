"""A weigh-in as the follow-up reads it."""

from __future__ import annotations

import re
from dataclasses import KW_ONLY, dataclass
from datetime import date

MORNING, LATER = "morning", "later"


@dataclass(frozen=True)
class Weighed:
    """A weigh-in [kg]: on which day, at what time of it if that is known ("morning", "later"),
    whether dressed, and on which scale."""

    on: date
    kg: float
    _: KW_ONLY
    time: str = ""
    dressed: bool = False
    scale: str = ""


KG_PER_LB, LB_PER_STONE = 0.45359237, 14.0
_WEIGHT = re.compile(
    r"^(\d{1,4}(?:[.,]\d{1,3})?)\s*(kg|kgs|kilos?|kilograms?|lbs?|pounds?|st|stones?)?\.?"
    r"(?:\s*(\d{1,2}(?:[.,]\d)?)\s*(?:lbs?|pounds?)?)?$"
)


def read_weight(text: str) -> float | None:
    """Kilograms in a weight as it is read off a scale, "101.4", "101,4 kg", "223.5 lb", "15 st 13";
    None for what is none. [kg]"""
    found = _WEIGHT.match(text.strip().lower())
    if found is None:
        return None
    value, unit = float(found[1].replace(",", ".")), found[2] or "kg"
    rest = float(found[3].replace(",", ".")) if found[3] else 0.0
    if unit.startswith("st"):
        return round((value * LB_PER_STONE + rest) * KG_PER_LB, 2)
    if rest:
        return None
    return round(value * KG_PER_LB, 2) if unit.startswith(("lb", "pound")) else value
