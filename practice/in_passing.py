"""Notes that a page makes in passing while it is read: given up at once where somebody else writes,
for a page that is read waits for nobody."""

from __future__ import annotations

from collections.abc import Callable

from django.db import OperationalError, connection, transaction


def note_in_passing(write: Callable[[], object]) -> bool:
    """Write in one short transaction if nobody else is writing; whether it was written."""
    waits = int(float(connection.settings_dict["OPTIONS"].get("timeout", 5)) * 1000)
    with connection.cursor() as cursor:
        cursor.execute("PRAGMA busy_timeout = 0")
        try:
            with transaction.atomic():
                write()
        except OperationalError:
            return False
        finally:
            cursor.execute(f"PRAGMA busy_timeout = {waits}")
    return True
