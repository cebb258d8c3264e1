"""Blood values, pressure and waist of a client: kept, compared, shown beside the intake of what
bears on each."""

# Whole: values kept, compared and shown go by the same rows.

from __future__ import annotations

import csv
import io
import math
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from datetime import date
from typing import Any

from django.db import transaction

from clients.models import BloodValue, Client
from clients.plan.versions import make_version
from journal.dates import read_date
from nutrition.composition.nutrients import NUTRIENT
from nutrition.follow_up.intake import LoggedDay as Known
from nutrition.follow_up.intake import average
from nutrition.formats.fhir.codes import unit_of
from nutrition.targets.blood import (
    Analyte,
    BadValue,
    Measured,
    analytes,
    check_value,
    unit_asked,
)
from nutrition.targets.kidney import egfr_ckd_epi_2021, stage_of
from practice.models import User
from webkit import figures

MOST_ROWS = 400
# What the laboratory is called, and a remark, hold so much. [characters]
LAB, REMARK = 80, 200


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
    said = [None if edge is None else figures.digits(edge, digits) for edge in (low, high)]
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
        amount, span = figures.amount(known.amount, key), figures.span(known.amount, key)
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
    "hemoglobin a1c": "hba1c",
    "haemoglobin a1c": "hba1c",
    "glucose fasting": "glucose",
    "creatinine, serum": "creatinine",
    "potassium, serum": "potassium",
    "serum potassium": "potassium",
    "serum creatinine": "creatinine",
    "vitamin b12": "b12",
    "vit b12": "b12",
    "vitamin d": "vitamin_d",
    "25-hydroxyvitamin d": "vitamin_d",
    "vitamin d, 25-hydroxy": "vitamin_d",
    "ldl cholesterol": "ldl",
    "hdl cholesterol": "hdl",
    "uric acid": "urate",
    "alat": "alt",
    "asat": "ast",
    "gfr": "egfr",
    "egfr": "egfr",
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
    return unit_of(_UNITS.get(text.lower(), text))


def read_table(text: str, today: date) -> Table:
    """A table of values with a row of headings: date, value (what), result, unit, and perhaps low,
    high, lab, remark. Every line that cannot be read is named; none is dropped in silence."""
    out = Table()
    text = text.lstrip("\ufeff")
    if not text.strip():
        out.problems.append((1, "There is nothing to read."))
        return out
    # what stands blank before the heading counts as lines all the same
    before = len(text) - len(text.lstrip())
    skipped = text[:before].count("\n")
    text = text[before:].rstrip()
    first = text.splitlines()[0]
    mark = max(",;\t", key=first.count)
    reader = csv.reader(io.StringIO(text), delimiter=mark, strict=True)
    try:
        heads = [head.strip().lower() for head in next(reader)]
    except csv.Error as error:
        out.problems.append((1, f"It cannot be read as a table: {error}."))
        return out
    places = places_of(heads)
    missing = [name for name in ("date", "what", "result") if name not in places]
    if missing:
        words = f"The first line must name the columns; “{missing[0]}” is missing: {first[:80]}"
        out.problems.append((1, words))
        return out
    unread = [
        head
        for at, head in enumerate(heads)
        if head and at not in places.values() and head not in _PASSED_OVER
    ]
    if unread:
        words = (
            f"Nothing is kept of the column{'s' if len(unread) > 1 else ''} {', '.join(unread)}: "
            f"name {'them' if len(unread) > 1 else 'it'} as one of {', '.join(_HEADS)}, or leave "
            f"{'them' if len(unread) > 1 else 'it'} out."
        )
        out.problems.append((1, words))
    lines: dict[tuple[str, date], int] = {}
    for at, cells in _records(reader, out, skipped):
        if not any(cell.strip() for cell in cells) or cells[0].startswith(OUT_OF_USE):
            continue
        if len(out.rows) >= MOST_ROWS:
            out.problems.append((at, f"More than {MOST_ROWS} lines: give this one apart."))
            continue
        try:
            row = _row(cells, places, mark, today, len(heads))
            first_at = lines.setdefault((row.key, row.date), at)
            if first_at != at:
                raise BadValue(
                    f"A second {analytes()[row.key].name.lower()} of {row.date}: line {first_at} "
                    f"has one, and one of a day is kept. Leave out one of the two."
                )
            out.rows.append(row)
        except BadValue as error:
            out.problems.append((at, str(error)))
    return out


def _records(reader: Any, out: Table, skipped: int) -> Iterator[tuple[int, list[str]]]:
    """The records of a table with the line each begins on, those skipped before it counted; one
    that breaks off is named."""
    begins = reader.line_num + 1 + skipped
    while True:
        try:
            cells = next(reader)
        except StopIteration:
            return
        except csv.Error as error:
            out.problems.append((begins, f"From here it cannot be read as a table: {error}."))
            return
        yield begins, cells
        begins = reader.line_num + 1 + skipped


# A line that begins so is out of use.
OUT_OF_USE = "#"
_HEADS = {
    "date": (
        *("date", "collected", "day", "collection date", "date collected", "collected on"),
        *("specimen date", "sample date", "taken", "drawn", "date of collection", "date taken"),
    ),
    "what": (
        *("what", "test", "analyte", "name", "test name", "component", "parameter", "marker"),
        *("value", "measurement", "observation", "examination"),
    ),
    "result": ("result", "number", "value", "result value", "measured", "your result"),
    "unit": ("unit", "units", "uom", "unit of measure", "result unit"),
    "low": ("low", "from", "range from", "lower"),
    "high": ("high", "to", "range to", "upper"),
    "range": (
        *("range", "reference", "reference range", "ref", "ref range", "ref."),
        *("normal", "normal range", "laboratory range", "lab range", "reference interval"),
    ),
    "lab": ("lab", "laboratory", "performing lab", "performed by"),
    "remark": ("remark", "note", "comment"),
}
# What a laboratory says of a value is found anew here: a column of it is passed over.
_PASSED_OVER = {"flag", "flags", "abnormal", "abnormal flag", "interpretation", "status", "h/l"}


def places_of(heads: Sequence[str]) -> dict[str, int]:
    """Which column holds what, by the headings [small letters]."""
    out: dict[str, int] = {}
    for name, words in _HEADS.items():
        for word in words:
            if word in heads and heads.index(word) not in out.values():
                out[name] = heads.index(word)
                break
    return out


def _row(
    cells: Sequence[str], places: dict[str, int], mark: str, today: date, columns: int
) -> BloodValue:
    if len(cells) > columns:
        raise BadValue(
            f"It has {len(cells)} columns where the heading names {columns}: write a decimal comma "
            f"as a point, or in quotes."
        )

    def cell(name: str) -> str:
        at = places.get(name, -1)
        return cells[at].strip() if 0 <= at < len(cells) else ""

    key = key_named(cell("what"))
    if key is None:
        raise BadValue(f"“{cell('what')[:40]}” is no value that is kept here.")
    if not cell("date"):
        raise BadValue("It has no date: write when it was measured, such as 2026-11-03.")
    on = read_date(cell("date"))
    if on is None:
        raise BadValue(f"“{cell('date')[:20]}” is no date: write 2026-11-03.")
    if on > today:
        raise BadValue(f"{on} has not come yet.")
    value = number_in(cell("result"))
    if value is None:
        raise BadValue(f"“{cell('result')[:20]}” is no number.")
    unit = unit_named(cell("unit")) or analytes()[key].unit
    if not cell("unit") and len(analytes()[key].units) > 1:
        raise BadValue(unit_asked(key, value))
    check_value(key, value, unit)
    low, high = _range(cell("low"), cell("high"), cell("range"))
    for name, most in (("lab", LAB), ("remark", REMARK)):
        if len(cell(name)) > most:
            raise BadValue(f"The {name} has {len(cell(name))} characters, and {most} can be kept.")
    return BloodValue(
        key=key,
        date=on,
        value=value,
        unit=unit,
        low=low,
        high=high,
        laboratory=cell("lab"),
        remark=cell("remark"),
    )


# "3.5-5.1", "3.5 to 5.1", "3,5 – 5,1"
_SPAN = re.compile(r"^\(?\s*([\d.,]+)\s*(?:-|–|—|to|\.\.)\s*([\d.,]+)\s*\)?$", re.I)
_BELOW = re.compile(r"^(?:<|<=|≤|up to|under|below|at most)\s*([\d.,]+)$", re.I)
_ABOVE = re.compile(r"^(?:>|>=|≥|over|above|at least|from)\s*([\d.,]+)$", re.I)


def read_range(text: str) -> tuple[float | None, float | None]:
    """A laboratory's range as it is printed: "3.5-5.1", "< 5.1", "> 60". Raises BadValue."""
    text = " ".join(text.split())
    if not text:
        return None, None
    for shape, at in ((_SPAN, (1, 2)), (_BELOW, (0, 1)), (_ABOVE, (1, 0))):
        found = shape.match(text)
        if found:
            low, high = (number_in(found[one]) if one else None for one in at)
            if (at[0] and low is None) or (at[1] and high is None):
                break
            return low, high
    raise BadValue(f"“{text[:30]}” is no range: write 3.5-5.1, < 5.1 or > 60.")


def _range(low: str, high: str, both: str) -> tuple[float | None, float | None]:
    """The laboratory's range, from one column or two. Raises BadValue for what is neither a number
    nor a range, and for a least above the most."""
    if both and (low or high):
        raise BadValue("The range stands twice: in one column, and as low and high.")
    found: list[float | None] = []
    for name, text in (("low", low), ("high", high)):
        value = number_in(text)
        if text and value is None:
            # a column of low may hold the whole range
            if name == "low" and not high:
                return read_range(text)
            if name == "high" and not low:
                return read_range(text)
            raise BadValue(f"“{text[:20]}” is no number for the range's {name} end.")
        found.append(value)
    least, most = read_range(both) if both else (found[0], found[1])
    if least is not None and most is not None and least > most:
        raise BadValue(f"The range ends ({most:g}) before it begins ({least:g}).")
    return least, most


def number_in(text: str) -> float | None:
    """A finite number, with a decimal point or comma; None for anything else."""
    text = text.strip().replace(",", ".")
    try:
        value = float(text) if text.isascii() else math.nan
    except ValueError:
        return None
    return value if math.isfinite(value) else None
