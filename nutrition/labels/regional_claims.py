"""Claims by the laws that go by 100 g, 100 mL, the energy or a serving, rather than by the daily
value of a serving: Europe, Australia and New Zealand, India."""

from __future__ import annotations

import re
import tomllib
from collections.abc import Iterator, Mapping
from functools import lru_cache
from typing import Any

from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.tables import DATA
from nutrition.labels.label import ReadLabel
from nutrition.labels.rounding import Printed
from nutrition.labels.verdicts import FAILS, HOLDS, OPEN
from nutrition.written.wording import uncapitalized

AMOUNTS = (
    *("per_100", "per_100_ml", "least_100", "least_100_kcal", "least_energy_percent"),
    "least_serving",
)
BY_NUTRIENT = frozenset({"nutrient", "reference", "reference_serving"})
BY_REGION = (*AMOUNTS, "reference", "reference_serving")
# Fiber and protein have rules of their own where a law goes by 100 g.
OF_THEIR_OWN = ("fiber_g", "protein_g")
_POURED = re.compile(r"ml\b|milliliter", re.I)
_KCAL_PER_G = {"protein_g": 4.0}


@lru_cache(maxsize=1)
def references() -> dict[str, dict[str, float]]:
    """The reference values of a day by region and nutrient. [each key's unit]"""
    return tomllib.loads((DATA / "label_references.toml").read_text(encoding="utf-8"))


def is_drink(read: ReadLabel) -> bool:
    """Whether the label is of something poured, per 100 mL."""
    return _POURED.search(read.label.serving_size) is not None


def by_region(row: Mapping[str, Any], key: str, read: ReadLabel) -> Iterator[tuple[str, str]]:
    """What the limits of a rule find on a label."""
    drink = is_drink(read)
    most = row.get("per_100_ml" if drink and "per_100_ml" in row else "per_100", {})
    for name, number in most.items():
        yield _at_most(
            name, float(number), read.per_100_g.get(name), "100 mL" if drink else "100 g"
        )
    if "least_100" in row:
        yield _either(row, read)
    for name, number in row.get("least_energy_percent", {}).items():
        yield _of_energy(name, float(number), read)
    for name, number in row.get("least_serving", {}).items():
        yield _at_least(name, float(number), read.per_serving.get(name), "a serving")
    if key and "reference" in row:
        yield _of_reference(key, float(row["reference"]) * (0.5 if drink else 1.0), read, drink)
    if key and "reference_serving" in row:
        yield _of_reference(key, float(row["reference_serving"]), read, drink, serving=True)


def _said(name: str, one: Printed, base: str) -> str:
    unit = NUTRIENT[name].unit
    return f"{one.amount:.3g} {unit} {uncapitalized(NUTRIENT[name].name)} in {base}"


def _missing(name: str) -> tuple[str, str]:
    return OPEN, f"the label's {uncapitalized(NUTRIENT[name].name)} is not entered"


def _at_most(name: str, number: float, one: Printed | None, base: str) -> tuple[str, str]:
    if one is None:
        return _missing(name)
    said = f"{_said(name, one, base)}; at most {number:g} {NUTRIENT[name].unit}"
    if one.amount <= number + 1e-9:
        return HOLDS, said
    if one.low <= number:
        return OPEN, f"{said}: what is printed may hide either"
    return FAILS, said


def _at_least(name: str, number: float, one: Printed | None, base: str) -> tuple[str, str]:
    if one is None:
        return _missing(name)
    said = f"{_said(name, one, base)}; it takes {number:g} {NUTRIENT[name].unit}"
    if one.amount >= number - 1e-9:
        return HOLDS, said
    if one.high >= number:
        return OPEN, f"{said}: what is printed may hide either"
    return FAILS, said


def _either(row: Mapping[str, Any], read: ReadLabel) -> tuple[str, str]:
    """At least so much in 100 g, or else in 100 kcal."""
    ((name, number),) = row["least_100"].items()
    first = _at_least(name, float(number), read.per_100_g.get(name), "100 g")
    other = row.get("least_100_kcal", {}).get(name)
    kcal, one = read.per_100_g.get("energy_kcal"), read.per_100_g.get(name)
    if first[0] == HOLDS or other is None or kcal is None or one is None or kcal.amount <= 0:
        return first
    by_energy = one.times(100.0 / kcal.amount)
    second = _at_least(name, float(other), by_energy, "100 kcal")
    order = (HOLDS, OPEN, FAILS)
    return min(first, second, key=lambda found: order.index(found[0]))


def _of_energy(name: str, number: float, read: ReadLabel) -> tuple[str, str]:
    one, kcal = read.per_100_g.get(name), read.per_100_g.get("energy_kcal")
    if one is None or kcal is None or kcal.amount <= 0:
        return _missing(name)
    share = one.amount * _KCAL_PER_G[name] / kcal.amount * 100.0
    what = uncapitalized(NUTRIENT[name].name)
    said = f"{share:.0f} % of its energy is {what}; it takes {number:g} %"
    return (HOLDS if share >= number - 1e-9 else FAILS), said


def _of_reference(
    key: str, percent: float, read: ReadLabel, drink: bool, serving: bool = False
) -> tuple[str, str]:
    day = references().get(read.label.kind, {}).get(key)
    one = (read.per_serving if serving else read.per_100_g).get(key)
    if day is None or one is None:
        return _missing(key)
    base = "a serving" if serving else "100 mL" if drink else "100 g"
    has = one.amount / day * 100.0
    said = (
        f"{has:.0f} % of the reference value of {uncapitalized(NUTRIENT[key].name)} in {base}; it "
        f"takes {percent:g} %"
    )
    return (HOLDS if has >= percent - 1e-9 else FAILS), said
