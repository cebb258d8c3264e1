"""Tables of the data folder, row by row. A column or key that nothing reads is refused: in a rule
of safety a misspelt word would be a rule that never fires."""

from __future__ import annotations

import csv
import tomllib
from collections.abc import Collection, Iterator, Mapping
from pathlib import Path
from typing import Any

from nutrition.composition.errors import CoreError

DATA = Path(__file__).resolve().parents[1] / "data"


class BadTable(CoreError):
    """A table of the data folder that cannot be used."""


def only(row: Mapping[str, Any], known: Collection[str], where: str) -> None:
    """Raises BadTable for a key that nothing reads. `where` names the row."""
    unknown = sorted(set(row) - set(known))
    if unknown:
        raise BadTable(f"{where}: nothing reads {', '.join(unknown)}", unknown[0])


def needs(row: Mapping[str, Any], names: Collection[str], where: str) -> None:
    """Raises BadTable for a key that is missing. `where` names the row."""
    missing = sorted(set(names) - set(row))
    if missing:
        raise BadTable(f"{where}: lacks {', '.join(missing)}", missing[0])


def toml_rows(name: str, known: Collection[str], needed: Collection[str]) -> dict[str, Any]:
    """The rows of a TOML table by their code. Raises BadTable naming row and key."""
    rows = tomllib.loads((DATA / name).read_text(encoding="utf-8"))
    for code, row in rows.items():
        if not isinstance(row, dict):
            raise BadTable(f"{name}, {code}: is no row", code)
        only(row, known, f"{name}, {code}")
        needs(row, needed, f"{name}, {code}")
    return rows


def csv_rows(
    name: str, columns: Collection[str], more: Collection[str] = ()
) -> Iterator[dict[str, str]]:
    """The rows of a CSV table, which has these columns, and may have `more`. Raises BadTable."""
    with (DATA / name).open(newline="", encoding="utf-8") as file:
        reader = csv.DictReader(file)
        heads = reader.fieldnames or ()
        only(dict.fromkeys(heads), {*columns, *more}, name)
        needs(dict.fromkeys(heads), columns, name)
        for row in reader:
            if None in row or None in row.values():
                raise BadTable(f"{name}, line {reader.line_num}: not as many cells as columns")
            yield row


def word_list(name: str) -> list[str]:
    """The lines of a list of words that are no remark."""
    lines = (DATA / name).read_text(encoding="utf-8").splitlines()
    return [line.strip() for line in lines if line.strip() and not line.startswith("#")]
