"""Jobs worked off within a test, at once or beside it."""

import threading
from collections.abc import Iterator
from contextlib import contextmanager

from django.db import connections

from jobs.work import claim, work_off, work_on


def work_off_now() -> int:
    """Work on everything that waits, one after the other; how many there were."""
    count = 0
    while (job := claim()) is not None:
        work_on(job)
        count += 1
    return count


@contextmanager
def working() -> Iterator[None]:
    """Within this what waits is worked on beside the test, as beside the server."""
    over = threading.Event()

    def work() -> None:
        work_off(over.is_set, lambda: bool(over.wait(0.05)))
        connections.close_all()

    thread = threading.Thread(target=work, daemon=True)
    thread.start()
    try:
        yield
    finally:
        over.set()
        thread.join()
