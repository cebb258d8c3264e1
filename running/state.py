"""How an installation stands: what its owners, and whoever watches it, should know in time."""

from __future__ import annotations

import shutil
from collections import Counter
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any

from django.conf import settings
from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.db.utils import DatabaseError
from django.utils import timezone

from jobs.models import Chore
from record import json_lines
from running import backing_up, places
from running.backing_up import Backup

# A backup is due each night: without one for so long something is wrong.
BACKUP_AGE = timedelta(hours=36)
# The worker does something every minute: silent for so long it is not there.
WORKER_SILENT = timedelta(minutes=10)
# Below so much, and below so many times the database, the disk is soon full. [bytes]
LEAST_FREE, FREE_OF_DATABASE = 500_000_000, 3
# The errors of so many days are shown.
ERROR_DAYS = 14


@dataclass(frozen=True, kw_only=True)
class State:
    """What stands where, and `wrong`: each thing that wants doing, in a sentence."""

    database_bytes: int
    free_bytes: int
    backups: list[Backup]
    chores: list[Chore]
    errors: list[dict[str, Any]]
    wrong: list[str]

    @property
    def last_backup(self) -> Backup | None:
        return self.backups[0] if self.backups else None


def disk(path: Path) -> tuple[int, int]:
    """What the database takes, and what is free where it lies. [bytes]"""
    takes = sum(one.stat().st_size for one in (path, *places.beside(path)) if one.exists())
    return takes, shutil.disk_usage(path.parent).free


def disk_is_short(takes: int, free: int) -> bool:
    return free < max(LEAST_FREE, FREE_OF_DATABASE * takes)


def errors_since(since: datetime) -> list[dict[str, Any]]:
    """The errors of the log, the newest first."""
    out = []
    for path in sorted(Path(settings.VAR_DIR).glob("errors.jsonl*"), reverse=True):
        for row in json_lines.rows_in(path):
            try:
                row["at"] = datetime.strptime(row["at"], "%Y-%m-%dT%H:%M:%S%z")
            except (ValueError, KeyError, TypeError):
                continue
            if row["at"] >= since:
                out.append({"route": "", "of": "", "error": "", "said": ""} | row)
    return sorted(out, key=lambda row: row["at"], reverse=True)


def by_day(errors: list[dict[str, Any]]) -> list[tuple[str, int]]:
    """How many errors there were on each day, the newest first."""
    days = Counter(f"{timezone.localtime(row['at']):%Y-%m-%d}" for row in errors)
    return sorted(days.items(), reverse=True)


def now() -> State:
    """How it stands."""
    takes, free = disk(places.database())
    backups, chores = backing_up.all_in(), list(Chore.objects.order_by("name"))
    errors = errors_since(timezone.now() - timedelta(days=ERROR_DAYS))
    wrong = [*_of_backups(backups), *_of_chores(chores)]
    if disk_is_short(takes, free):
        wrong.append(
            f"{free / 1e6:,.0f} MB are free on the disk of the database: make room, or nothing can "
            "be saved and no backup made."
        )
    return State(
        database_bytes=takes,
        free_bytes=free,
        backups=backups,
        chores=chores,
        errors=errors,
        wrong=wrong,
    )


def _of_backups(backups: list[Backup]) -> list[str]:
    at = timezone.now()
    if not backups:
        return ["There is no backup yet: bin/backup makes one, and the worker one each night."]
    if any(one.made > at + timedelta(hours=1) for one in backups):
        return ["A backup is of a time that is still to come: was the clock set back?"]
    if at - backups[0].made > BACKUP_AGE:
        hours = (at - backups[0].made) / timedelta(hours=1)
        return [f"The last backup is {hours:.0f} hours old: does the worker run?"]
    return []


def _of_chores(chores: list[Chore]) -> list[str]:
    out = [f"{one.name}: {one.said}" for one in chores if not one.well]
    if not worker_is_there(chores):
        out.append(
            "The worker is silent: searches wait, and no backup is made. Start bin/manage work."
        )
    return out


def worker_is_there(chores: list[Chore]) -> bool:
    newest = max((one.last for one in chores), default=None)
    return newest is not None and abs(timezone.now() - newest) < WORKER_SILENT


def ready() -> dict[str, bool]:
    """Whether it can serve: the database is there and in step, there is room to write. Nothing that
    says more than that."""
    out = {"database": False, "in_step": False, "room": False}
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1 FROM practice_practice LIMIT 1").fetchall()
        out["database"] = True
        executor = MigrationExecutor(connection)
        out["in_step"] = not executor.migration_plan(executor.loader.graph.leaf_nodes())
        out["room"] = not disk_is_short(*disk(places.database()))
    except (DatabaseError, OSError):
        pass
    return out
