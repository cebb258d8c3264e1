"""A database opened and looked through: whether it is whole, and whose it is."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from django.db import connection
from django.db.migrations.loader import MigrationLoader


class NotWhole(Exception):
    """A database that cannot be relied on; the message says why."""


@dataclass(frozen=True)
class Looked:
    """What was seen in a database that is whole."""

    practices: int
    clients: int
    entries: int

    @property
    def words(self) -> str:
        return f"{self.practices} practices, {self.clients} clients, {self.entries} entries"


def _whole(execute: Callable[[str], Any], name: str) -> None:
    """Raises NotWhole for a database whose pages are damaged, or whose rows point to nothing."""
    found = execute("PRAGMA integrity_check(5)").fetchall()
    if [row[0] for row in found] != ["ok"]:
        raise NotWhole(f"{name} is damaged: {found[0][0]}")
    loose = execute("PRAGMA foreign_key_check").fetchall()
    if loose:
        raise NotWhole(f"{name} has {len(loose)} rows that point to nothing")


def look(path: Path) -> Looked:
    """Read all of a database, page by page and row by row. Raises NotWhole."""
    try:
        with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True)) as there:
            _whole(there.execute, path.name)
            return Looked(
                *(
                    there.execute(f"SELECT count(*) FROM {table}").fetchone()[0]
                    for table in ("practice_practice", "clients_client", "record_entry")
                )
            )
    except sqlite3.DatabaseError as error:
        raise NotWhole(f"{path.name} is no database of ours: {error}") from None


def look_at_the_live_one() -> None:
    """Look through the database that is in use. Raises NotWhole."""
    with connection.cursor() as cursor:
        _whole(cursor.execute, "The database")


def newer_than_this(path: Path) -> list[str]:
    """The steps of a database that this version does not know: it was written by a newer one."""
    steps = MigrationLoader(None).disk_migrations
    # also those that were put together into one
    known = {*steps, *(old for step in steps.values() for old in step.replaces)}
    ours = {app for app, _name in steps}
    with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True)) as there:
        rows = there.execute("SELECT app, name FROM django_migrations").fetchall()
    return sorted(f"{app}.{name}" for app, name in rows if app in ours and (app, name) not in known)
