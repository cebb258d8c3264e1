"""Blood values, pressure and waist of a client: kept, compared, shown beside the intake of what
bears on each."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import date

from django.db import transaction

from clients.models import BloodValue, Client
from clients.versions import make_version
from journal.dates import read_date
from nutrition.composition.nutrients import NUTRIENT
from nutrition.follow_up.eaten import LoggedDay as Known
from nutrition.follow_up.eaten import average
from nutrition.targets.blood import Analyte, BadValue, Measured, analytes, check_value
from nutrition.targets.kidney import egfr_ckd_epi_2021, stage_of
from practice.models import User
from roundpantry import show

MOST_ROWS = 400


@dataclass(frozen=True, kw_only=True)
class Shown:
    """The latest value of a kind as it is shown: in both units, with its standing and age, what it
    was before, and what of the intake bears on it."""

    row: BloodValue
    measured: Measured
    said: str
    other: str
    standing: str
    range_words: str
    fresh: bool
    age: int
    before: list[Measured] = field(default_factory=list)
    more: str = ""

    @property
    def analyte(self) -> Analyte:
        return self.measured.analyte

    @property
    def moved(self) -> str:
        """How it moved since the value before, in words."""
        if not self.before:
            return ""
        was = self.before[-1]
        return f"{was.in_unit(was.unit)} on {was.on:%b} {was.on.day}"


def range_words(one: Measured) -> str:
    """ "3.5 to 5.0" in the unit that is compared in, or in that it was measured in."""
    low, high = one.range
    key, unit = one.key, one.analyte.unit
    if (one.low, one.high) != (None, None):
        low, high, unit = one.low, one.high, one.unit
    digits = one.analyte.decimals[unit]
    said = [None if edge is None else show.digits(edge, digits) for edge in (low, high)]
    whose = "laboratory" if (one.low, one.high) != (None, None) else "usual"
    if said[0] and said[1]:
        return f"{whose} {said[0]} to {said[1]} {unit}"
    if said[1]:
        return f"{whose}: at most {said[1]} {unit}"
    return f"{whose}: at least {said[0]} {unit}" if said[0] else _its_own(key)


def _its_own(key: str) -> str:
    return "its clinic sets the range" if key == "inr" else ""


def latest_rows(client: Client, today: date) -> list[Shown]:
    """The latest value of each kind until a day, in the order of the table."""
    rows = [row for row in client.blood_values.filter(date__lte=today) if row.key in analytes()]
    person = client.person()
    out = []
    for key in analytes():
        mine = [row for row in rows if row.key == key]
        if not mine:
            continue
        values = [row.measured() for row in mine]
        last, one = mine[-1], values[-1]
        others = [unit for unit in one.analyte.units if unit != one.unit]
        more = ""
        if key == "creatinine" and person.age_years >= 18:
            rate = egfr_ckd_epi_2021(one.compared, person.age_years, person.sex)
            more = f"eGFR {rate:.0f} mL/min/1.73 m² (CKD-EPI 2021), stage {stage_of(rate)} by rate"
        out.append(
            Shown(
                row=last,
                measured=one,
                said=one.in_unit(one.unit),
                other=one.in_unit(others[0]) if others else "",
                standing=one.standing,
                range_words=range_words(one),
                fresh=one.fresh(today),
                age=one.age_days(today),
                before=values[:-1],
                more=more,
            )
        )
    return out


def bearing(shown: Shown, logged: Sequence[Known]) -> list[str]:
    """What was eaten on average of what bears on a value, in words."""
    out = []
    for key in shown.analyte.bears:
        known = average(logged, key)
        if known is None:
            continue
        one = NUTRIENT[key]
        amount, span = show.amount(known.amount, key), show.span(known.amount, key)
        said = f"{one.name} {amount}{f' ({span})' if span else ''}"
        out.append(f"{said}, {known.days} days")
    return out


def keep(client: Client, rows: Sequence[BloodValue], by: User) -> tuple[int, bool]:
    """Keep values, each in place of one of its kind and day; how many, and whether the targets
    changed by them."""
    with transaction.atomic():
        for row in rows:
            for there in client.blood_values.filter(key=row.key, date=row.date):
                there.remove(by)
            row.client, row.by = client, by
            row.save()
        client.__dict__.pop("fetched_blood", None)
        said = ", ".join(client.found_in_blood().values())
        why = (
            f"Blood values: {said}"
            if said
            else "Blood values: none out of range that sets a target"
        )
        made = make_version(client, by, why)
    return len(rows), made is not None


@dataclass
class Table:
    """A table of values as it was read: rows to keep, and what is wrong, by line."""

    rows: list[BloodValue] = field(default_factory=list)
    problems: list[tuple[int, str]] = field(default_factory=list)


_NAMES = {
    "k": "potassium",
    "phosphorus": "phosphate",
    "co2": "bicarbonate",
    "hco3": "bicarbonate",
    "acr": "albuminuria",
    "uacr": "albuminuria",
    "albumin/creatinine": "albuminuria",
    "a1c": "hba1c",
    "fasting glucose": "glucose",
    "ldl": "ldl",
    "ldl-c": "ldl",
    "hdl-c": "hdl",
    "tg": "triglycerides",
    "hb": "hemoglobin",
    "hgb": "hemoglobin",
    "haemoglobin": "hemoglobin",
    "cobalamin": "b12",
    "methylmalonic acid": "mma",
    "hcy": "homocysteine",
    "25-oh vitamin d": "vitamin_d",
    "25(oh)d": "vitamin_d",
    "25-oh-d": "vitamin_d",
    "sbp": "systolic",
    "dbp": "diastolic",
}
_UNITS = {
    "meq/l": "mEq/L",
    "mmol/l": "mmol/L",
    "umol/l": "µmol/L",
    "μmol/l": "µmol/L",
    "µmol/l": "µmol/L",
    "ug/l": "µg/L",
    "μg/l": "µg/L",
    "mg/dl": "mg/dL",
    "g/dl": "g/dL",
    "g/l": "g/L",
    "ng/ml": "ng/mL",
    "pg/ml": "pg/mL",
    "pmol/l": "pmol/L",
    "nmol/l": "nmol/L",
    "miu/l": "mIU/L",
    "mu/l": "mIU/L",
    "uiu/ml": "µIU/mL",
    "mmhg": "mmHg",
    "kpa": "kPa",
    "inch": "in",
    "inches": "in",
}


def key_named(text: str) -> str | None:
    """The key of an analyte by its name, its key or a usual short form; None for none."""
    words = " ".join(text.lower().replace("_", " ").split())
    if words in _NAMES:
        return _NAMES[words]
    for key, one in analytes().items():
        if words in (key, key.replace("_", " "), one.name.lower()):
            return key
    return None


def unit_named(text: str) -> str:
    """A unit as the table writes it."""
    text = text.strip().replace("μ", "µ")
    return _UNITS.get(text.lower(), text)


def read_table(text: str, today: date) -> Table:
    """A table of values with a row of headings: date, value (what), result, unit, and perhaps low,
    high, lab, remark. Every line that cannot be read is named; none is dropped in silence."""
    out = Table()
    text = text.lstrip("\ufeff").strip()
    if not text:
        out.problems.append((1, "There is nothing to read."))
        return out
    first = text.splitlines()[0]
    mark = max(",;\t", key=first.count)
    reader = csv.reader(io.StringIO(text), delimiter=mark)
    heads = [head.strip().lower() for head in next(reader)]
    places = _places(heads)
    missing = [name for name in ("date", "what", "result") if name not in places]
    if missing:
        words = f"The first line must name the columns; “{missing[0]}” is missing: {first[:80]}"
        out.problems.append((1, words))
        return out
    for at, cells in enumerate(reader, 2):
        if not any(cell.strip() for cell in cells):
            continue
        if len(out.rows) >= MOST_ROWS:
            out.problems.append((at, f"More than {MOST_ROWS} lines: give the rest apart."))
            break
        try:
            out.rows.append(_row(cells, places, mark, today))
        except BadValue as error:
            out.problems.append((at, str(error)))
    return out


_HEADS = {
    "date": ("date", "collected", "day"),
    "what": ("what", "test", "analyte", "name", "value", "measurement"),
    "result": ("result", "number", "value"),
    "unit": ("unit", "units"),
    "low": ("low", "from", "range from", "lower"),
    "high": ("high", "to", "range to", "upper"),
    "lab": ("lab", "laboratory"),
    "remark": ("remark", "note", "comment"),
}


def _places(heads: Sequence[str]) -> dict[str, int]:
    out: dict[str, int] = {}
    for name, words in _HEADS.items():
        for word in words:
            if word in heads and heads.index(word) not in out.values():
                out[name] = heads.index(word)
                break
    return out


def _row(cells: Sequence[str], places: dict[str, int], mark: str, today: date) -> BloodValue:
    def cell(name: str) -> str:
        at = places.get(name, -1)
        return cells[at].strip() if 0 <= at < len(cells) else ""

    key = key_named(cell("what"))
    if key is None:
        raise BadValue(f"“{cell('what')[:40]}” is no value that is kept here.")
    on = read_date(cell("date"))
    if on is None:
        raise BadValue(f"“{cell('date')[:20]}” is no date: write 2026-11-03.")
    if on > today:
        raise BadValue(f"{on} has not come yet.")
    unit = unit_named(cell("unit")) or analytes()[key].unit
    if not cell("unit") and len(analytes()[key].units) > 1:
        raise BadValue(
            f"{analytes()[key].name} needs its unit: {', '.join(analytes()[key].units)}."
        )
    value = _number(cell("result"), mark)
    if value is None:
        raise BadValue(f"“{cell('result')[:20]}” is no number.")
    check_value(key, value, unit)
    return BloodValue(
        key=key,
        date=on,
        value=value,
        unit=unit,
        low=_number(cell("low"), mark),
        high=_number(cell("high"), mark),
        laboratory=cell("lab")[:80],
        remark=cell("remark")[:200],
    )


def _number(text: str, mark: str) -> float | None:
    text = text.strip()
    if mark != ",":
        text = text.replace(",", ".")
    try:
        return float(text)
    except ValueError:
        return None
