"""Files beside the database with a JSON object a line: added to, and read although a line was cut
off."""

from __future__ import annotations

import json
import logging
import os
from collections.abc import Iterable, Iterator
from pathlib import Path
from typing import Any

log = logging.getLogger(__name__)


def append(path: Path, *rows: Any) -> None:
    """Add rows, and return when they are on the disk; the file is its user's alone."""
    there = os.open(path, os.O_WRONLY | os.O_APPEND | os.O_CREAT, 0o600)
    try:
        os.write(there, "".join(f"{json.dumps(row)}\n" for row in rows).encode())
        os.fsync(there)
    finally:
        os.close(there)


def parsed(lines: Iterable[str]) -> Iterator[Any]:
    """What stands in each line; one that was cut off was never whole."""
    for line in lines:
        try:
            yield json.loads(line)
        except ValueError:
            continue


def rows_in(path: Path) -> list[Any]:
    """What stands in a file; nothing in one that is not there."""
    if not path.exists():
        return []
    lines = path.read_text(encoding="utf-8", errors="replace").splitlines()
    rows = list(parsed(lines))
    if len(rows) < len(lines):
        log.warning("%s has lines that cannot be read", path.name)
    return rows
