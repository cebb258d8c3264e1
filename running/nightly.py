"""What an installation does each night: a backup, and a look through everything that it keeps."""

from __future__ import annotations

from record import chain, heads
from record.models import Entry
from running import backing_up, checking


def back_up() -> str:
    """Make a backup. Raises NoBackup."""
    made, _looked = backing_up.make()
    heads.note()
    # how many of whom is no matter of another practice's owner
    sealed = "sealed, opened" if made.sealed else "opened"
    return f"{made.size / 1e6:.1f} MB, {sealed} and found whole"


class RecordChanged(Exception):
    """The record is not as it was written."""


def look_through() -> str:
    """Read the whole database, and the record's chain. Raises NotWhole or RecordChanged."""
    said, known = checking.of_the_live_one(), heads.known()
    practices = Entry.objects.order_by().values_list("practice", flat=True).distinct()
    for practice in sorted({*practices, *known}):
        wrong = next(chain.faults(practice, known.get(practice)), "")
        if wrong:
            raise RecordChanged(f"the record of practice {practice}: {wrong}")
    return f"the database is {said}, the record as it was written"
