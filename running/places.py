"""Where an installation keeps what: the database, and what lies beside it, all of it its user's
alone."""

from __future__ import annotations

import os
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

from django.conf import settings


def database() -> Path:
    return Path(str(settings.DATABASES["default"]["NAME"]))


def backups() -> Path:
    """The folder of the backups, made where it is not there."""
    path = Path(os.environ.get("ROUNDPANTRY_BACKUPS") or Path(settings.VAR_DIR) / "backups")
    path.mkdir(mode=0o700, parents=True, exist_ok=True)
    return path


def beside(path: Path) -> list[Path]:
    """What SQLite lays beside a database while it is open."""
    return [path.with_name(f"{path.name}{end}") for end in ("-wal", "-shm")]


def settle(path: Path) -> None:
    """Until this returns a file, or a folder's list, may be lost with the power."""
    there = os.open(path, os.O_RDONLY)
    try:
        os.fsync(there)
    finally:
        os.close(there)


@contextmanager
def private() -> Iterator[None]:
    """What is made within this is its user's alone."""
    before = os.umask(0o077)
    try:
        yield
    finally:
        os.umask(before)


def whole_or_not(path: Path, write: Callable[[Path], object]) -> None:
    """A file that is there whole, or not at all, however this is interrupted."""
    part = path.with_name(f".{path.name}.part")
    try:
        with private():
            write(part)
        settle(part)
        part.replace(path)
        settle(path.parent)
    finally:
        part.unlink(missing_ok=True)
