"""Cells of CSV that no spreadsheet takes for a formula, and back again.

References: RFC 4180; OWASP, CSV Injection.
"""

from __future__ import annotations

import csv
import re
from collections.abc import Iterable
from typing import Any

# What a spreadsheet takes for the beginning of a formula.
_BEGINS = re.compile(r"'*[=+\-@\t\r]")
_NUMBER = re.compile(r"[+-]?\d+(?:[.,]\d+)?")


def safe_cell(value: object) -> object:
    """A cell that is shown as it is: text that begins like a formula stands behind an apostrophe,
    numbers stay."""
    if not isinstance(value, str) or not _BEGINS.match(value) or _NUMBER.fullmatch(value):
        return value
    return f"'{value}"


def plain_cell(text: str) -> str:
    """The text of a cell that `safe_cell` made."""
    return text[1:] if text.startswith("'") and _BEGINS.match(text) else text


class SafeWriter:
    """Writes rows of cells that no spreadsheet takes for a formula."""

    def __init__(self, out: Any) -> None:
        self._writer = csv.writer(out, lineterminator="\r\n")

    def writerow(self, cells: Iterable[object]) -> None:
        """One row."""
        self._writer.writerow([safe_cell(cell) for cell in cells])
