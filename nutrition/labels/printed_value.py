"""A value as it is printed on a package: "8 g", "<1 g", "20 %", "1,5", "1500 kJ"."""

from __future__ import annotations

import re

from nutrition.composition.errors import CoreError
from nutrition.composition.label_units import KJ_PER_KCAL, SALT_PER_SODIUM
from nutrition.composition.nutrients import NUTRIENT
from nutrition.labels.rounding import (
    Printed,
    hidden_by,
    hidden_by_less_than,
    hidden_by_percent,
    hidden_in_europe,
    label_values,
)
from nutrition.written import units

KIND_WORDS = {
    "us": "per serving; carbohydrate with its fiber (US, Canada)",
    "europe": "per 100 g; carbohydrate without fiber; salt (Europe, UK)",
    "australia": "per 100 g; carbohydrate without fiber; sodium (Australia, New Zealand)",
    "india": "per 100 g; carbohydrate with its fiber (India)",
}
EUROPE, WITHOUT_FIBER = "europe", ("europe", "australia")
_VALUE = re.compile(
    r"^(?P<less><|less than|under|trace)?\s*(?P<n>\d+(?:[.,]\d+)?|\.\d+)?\s*"
    r"(?P<unit>%|kcal|cal|kj|g|mg|mcg|µg|μg|ug|iu|mg ne|mcg dfe|mcg rae|mg salt|g salt)?"
    r"\s*(?:dv|daily value|dfe|rae|ne|nrv)?\.?$",
    re.I,
)
# Vitamin D and A by the unit: from memory of the labeling rules. [µg]
_IU = {"vitamin_d_ug": 0.025, "vitamin_a_rae_ug": 0.3}
MOST = 100_000.0
# A value so far from a step of its rule was not printed by that rule. [steps]
OFF_STEP = 0.02


class Unreadable(CoreError):
    """A value that is not one; the message says what is."""


def read_printed(key: str, text: str, kind: str = "us") -> Printed:
    """The value that is printed, with the range that its rounding hides, in the key's unit; of
    what, the `kind` of label says (a key of KIND_WORDS). Raises Unreadable."""
    found = _VALUE.match(text.strip().replace("\u2009", " "))
    if found is None or not (found["n"] or (found["less"] or "").lower() == "trace"):
        raise Unreadable(f"“{text.strip()[:30]}” is no value: write it as printed, such as 8 g.")
    typed = value = float((found["n"] or "0.5").replace(",", "."))
    own = NUTRIENT[key].unit
    unit = (found["unit"] or "").lower().split(" ")[0]
    unit = {"mcg": "µg", "ug": "µg", "μg": "µg", "cal": "kcal"}.get(unit, unit)
    if value > MOST:
        raise Unreadable("That is more than a package holds: look again.")
    if unit == "%":
        if label_values()[key].daily_value is None or kind != "us":
            raise Unreadable("Copy the amount, not the percentage.")
        return hidden_by_percent(key, value)
    value = _in_own_unit(key, value, unit, own, kind)
    if found["less"]:
        return hidden_by_less_than(value)
    hidden = hidden_by(key, value) if kind == "us" else hidden_in_europe(key, value)
    steps = (2 * (hidden.high - value), 2 * (value - hidden.low))
    if value > 0 and all(step > 0 and _between_steps(value, step) for step in steps):
        # printed finer than the rule asks: as far as its figures go
        half = value / typed * 0.5 * 10.0 ** -len(found["n"].replace(",", ".").partition(".")[2])
        return Printed(value, max(value - half, 0.0), value + half)
    return hidden


def _between_steps(value: float, step: float) -> bool:
    return abs(value / step - round(value / step)) > OFF_STEP


def _in_own_unit(key: str, value: float, unit: str, own: str, kind: str) -> float:
    if key == "sodium_mg" and kind == EUROPE and unit in ("", "g"):
        # printed as salt
        return value / SALT_PER_SODIUM * 1000.0
    if not unit or unit == own:
        return value
    if key == "energy_kcal" and unit == "kj":
        return value / KJ_PER_KCAL
    if unit == "iu" and key in _IU:
        return value * _IU[key]
    per_unit, per_own = units.grams(unit), units.grams(own)
    if per_unit is None or per_own is None:
        raise Unreadable(f"{NUTRIENT[key].name} is printed in {own}.")
    return value * per_unit / per_own
