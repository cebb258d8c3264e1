"""Laboratories' files brought into the one table that is read: a FHIR bundle, a table without
headings, one with a column for every value. What is missing stays empty, and is asked about."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from journal.blood.values import OUT_OF_USE, key_named, number_in, places_of, read_range, unit_named
from journal.dates import read_date
from nutrition.formats.csv_cells import SafeWriter
from nutrition.formats.fhir.chart import LabValue
from nutrition.formats.fhir.parts import Asked
from nutrition.formats.fhir.reading import UnreadableBundle, read_bundle
from nutrition.targets.blood import BadValue, analytes

HEADS = ("date", "what", "result", "unit", "low", "high", "lab", "remark")
# So many lines tell which column holds what.
LOOKED_AT = 60
_NUMBER_AND_UNIT = re.compile(r"^([<>≤≥]?\s*\d[\d.,]*)\s*([^\d\s].*)$")
# A heading with its unit: "Potassium (mmol/L)", "potassium [mmol/L]".
_WITH_UNIT = re.compile(r"^(.*?)\s*[\[(]\s*([^\])]+?)\s*[\])]\s*$")


@dataclass(frozen=True)
class AsTable:
    """A text as the table that is read, and what was read of it and what was not, in words."""

    text: str
    told: tuple[str, ...] = ()


def as_table(text: str, today: date) -> AsTable:
    """What a laboratory sent, as a table with the usual headings; a table that has them as it is.
    Raises BadValue for a file that is JSON and no FHIR bundle of one person."""
    given = text.lstrip("\ufeff").strip()
    if given.startswith(("{", "[")):
        return _from_fhir(given)
    rows = _cells_of(given)
    if not rows or _is_plain(rows):
        return AsTable(text)
    heads = [cell.strip().lower() for cell in rows[0]]
    found = _wide(rows, places_of(heads)) or by_content(rows, today)
    return found if found is not None else AsTable(text)


def _is_plain(rows: list[list[str]]) -> bool:
    """Whether a table has the usual headings, a value that is known in every line, and numbers."""
    places = places_of([cell.strip().lower() for cell in rows[0]])
    if not {"date", "what", "result"} <= set(places):
        return False
    filled = [row for row in rows[1:] if any(cell.strip() for cell in row)]
    what = [row[places["what"]] for row in filled if places["what"] < len(row)]
    result = [row[places["result"]] for row in filled if places["result"] < len(row)]
    return all(map(key_named, what)) and not any(split_result(one)[1] for one in result)


def _cells_of(text: str) -> list[list[str]]:
    first = text.splitlines()[0] if text else ""
    mark = max(",;\t", key=first.count)
    try:
        return [row for row in csv.reader(io.StringIO(text), delimiter=mark, strict=True) if row]
    except csv.Error:
        return []


def _written(rows: Sequence[Sequence[object]]) -> str:
    out = io.StringIO()
    writer = SafeWriter(out)
    writer.writerow(HEADS)
    for row in rows:
        writer.writerow(["" if cell is None else cell for cell in row])
    return out.getvalue().replace("\r\n", "\n")


def _number(value: float | None) -> str:
    return "" if value is None else f"{value:.10g}"


def _from_fhir(text: str) -> AsTable:
    try:
        found = read_bundle(text)
    except UnreadableBundle as error:
        raise BadValue(str(error)) from error
    rows = [_of_value(one) for one in found.chart.values]
    of_the_body = [one for one in found.asked if one.key not in analytes()]
    rows += [_of_asked(one) for one in found.asked if one.key in analytes()]
    told = [*found.told, *(f"{one.what}: weigh-ins are kept elsewhere." for one in of_the_body)]
    if found.chart.weights:
        told.append(f"{len(found.chart.weights)} weights: paste them among the weigh-ins.")
    if found.chart.name:
        told.insert(0, f"The file is about {found.chart.name}: is it this client?")
    return AsTable(_written(rows), tuple(told))


def _of_value(one: LabValue) -> list[object]:
    measured = one.measured
    return [
        *(measured.on, measured.key, _number(measured.value), measured.unit),
        *(_number(measured.low), _number(measured.high), one.laboratory, one.remark),
    ]


def _of_asked(one: Asked) -> list[object]:
    return [one.on, one.key, _number(one.value), one.unit, "", "", "", ""]


def _heading(text: str) -> tuple[str, str] | None:
    """The value that a column is of, and its unit where the heading says it."""
    found = _WITH_UNIT.match(text.strip())
    name, unit = (found[1], found[2]) if found else (text, "")
    key = key_named(text) or key_named(name)
    if key is None:
        return None
    return key, unit_named(unit) if unit_named(unit) in analytes()[key].units else ""


def _wide(rows: list[list[str]], places: dict[str, int]) -> AsTable | None:
    """A table with a row for every day and a column for every value; None for another."""
    if "date" not in places:
        return None
    columns = {
        at: found
        for at, head in enumerate(rows[0])
        if at != places["date"] and (found := _heading(head)) is not None
    }
    if not columns or "result" in places:
        return None
    out = []
    for row in rows[1:]:
        on = row[places["date"]] if places["date"] < len(row) else ""
        for at, (key, unit) in columns.items():
            if at < len(row) and row[at].strip():
                out.append([on, key, row[at], unit, "", "", "", ""])
    left = [
        head.strip()
        for at, head in enumerate(rows[0])
        if at not in columns and at != places["date"] and head.strip()
    ]
    told = [f"Nothing is kept of the column{'s' if len(left) > 1 else ''} {', '.join(left)}."]
    return AsTable(_written(out), tuple(told if left else ()))


def by_content(rows: list[list[str]], today: date) -> AsTable | None:
    """A table whose columns are told by what stands in them: without headings, or with others than
    the usual ones. A line of what is not kept here is put out of use and told. None where no
    column holds dates, values or numbers."""
    headed = _kind_of(rows[0], today) is None
    lines = [row for row in (rows[1:] if headed else rows) if any(cell.strip() for cell in row)]
    order = _order_of(rows[0] if headed else [], lines, today)
    if order is None:
        return None
    out, unknown = [], []
    for row in lines:
        cells = {name: row[at].strip() for name, at in order.items() if at < len(row)}
        line = _line_of(cells)
        if key_named(cells.get("what", "")) is None:
            unknown.append(cells.get("what", ""))
            line[0] = f"{OUT_OF_USE} {line[0]}"
        out.append(line)
    names = ", ".join(sorted(order, key=lambda name: order[name]))
    told = [f"Its columns are taken as {names}."]
    if unknown:
        told.append(f"Not kept here: {', '.join(dict.fromkeys(filter(None, unknown)))}.")
    return AsTable(_written(out), tuple(told))


def _line_of(cells: dict[str, str]) -> list[object]:
    """A line with its range in two cells and its unit apart from its number."""
    result, with_it = split_result(cells.get("result", ""))
    unit = cells.get("unit", "") or with_it
    try:
        edges = read_range(_without_unit(cells.get("range", ""), unit))
        low, high = _number(edges[0]), _number(edges[1])
    except BadValue:
        low, high = cells["range"], ""
    return [
        *(cells.get("date", ""), cells.get("what", ""), result, unit),
        *(cells.get("low", "") or low, cells.get("high", "") or high),
        *(cells.get("lab", ""), cells.get("remark", "")),
    ]


def split_result(text: str) -> tuple[str, str]:
    """A number and the unit behind it: "139 mmol/L" is "139" and "mmol/L". A text that is another
    stays as it is."""
    found = _NUMBER_AND_UNIT.match(text.strip())
    if found is None or not _is_unit(found[2]):
        return text, ""
    return found[1], found[2]


def _without_unit(text: str, unit: str) -> str:
    return text[: -len(unit)].strip() if unit and text.endswith(unit) else text


def _is_unit(text: str) -> bool:
    return any(unit_named(text) in one.units for one in analytes().values())


def _kind_of(row: Sequence[str], today: date) -> str | None:
    """Whether a line holds values, and is no heading."""
    there = {_what_of(cell, today) for cell in row if cell.strip()}
    return "values" if "result" in there and len(there) > 1 else None


def _order_of(
    heads: Sequence[str], lines: Sequence[Sequence[str]], today: date
) -> dict[str, int] | None:
    """Which column holds what: by most of what stands in it, and by its heading where that leaves
    two."""
    named = places_of([head.strip().lower() for head in heads])
    width = max((len(row) for row in lines), default=0)
    counts: list[dict[str, int]] = [{} for _ in range(width)]
    for row in lines[:LOOKED_AT]:
        for at, cell in enumerate(row):
            if cell.strip() and (what := _what_of(cell, today)):
                counts[at][what] = counts[at].get(what, 0) + 1
    order: dict[str, int] = {}
    for name in ("what", "date", "result", "unit", "range"):
        by_count = [(counts[at].get(name, 0), named.get(name) == at, -at) for at in range(width)]
        best = max(by_count, default=(0, False, 0))
        if (best[0] or best[1]) and -best[2] not in order.values():
            order[name] = -best[2]
    for name in ("low", "high", "lab", "remark"):
        if name in named and named[name] not in order.values():
            order[name] = named[name]
    return order if {"date", "what", "result"} <= set(order) else None


def _what_of(text: str, today: date) -> str:
    cell = text.strip()
    if number_in(cell) is not None or split_result(cell)[1]:
        return "result"
    if (on := read_date(cell)) is not None and on <= today:
        return "date"
    if key_named(cell) is not None:
        return "what"
    if _is_unit(cell):
        return "unit"
    try:
        read_range(_without_unit(cell, cell.rpartition(" ")[2]) if " " in cell else cell)
    except BadValue:
        return ""
    return "range"
