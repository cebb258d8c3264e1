"""What tests hold a second time, written out in tables beside them."""

import csv
from pathlib import Path


def rows_of(path: Path) -> list[list[str]]:
    """The rows of a table with tabs, without its head."""
    with path.open(newline="", encoding="utf-8") as file:
        return list(csv.reader(file, delimiter="\t"))[1:]
