"""What is known of a client, as it travels to other programs and comes from them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date

from nutrition.composition.profile import Amount
from nutrition.targets.blood import Measured


@dataclass(frozen=True, kw_only=True)
class Weight:
    """A weight on a day. [kg]"""

    on: date
    kg: float


@dataclass(frozen=True, kw_only=True)
class LabValue:
    """A value that was measured, where, and what was remarked."""

    measured: Measured
    laboratory: str = ""
    remark: str = ""


@dataclass(frozen=True, kw_only=True)
class Limit:
    """What a day is to bring of a nutrient, in its unit. `by` and `license` are of the clinician
    who ordered it, empty for one that nobody ordered."""

    key: str
    low: float | None = None
    aim: float | None = None
    high: float | None = None
    by: str = ""
    license: str = ""
    reason: str = ""


@dataclass(frozen=True, kw_only=True)
class Taken:
    """A supplement: a dose of one nutrient in its unit, its form, how often."""

    key: str
    dose: float
    form: str = ""
    per_week: float = 7.0


@dataclass(frozen=True, kw_only=True)
class Intake:
    """What was eaten on a day: each nutrient with its range and what is unknown of it, and the
    foods in words. `whole`: that was all of the day."""

    on: date
    whole: bool
    amounts: Mapping[str, Amount] = field(default_factory=dict)
    foods: tuple[str, ...] = ()


@dataclass(frozen=True, kw_only=True)
class Chart:
    """All of it. `identifier` names the client for good. `textures` are those of the food, `diet`
    is what they eat in words. `goal` is in words; `target_kg` with it where there is one."""

    identifier: str = ""
    name: str = ""
    sex: str = ""
    birth_date: date | None = None
    birth_year: int | None = None
    height_cm: float | None = None
    measured_on: date | None = None
    weights: tuple[Weight, ...] = ()
    values: tuple[LabValue, ...] = ()
    allergies: tuple[str, ...] = ()
    textures: tuple[str, ...] = ()
    diet: str = ""
    goal: str = ""
    target_kg: float | None = None
    limits: tuple[Limit, ...] = ()
    supplements: tuple[Taken, ...] = ()
    intakes: tuple[Intake, ...] = ()
