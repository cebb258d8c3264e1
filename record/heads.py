"""The ends of the chains as they were at earlier checks and backups, kept beside the database: with
them a chain that was cut short, or made anew, is found out."""

from __future__ import annotations

import json
import os
from pathlib import Path

from django.conf import settings
from django.utils import timezone

from record import chain
from record.models import Entry


def _path() -> Path:
    return Path(settings.VAR_DIR) / "record-heads.jsonl"


def note() -> dict[int, tuple[int, str]]:
    """Write down where every chain ends now; which they are."""
    practices = Entry.objects.order_by().values_list("practice", flat=True).distinct()
    ends = {practice: chain.head(practice) for practice in practices}
    line = json.dumps({"at": timezone.now().isoformat(), "heads": ends}) + "\n"
    there = os.open(_path(), os.O_WRONLY | os.O_APPEND | os.O_CREAT, 0o600)
    try:
        os.write(there, line.encode())
        os.fsync(there)
    finally:
        os.close(there)
    return ends


def begin_anew() -> None:
    """The database was put back from a backup: what was noted after it is no longer to be found."""
    with _path().open("a", encoding="utf-8") as there:
        there.write(json.dumps({"at": timezone.now().isoformat(), "anew": True}) + "\n")


def known() -> dict[int, dict[int, str]]:
    """For each practice, the hashes that were noted, by number."""
    out: dict[int, dict[int, str]] = {}
    if not _path().exists():
        return out
    for line in _path().read_text(encoding="utf-8").splitlines():
        try:
            read = json.loads(line)
            if read.get("anew"):
                out.clear()
                continue
            ends = read["heads"]
        except (ValueError, KeyError):
            continue
        for practice, (number, said) in ends.items():
            out.setdefault(int(practice), {})[number] = said
    return out
