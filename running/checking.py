"""A database opened and looked through: whether it is whole, and whose it is."""

from __future__ import annotations

import sqlite3
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path

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


def look(path: Path) -> Looked:
    """Read all of a database, page by page and row by row. Raises NotWhole."""
    try:
        with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True)) as there:
            found = there.execute("PRAGMA integrity_check(5)").fetchall()
            if found != [("ok",)]:
                raise NotWhole(f"{path.name} is damaged: {found[0][0]}")
            loose = there.execute("PRAGMA foreign_key_check").fetchall()
            if loose:
                raise NotWhole(f"{path.name} has {len(loose)} rows that point to nothing")
            return Looked(
                *(
                    there.execute(f"SELECT count(*) FROM {table}").fetchone()[0]
                    for table in ("practice_practice", "clients_client", "record_entry")
                )
            )
    except sqlite3.DatabaseError as error:
        raise NotWhole(f"{path.name} is no database of ours: {error}") from None


def newer_than_this(path: Path) -> list[str]:
    """The steps of a database that this version does not know: it was written by a newer one."""
    known = {f"{app}.{name}" for app, name in MigrationLoader(None).disk_migrations}
    with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True)) as there:
        rows = there.execute("SELECT app, name FROM django_migrations").fetchall()
    ours = {name.split(".")[0] for name in known}
    done = {f"{app}.{name}" for app, name in rows if app in ours}
    return sorted(done - known - _replaced())


def _replaced() -> set[str]:
    """Steps that were put together into one."""
    out: set[str] = set()
    for migration in MigrationLoader(None).disk_migrations.values():
        out |= {f"{app}.{name}" for app, name in migration.replaces}
    return out


def of_the_live_one() -> str:
    """Look through the database that is in use: what was seen, in words. Raises NotWhole."""
    with connection.cursor() as cursor:
        found = cursor.execute("PRAGMA integrity_check(5)").fetchall()
        if [row[0] for row in found] != ["ok"]:
            raise NotWhole(f"The database is damaged: {found[0][0]}")
        loose = cursor.execute("PRAGMA foreign_key_check").fetchall()
        if loose:
            raise NotWhole(f"{len(loose)} rows of the database point to nothing")
    return "whole"
