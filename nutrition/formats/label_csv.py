"""Labels as CSV: a row a package, as it was copied.

References: RFC 4180.
"""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from nutrition.composition.errors import CoreError
from nutrition.formats.csv_cells import SafeWriter, plain_cell
from nutrition.labels.label import Label
from nutrition.labels.rounding import label_values
from nutrition.written.pasted_recipe import printable

FIELDS = ("name", "kind", "serving", "serving_size", "servings", "like", "ingredients", "claims")
NEEDED = ("name", "serving_size", "energy_kcal", "protein_g")
MOST_ROWS = 2000
MOST_CELL = 4000


class UnreadableLabels(CoreError):
    """A file that holds no labels; the message says why."""


@dataclass(frozen=True)
class Given:
    """A row of the file: the line it stands on, and the label it gives."""

    line: int
    label: Label


def label_csv_columns() -> tuple[str, ...]:
    """The columns, in their order."""
    return (*FIELDS, *label_values())


def labels_to_csv(labels: Iterable[Label]) -> str:
    """A row for every label, as it was typed."""
    out = io.StringIO()
    writer = SafeWriter(out)
    writer.writerow(label_csv_columns())
    for label in labels:
        writer.writerow(
            [
                *(getattr(label, name) for name in FIELDS),
                *(label.printed.get(key, "") for key in label_values()),
            ]
        )
    return out.getvalue()


def read_labels(text: str) -> list[Given]:
    """The labels of a file with at least the columns name, serving_size, energy_kcal and protein_g;
    other columns are left out. Raises UnreadableLabels."""
    text = text.removeprefix("\ufeff")
    first = text.partition("\n")[0]
    mark = max(",;\t", key=first.count)
    reader = csv.DictReader(io.StringIO(text, newline=""), delimiter=mark, strict=True)
    try:
        heads = [head.strip().lower() for head in reader.fieldnames or ()]
        missing = [name for name in NEEDED if name not in heads]
        if missing:
            raise UnreadableLabels(f"its first row names no {', '.join(missing)}")
        reader.fieldnames = heads
        out = list(_rows(reader))
    except csv.Error as error:
        raise UnreadableLabels(f"line {reader.line_num} cannot be read: {error}") from None
    if len(out) > MOST_ROWS:
        raise UnreadableLabels(f"it has more than {MOST_ROWS} rows")
    if not out:
        raise UnreadableLabels("it has no row below its first")
    return out


def _rows(reader: csv.DictReader[str]) -> Iterator[Given]:
    begins = reader.line_num + 1
    for row in reader:
        at, begins = begins, reader.line_num + 1
        if row.pop(None, None):
            raise UnreadableLabels(
                f"line {at} has more cells than the first row names: put what holds a comma in "
                f"quotes"
            )
        cells = {head: plain_cell(printable(cell or "").strip()) for head, cell in row.items()}
        if not any(cells.values()):
            continue
        longest = max(cells, key=lambda head: len(cells[head]))
        if len(cells[longest]) > MOST_CELL:
            raise UnreadableLabels(
                f"line {at}, {longest}: it has {len(cells[longest]):,} characters, and "
                f"{MOST_CELL:,} can be kept"
            )
        yield Given(
            at,
            Label(
                name=cells.get("name", ""),
                kind=cells.get("kind") or "us",
                serving=cells.get("serving", ""),
                serving_size=cells.get("serving_size", ""),
                servings=cells.get("servings", ""),
                like=cells.get("like", ""),
                ingredients=cells.get("ingredients", ""),
                claims=cells.get("claims", ""),
                printed={key: cells[key] for key in label_values() if cells.get(key)},
            ),
        )
