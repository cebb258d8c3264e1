"""A backup put back: opened and checked in a place of its own, then in one step where the database
was; what was there is kept."""

from __future__ import annotations

import os
import sqlite3
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC
from pathlib import Path

from django.core.management import call_command
from django.db import connections
from django.utils import timezone

from record import heads
from rights.erasing import erase_again, take_list
from running import backing_up, checking, holding, places
from running.backing_up import STAMP, NoBackup


@dataclass(frozen=True)
class PutBack:
    """What was put back, where what was there is kept, and how many were erased again."""

    words: str
    before: Path | None
    erased: int


def put_back(backup: Path, given: Path | None = None) -> PutBack:
    """Put a backup in the place of the database. Raises NoBackup or Held, and then nothing was
    changed."""
    path = places.database()
    path.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    with holding.nobody_else(), backing_up.opened(backup, path.parent, given) as (fresh, looked):
        newer = checking.newer_than_this(fresh)
        if newer:
            raise NoBackup(
                f"{backup.name} was written by a newer version ({newer[-1]}): put back the program "
                "first."
            )
        before = _keep(path)
        places.settle(fresh)
        # one step: there is one whole database or the other, at every moment
        fresh.replace(path)
        places.settle(path.parent)
        connections.close_all()
        call_command("migrate", verbosity=0)
        heads.begin_anew()
        take_list(backup.parent)
        erased = erase_again()
        heads.note()
        connections.close_all()
    return PutBack(looked.words, before, erased)


def _keep(path: Path) -> Path | None:
    """What is there, kept beside it under another name as well; None where nothing was."""
    if not path.exists() or not path.stat().st_size:
        path.unlink(missing_ok=True)
        return None
    connections.close_all()
    _fold_log(path)
    stamp = timezone.now().astimezone(UTC).strftime(STAMP)
    kept = path.with_name(f"{path.name}.before-{stamp}")
    os.link(path, kept)
    return kept


def _fold_log(path: Path) -> None:
    """Everything into the one file: what lies beside it must not be taken for the new one's."""
    try:
        with closing(sqlite3.connect(path, timeout=10)) as there:
            there.execute("PRAGMA wal_checkpoint(TRUNCATE)")
            there.execute("PRAGMA journal_mode=DELETE")
    except sqlite3.DatabaseError:
        # it is damaged, which is why it is put back: it is kept as it is, with its log
        for one in places.beside(path):
            if one.exists():
                one.replace(one.with_name(f"{one.name}.before"))
    for one in places.beside(path):
        one.unlink(missing_ok=True)
