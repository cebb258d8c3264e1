"""Blood values, pressure and waist: what is known of each, their units, and what the latest of them
means for a plan."""

# Whole: what is known of a value, its units and what it means.

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, fields
from datetime import date
from functools import lru_cache

from pint import UnitRegistry

from nutrition.composition.errors import CoreError
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.tables import BadTable, toml_rows
from nutrition.targets.kidney import STAGES, egfr_ckd_epi_2021, stage_of
from nutrition.targets.person import Person

# The same by another name: of these ions a mole is an equivalent.
_SAME = {"mEq/L": "mmol/L", "µIU/mL": "mIU/L", "mL/min": "mL/min/1.73 m²"}
# Of an ion with two charges an equivalent is half a mole; a katal is a mole a second.
_TWO_CHARGES = ("magnesium", "calcium")
_UNITS_PER_MICROKATAL = 60.0
# How the table says that a range is open at an end.
OPEN_END = -1.0


class BadValue(CoreError):
    """A value that cannot be, or whose unit is not known."""


@dataclass(frozen=True, kw_only=True)
class Analyte:
    """Something that is measured; the head of data/blood_values.toml says what each field is."""

    key: str
    name: str
    unit: str
    others: tuple[str, ...]
    decimals: Mapping[str, int]
    possible: tuple[float, float]
    usual: tuple[float | None, float | None]
    bears: tuple[str, ...]
    holds_days: int
    source: str
    molar_g: float = 0.0

    @property
    def units(self) -> tuple[str, ...]:
        return (self.unit, *self.others)


@lru_cache(maxsize=1)
def analytes() -> dict[str, Analyte]:
    """All of them by key, in the order of the data. Raises BadTable."""
    known = [one.name for one in fields(Analyte) if one.name != "key"]
    needed = [name for name in known if name != "molar_g"]
    out = {}
    for key, row in toml_rows("blood_values.toml", known, needed).items():
        units = (row["unit"], *row["others"])
        for name in row["bears"]:
            if name not in NUTRIENT:
                raise BadTable(f"blood_values.toml, {key}: there is no nutrient “{name}”", "bears")
        if set(row["decimals"]) != set(units):
            raise BadTable(f"blood_values.toml, {key}: decimals of each unit", "decimals")
        low, high = (None if one == OPEN_END else float(one) for one in row["usual"])
        more = {
            "others": tuple(row["others"]),
            "bears": tuple(row["bears"]),
            "possible": (float(row["possible"][0]), float(row["possible"][1])),
            "usual": (low, high),
        }
        out[key] = Analyte(key=key, **row | more)
    return out


@lru_cache(maxsize=1)
def _registry() -> UnitRegistry[float]:
    return UnitRegistry()


def convert(key: str, value: float, unit: str, to: str) -> float:
    """A value of an analyte in another of its units.

    Raises BadValue for a unit that is not one of its. References: HbA1c by the master equation of
    the NGSP and the IFCC, % = 0.09148 mmol/mol + 2.152; amounts of substance by the molar mass.
    """
    one = analytes()[key]
    for name in (unit, to):
        if name not in one.units:
            raise BadValue(f"{one.name} is not measured in {name}: {', '.join(one.units)}.", "unit")
    if key in _TWO_CHARGES and "mEq/L" in (unit, to) and unit != to:
        if unit == "mEq/L":
            return convert(key, value / 2.0, "mmol/L", to)
        return convert(key, value, unit, "mmol/L") * 2.0
    if _SAME.get(unit, unit) == _SAME.get(to, to):
        return value
    if {unit, to} == {"U/L", "µkat/L"}:
        return value * _UNITS_PER_MICROKATAL if to == "U/L" else value / _UNITS_PER_MICROKATAL
    if key == "hba1c":
        return 0.09148 * value + 2.152 if to == "%" else (value - 2.152) / 0.09148
    if key == "albuminuria":
        per_mmol = analytes()["creatinine"].molar_g / 1000.0
        return value * per_mmol if to == "mg/mmol" else value / per_mmol
    registry = _registry()
    from_, into = registry.Quantity(value, unit), registry.Unit(to)
    if from_.check("[substance] / [length] ** 3") and not into.is_compatible_with(from_.units):
        from_ = from_ * registry.Quantity(one.molar_g, "g/mol")
    elif from_.check("[mass] / [length] ** 3") and not into.is_compatible_with(from_.units):
        from_ = from_ / registry.Quantity(one.molar_g, "g/mol")
    return float(from_.to(into).magnitude)


def check_value(key: str, value: float, unit: str) -> None:
    """Raises BadValue for what nobody has, naming the unit it would fit if there is one."""
    if key not in analytes():
        raise BadValue(f"There is no value called “{key}” here.", "key")
    one = analytes()[key]
    low, high = one.possible
    if math.isfinite(value) and low <= convert(key, value, unit, one.unit) <= high:
        return
    fitting = [
        other
        for other in one.units
        if math.isfinite(value)
        and _SAME.get(other, other) != _SAME.get(unit, unit)
        and low <= convert(key, value, other, one.unit) <= high
    ]
    words = f"{one.name} {value:g} {unit} is not possible"
    if fitting:
        raise BadValue(f"{words}. Is it {value:g} {fitting[0]}? Choose that unit.", "unit")
    bounds = [show_number(key, convert(key, edge, one.unit, unit), unit) for edge in (low, high)]
    raise BadValue(f"{words}: give {bounds[0]} to {bounds[1]} {unit}.", "value")


def likely_units(key: str, value: float) -> list[str]:
    """The units of an analyte in which a value is possible, that in which it lies nearest to its
    usual range first. Common practice, no source."""
    one = analytes()[key]
    low, high = one.possible
    found = []
    for unit in one.units:
        compared = convert(key, value, unit, one.unit) if math.isfinite(value) else math.nan
        if low <= compared <= high:
            found.append((_off_usual(one, compared), unit))
    return [unit for _off, unit in sorted(found, key=lambda row: row[0])]


def unit_asked(key: str, value: float) -> str:
    """What is asked where no unit was given: the units that the value's size fits first."""
    units = likely_units(key, value)
    shown = [f"{value:g} {unit}" for unit in units[:2]]
    which = f"is it {' or '.join(shown)}?"
    if not shown:
        which = f"one of {', '.join(analytes()[key].units)}."
    return f"{analytes()[key].name} {value:g} needs its unit: {which}"


def _off_usual(one: Analyte, compared: float) -> float:
    """How far a value is from its usual range, as the logarithm of how many times."""
    low, high = one.usual
    if high is not None and compared > high > 0:
        return math.log(compared / high)
    if low is not None and 0 < compared < low:
        return math.log(low / compared)
    return 0.0 if compared > 0 else math.inf


def show_number(key: str, value: float, unit: str) -> str:
    """A value with the decimals of its unit."""
    return f"{value:,.{analytes()[key].decimals[unit]}f}"


@dataclass(frozen=True, kw_only=True)
class Measured:
    """A value as it was measured, with the laboratory's own range in the same unit, where it is
    known."""

    key: str
    value: float
    unit: str
    on: date
    low: float | None = None
    high: float | None = None

    @property
    def analyte(self) -> Analyte:
        return analytes()[self.key]

    @property
    def compared(self) -> float:
        """In the unit that is compared in."""
        return convert(self.key, self.value, self.unit, self.analyte.unit)

    @property
    def range(self) -> tuple[float | None, float | None]:
        """The laboratory's own range, or else the usual one, in the unit that is compared in."""
        own = (self.low, self.high)
        if own != (None, None):
            into = self.analyte.unit
            low, high = (
                None if edge is None else convert(self.key, edge, self.unit, into) for edge in own
            )
            return low, high
        return self.analyte.usual

    @property
    def standing(self) -> str:
        """ "over", "under" or "inside" its range; empty where there is none."""
        low, high = self.range
        if low is None and high is None:
            return ""
        if high is not None and self.compared > high + 1e-9:
            return "over"
        return "under" if low is not None and self.compared < low - 1e-9 else "inside"

    def in_unit(self, unit: str) -> str:
        """ "5.6 mmol/L" """
        value = convert(self.key, self.value, self.unit, unit)
        return f"{show_number(self.key, value, unit)} {unit}".removesuffix(" INR")

    def age_days(self, today: date) -> int:
        return (today - self.on).days

    def fresh(self, today: date) -> bool:
        """Whether it is recent enough to go by."""
        return 0 <= self.age_days(today) <= self.analyte.holds_days

    def without_age(self, today: date) -> str:
        """ "potassium 5.6 mmol/L on Nov 3" """
        name = self.analyte.name
        if name[1:] == name[1:].lower():
            name = name.lower()
        year = f" {self.on.year}" if self.on.year != today.year else ""
        return f"{name} {self.in_unit(self.unit)} on {self.on:%b} {self.on.day}{year}"

    def words(self, today: date) -> str:
        """ "potassium 5.6 mmol/L on Nov 3, 23 days ago" """
        age = self.age_days(today)
        ago = "today" if age == 0 else "yesterday" if age == 1 else f"{age} days ago"
        return f"{self.without_age(today)}, {ago}"


def latest(values: Iterable[Measured]) -> dict[str, Measured]:
    """The newest value of each kind."""
    return {one.key: one for one in sorted(values, key=lambda one: one.on)}


# A value out of range -> the condition whose numbers then hold. KDOQI Nutrition in CKD 2020 asks to
# adjust the diet to these values, and gives no number of its own.
_IMPLIES = (
    ("potassium", "over", "high_potassium_blood"),
    ("phosphate", "over", "high_phosphate_blood"),
    ("bicarbonate", "under", "low_bicarbonate_blood"),
)
# A diet that is held to its phosphate needs kidneys that do not let it go.
_ONLY_WITH_KIDNEYS = ("high_phosphate_blood", "low_bicarbonate_blood")


def implied_by(
    values: Mapping[str, Measured], conditions: Iterable[str], today: date
) -> dict[str, str]:
    """The conditions that the latest values stand for, each with the value in words; nothing for a
    value too old to go by."""
    kidneys = any("ckd" in one or "dialysis" in one or "kidney" in one for one in conditions)
    out = {}
    for key, standing, code in _IMPLIES:
        one = values.get(key)
        if one is None or not one.fresh(today) or one.standing != standing:
            continue
        if kidneys or code not in _ONLY_WITH_KIDNEYS:
            out[code] = one.without_age(today)
    return out


# Under this hemoglobin is anemia [g/dL]; World Health Organization (2011), from memory.
_ANEMIA = {"female": 12.0, "male": 13.0, "pregnant": 11.0}
# B12 that does not settle it [pg/mL], and the INR that is usual on warfarin. From memory.
_UNCERTAIN_B12, _USUAL_INR = (200.0, 300.0), (2.0, 3.0)
# What laboratories call about: calcium and magnesium [mg/dL]. Usual critical values, from memory.
_CRITICAL = {"calcium": (7.0, 13.0), "magnesium": (1.0, 4.9)}
# The upper end of ALT and AST that is usual. [U/L]
_LIVER_MOST = 40.0
# Upper and lower pressure of a crisis, and of high blood pressure. [mmHg] American Heart
# Association (2017), from memory.
_CRISIS, _HIGH = (180.0, 120.0), (140.0, 90.0)


def blood_numbers(values: Mapping[str, Measured], person: Person, today: date) -> dict[str, float]:
    """What the cautions look at: each fresh value in the unit that is compared in, its age [d], and
    whether it is over or under its range; what is too old as its age alone; and what only several
    values together, or the person, tell."""
    out: dict[str, float] = {}
    for key, one in values.items():
        if one.age_days(today) < 0:
            continue
        out[f"blood_{key}_days"] = float(one.age_days(today))
        out[f"blood_{key}_old"] = float(not one.fresh(today))
        if one.fresh(today):
            out[f"blood_{key}"] = one.compared
            out[f"blood_{key}_over"] = float(one.standing == "over")
            out[f"blood_{key}_under"] = float(one.standing == "under")
    rate = filtration(values, person, today)
    if rate is not None:
        out["blood_egfr"] = rate
        out["blood_stage_apart"] = float(stage_apart(rate, person.conditions))
    return out | _together(out, person)


def _rated_by(values: Mapping[str, Measured], today: date) -> Measured | None:
    """What tells how the kidneys filter: the newest fresh one of a printed rate and creatinine."""
    rows = [values[key] for key in ("creatinine", "egfr") if key in values]
    return max((one for one in rows if one.fresh(today)), key=lambda one: one.on, default=None)


def filtration(values: Mapping[str, Measured], person: Person, today: date) -> float | None:
    """How the kidneys filter, as it was printed or from creatinine; None where neither is fresh.
    [mL/min/1.73 m^2] References: Inker et al. (2021)."""
    found = _rated_by(values, today)
    if found is None or (found.key == "creatinine" and person.age_years < 18):
        return None
    if found.key == "egfr":
        return found.compared
    return egfr_ckd_epi_2021(found.compared, person.age_years, person.sex)


def _together(known: Mapping[str, float], person: Person) -> dict[str, float]:
    """What only several values together, or the person, tell."""
    out = {}
    if "blood_hemoglobin" in known:
        least = _ANEMIA["pregnant" if person.pregnant else person.sex]
        out["blood_anemia"] = float(known["blood_hemoglobin"] < least)
    low, high = _UNCERTAIN_B12
    b12 = known.get("blood_b12")
    raised = known.get("blood_mma_over", 0.0) or known.get("blood_homocysteine_over", 0.0)
    between = b12 is not None and low <= b12 < high
    out["blood_b12_uncertain"] = float(bool((raised or between) and (b12 is None or b12 >= low)))
    out["blood_thyroid"] = max(known.get("blood_tsh_over", 0.0), known.get("blood_tsh_under", 0.0))
    for key in ("sodium", "calcium", "magnesium"):
        off = known.get(f"blood_{key}_over", 0.0), known.get(f"blood_{key}_under", 0.0)
        out[f"blood_{key}_off"] = max(off)
    for key, (least, most) in _CRITICAL.items():
        value = known.get(f"blood_{key}")
        if value is not None:
            out[f"blood_{key}_danger"] = float(value < least or value > most)
    liver = [known[f"blood_{key}"] for key in ("alt", "ast") if f"blood_{key}" in known]
    if liver:
        out["blood_liver_times"] = max(liver) / _LIVER_MOST
    if "blood_inr" in known:
        out["blood_inr_off"] = float(not _USUAL_INR[0] <= known["blood_inr"] <= _USUAL_INR[1])
    pressure = known.get("blood_systolic", 0.0), known.get("blood_diastolic", 0.0)
    for name, lines in (("crisis", _CRISIS), ("high", _HIGH)):
        over = any(one >= line for one, line in zip(pressure, lines, strict=True))
        out[f"blood_pressure_{name}"] = float(over)
    return out


# Values that are said together, by the name of the two.
_SAID_TOGETHER = {
    "liver": ("alt", "ast"),
    "pressure": ("systolic", "diastolic"),
    "b12_or_mma": ("b12", "mma", "homocysteine"),
}


def blood_words(
    values: Mapping[str, Measured], numbers: Mapping[str, float], today: date
) -> dict[str, str]:
    """The latest values in words, by the name that a caution's text has for each: `said_` with the
    age, `about_` without, which tells one value from the next."""
    out = {f"said_{key}": one.words(today) for key, one in values.items()}
    out |= {f"about_{key}": one.without_age(today) for key, one in values.items()}
    for name, keys in _SAID_TOGETHER.items():
        there = [values[key] for key in keys if key in values and values[key].fresh(today)]
        out[f"said_{name}"] = "; ".join(one.words(today) for one in there)
        out[f"about_{name}"] = "; ".join(one.without_age(today) for one in there)
    if "blood_egfr" in numbers:
        rate, found = numbers["blood_egfr"], _rated_by(values, today)
        if found is not None and found.key == "creatinine":
            out["said_egfr"] = (
                f"eGFR {rate:.0f} mL/min/1.73 m² (CKD-EPI 2021), stage {stage_of(rate)} by the "
                f"rate alone, from {found.words(today)}"
            )
            out["about_egfr"] = out["about_creatinine"]
        elif found is not None:
            out["said_egfr"] = f"{found.words(today)}, stage {stage_of(rate)} by the rate alone"
    return {name: f"{said[:1].upper()}{said[1:]}" for name, said in out.items()}


_STAGE_CODES = {"ckd_1": "1", "ckd_2": "2", "ckd_3a": "3a", "ckd_3b": "3b", "ckd_4": "4"}


def stage_apart(egfr: float, conditions: Iterable[str]) -> int:
    """By how many stages a rate is worse than the stage on record; less than zero for better, zero
    where none is on record, or on dialysis. [mL/min/1.73 m^2]"""
    order = [stage for _least, stage in STAGES] + ["5"]
    have = set(conditions)
    recorded = [stage for code, stage in _STAGE_CODES.items() if code in have]
    if not recorded or any("dialysis" in one for one in have):
        return 0
    return order.index(stage_of(egfr)) - max(order.index(one) for one in recorded)
