"""The ends of the chains as they were at earlier checks and backups, kept beside the database: with
them a chain that was cut short, or made anew, is found out."""

from __future__ import annotations

from pathlib import Path

from django.conf import settings
from django.utils import timezone

from record import chain, json_lines
from record.models import Entry

NAME = "record-heads.jsonl"


def _path() -> Path:
    return Path(settings.VAR_DIR) / NAME


def _practices() -> list[int]:
    return list(Entry.objects.order_by().values_list("practice", flat=True).distinct())


def note() -> None:
    """Write down where every chain ends now."""
    ends = {practice: chain.head(practice) for practice in _practices()}
    json_lines.append(_path(), {"at": timezone.now().isoformat(), "heads": ends})


def begin_anew() -> None:
    """The database was put back from a backup: what was noted after it is no longer to be found."""
    json_lines.append(_path(), {"at": timezone.now().isoformat(), "anew": True})


def known() -> dict[int, dict[int, str]]:
    """For each practice, the hashes that were noted, by number."""
    out: dict[int, dict[int, str]] = {}
    for read in json_lines.rows_in(_path()):
        if read.get("anew"):
            out.clear()
        for practice, (number, said) in read.get("heads", {}).items():
            out.setdefault(int(practice), {})[number] = said
    return out


def faults() -> dict[int, list[str]]:
    """What is wrong with the chain of each practice, in words, also against what was noted."""
    noted = known()
    practices = sorted({*_practices(), *noted})
    return {one: list(chain.faults(one, noted.get(one))) for one in practices}
