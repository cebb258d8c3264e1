"""Who read what: kept in a file as it happens, so that reading takes no lock and waits for nobody,
and put into the record in batches."""

from __future__ import annotations

import fcntl
import json
import logging
import os
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path

from django.conf import settings
from django.db import transaction
from django.utils import timezone

from record import chain, json_lines
from record.models import Entry

log = logging.getLogger(__name__)
NAME = "now.jsonl"
# When, in which practice, who, what they did, at which address, of which client.
Row = tuple[float, int, int | None, str, str, int | None]


def _folder() -> Path:
    path = Path(settings.VAR_DIR) / "reads"
    path.mkdir(mode=0o700, parents=True, exist_ok=True)
    return path


@contextmanager
def _open_now() -> Iterator[int]:
    """The file that is written to, held against being taken away meanwhile."""
    path = _folder() / NAME
    while True:
        there = os.open(path, os.O_WRONLY | os.O_APPEND | os.O_CREAT, 0o600)
        try:
            fcntl.flock(there, fcntl.LOCK_SH)
            try:
                same = os.fstat(there).st_ino == path.stat().st_ino
            except FileNotFoundError:
                same = False
            if same:
                yield there
                return
        finally:
            os.close(there)


def note(practice: int, who: int | None, act: str, what: str, client: int | None) -> bool:
    """Somebody looked at an address, by its name: nothing of what stood there. Whether it could be
    written down; a page is shown all the same, and the failure logged."""
    row = [timezone.now().timestamp(), practice, who, act, what, client]
    try:
        with _open_now() as there:
            os.write(there, (json.dumps(row) + "\n").encode())
    except OSError:
        log.exception("what was read could not be written down")
        return False
    return True


def fold() -> int:
    """Put what was noted into the record; how many entries came of it. A file is put in once, also
    where this was interrupted between the record and the file's end."""
    folder = _folder()
    now = folder / NAME
    if now.exists() and now.stat().st_size:
        now.rename(folder / f"batch-{timezone.now():%Y%m%dT%H%M%S%f}-{os.getpid()}.jsonl")
    return sum(_put_in(path) for path in sorted(folder.glob("batch-*.jsonl")))


def _put_in(path: Path) -> int:
    try:
        there = os.open(path, os.O_RDONLY)
    except FileNotFoundError:
        # somebody else put it in
        return 0
    try:
        fcntl.flock(there, fcntl.LOCK_EX)
        with os.fdopen(os.dup(there), encoding="utf-8") as lines:
            rows: list[Row] = list(json_lines.parsed(lines))
        deed = path.stem[-40:]
        with transaction.atomic():
            count = 0
            if not Entry.objects.filter(deed=deed).exists():
                count = _write(rows, deed)
        path.unlink(missing_ok=True)
    finally:
        os.close(there)
    return count


def _write(rows: list[Row], deed: str) -> int:
    """An entry for each person, client, act and address, with how often, since when and until
    when."""
    found: dict[tuple[int, int | None, str, str, int | None], list[float]] = {}
    for at, practice, who, act, what, client in rows:
        found.setdefault((practice, who, act, what, client), []).append(at)
    for (practice, who, act, what, client), times in sorted(
        found.items(), key=lambda one: min(one[1])
    ):
        first, last = (datetime.fromtimestamp(one, UTC) for one in (min(times), max(times)))
        contents = {"times": len(times), "from": first.isoformat(), "until": last.isoformat()}
        chain.write(
            act,
            what,
            client=client,
            contents=contents,
            at=last,
            practice=practice,
            who=who,
            deed=deed,
        )
    return len(found)
