"""A school's copy as a form of rows, and the rows back as a school's data."""

from __future__ import annotations

from typing import Any

from django.http import QueryDict

from nutrition.targets.adjustments import BadRow
from nutrition.targets.schools import read_school
from webkit.request_values import key_in, number_in

# section: its columns. The first column empty means the row was taken out or never filled.
SECTIONS: dict[str, tuple[str, ...]] = {
    "targets": ("key", "per", "low", "aim", "high", "reason", "source"),
    "foods": ("class", "stance", "reason", "source"),
    "plate": ("part", "classes", "share", "reason", "source"),
    "habits": ("name", "classes", "least_g", "most_g", "reason", "source"),
    "meals": ("name", "what"),
}
NUMBERS = {"low", "aim", "high", "share", "least_g", "most_g"}
PACE = ("lose", "near_kg", "near", "gain", "muscle", "reason", "source")
PACE_NUMBERS = {"lose", "near_kg", "near", "gain", "muscle"}
WORDS = ("name", "leads", "typical_day", "starch_reason")


def _split(text: str) -> list[str]:
    return [word.strip() for word in text.split(",") if word.strip()]


def _cell(column: str, text: str) -> Any:
    if column == "classes":
        return _split(text)
    if column in NUMBERS or column in PACE_NUMBERS:
        value = number_in(text)
        # what is no number is kept as typed: reading it back says what is wrong
        return text.strip() if value is None else value
    return text.strip()


def from_post(post: QueryDict, before: dict[str, Any]) -> dict[str, Any]:
    """The data of a school from the form, laid over what it was. What cannot be a number stays as
    it was typed."""
    data = dict(before) | {name: post.get(name, "").strip() for name in WORDS}
    data["watched"] = post.getlist("watched")
    data["starch_order"] = _split(post.get("starch_order", ""))
    for section, columns in SECTIONS.items():
        cells = {column: post.getlist(f"{section}-{column}") for column in columns}
        kept = post.getlist(f"{section}-was")
        rows = []
        for i, first in enumerate(cells[columns[0]]):
            if not first.strip():
                continue
            was = _was(before[section], kept[i] if i < len(kept) else "")
            row = {
                column: _cell(column, values[i])
                for column, values in cells.items()
                if i < len(values)
            }
            rows.append(was | {column: value for column, value in row.items() if value != ""})
        data[section] = rows
    pace = {column: _cell(column, post.get(f"pace-{column}", "")) for column in PACE}
    data["pace"] = {column: value for column, value in pace.items() if value != ""}
    return data


def _was(rows: list[dict[str, Any]], index: str) -> dict[str, Any]:
    """What a row carried besides the columns shown: that it replaces, that it is void with another
    condition."""
    at = key_in(index)
    if at is None or at >= len(rows):
        return {}
    return {
        name: value
        for name, value in rows[at].items()
        if name in ("replaces", "with", "without", "priority")
    }


def problems(code: str, data: dict[str, Any]) -> dict[str, str]:
    """What is wrong, by section; empty when the school can be used."""
    out = {}
    for name in WORDS[:2]:
        if not data[name]:
            out[name] = "This is needed."
    bare = data | {"plate": [], "targets": [], "foods": [], "habits": []}
    # a pace that cannot be is told by itself, below
    usual_pace = {"reason": "", "source": ""}
    for section in ("targets", "foods", "plate", "habits"):
        try:
            read_school(code, bare | {"pace": usual_pace, section: data[section]})
        except BadRow as error:
            out[section] = f"{str(error)[0].upper()}{str(error)[1:]}."
    try:
        read_school(code, bare)
    except BadRow as error:
        out["pace"] = f"{str(error)[0].upper()}{str(error)[1:]}."
    return out


def differing(theirs: dict[str, Any], mine: dict[str, Any]) -> list[tuple[str, str, str]]:
    """What of a school is stored otherwise than it was sent: the section, the rows that are only
    stored, those that were only sent."""
    out = []
    for name in dict.fromkeys([*theirs, *mine]):
        one, other = theirs.get(name), mine.get(name)
        if one == other:
            continue
        if isinstance(one, list) and isinstance(other, list):
            one, other = (
                [row for row in one if row not in other],
                [row for row in other if row not in one],
            )
        out.append((name.replace("_", " "), _said(one), _said(other)))
    return out


def _said(value: Any) -> str:
    if isinstance(value, dict):
        return ", ".join(
            f"{name} {_said(one)}"
            for name, one in value.items()
            if name not in ("reason", "source")
        )
    return "; ".join(_said(row) for row in value) if isinstance(value, list) else str(value)


def rows_of(data: dict[str, Any]) -> dict[str, list[tuple[int, dict[str, Any]]]]:
    """The rows of each section for the form, numbered, with an empty one at the end."""
    out = {}
    for section in SECTIONS:
        rows = [dict(row) for row in data[section]]
        for row in rows:
            if "classes" in row:
                row["classes"] = ", ".join(row["classes"])
        out[section] = [*enumerate(rows), (len(rows), {})]
    return out
