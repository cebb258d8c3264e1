"""Notes that a page makes in passing while it is read: given up at once where somebody else writes,
for a page that is read waits for nobody."""

from __future__ import annotations

from collections.abc import Callable

from django.conf import settings
from django.db import OperationalError, connection, transaction
from django.db.backends.utils import CursorWrapper


def note_in_passing(write: Callable[[], object]) -> bool:
    """Write in one short transaction if nobody else is writing; whether it was written."""
    with connection.cursor() as cursor:
        _say(cursor, settings.GIVE_UP_AT_ONCE)
        try:
            with transaction.atomic():
                write()
        except OperationalError:
            return False
        finally:
            _say(cursor, settings.WAIT_AS_USUAL)
    return True


def _say(cursor: CursorWrapper, statement: str) -> None:
    if statement:
        cursor.execute(statement)
