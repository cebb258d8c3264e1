"""What an installation does each night: a backup, and a look through everything that it keeps."""

from __future__ import annotations

from django.contrib.sessions.models import Session
from django.core.management import call_command

from people.models import SignedIn
from record import heads
from rights.erasing import clean_pages
from running import backing_up, checking


def back_up() -> str:
    """Make a backup. Raises NoBackup."""
    made, _looked = backing_up.make()
    heads.note()
    # how many of whom is no matter of another practice's owner
    sealed = "sealed, opened" if made.sealed else "opened"
    return f"{made.size / 1e6:.1f} MB, {sealed} and found whole"


def tidy() -> str:
    """Take away what is over: sessions that ended long ago, where they were, and what lies in pages
    of the database that are free."""
    call_command("clearsessions")
    keys = Session.objects.values("session_key")
    gone, _kinds = SignedIn.objects.exclude(session_key__in=keys).delete()
    clean_pages()
    return f"{gone} places where nobody is signed in any more"


class RecordChanged(Exception):
    """The record is not as it was written."""


def look_through() -> str:
    """Read the whole database, and the record's chain. Raises NotWhole or RecordChanged."""
    checking.look_at_the_live_one()
    for practice, wrong in heads.faults().items():
        if wrong:
            raise RecordChanged(f"the record of practice {practice}: {wrong[0]}")
    return "the database is whole, the record as it was written"
