"""Who has the database: one server and its workers, told by locks that end with whoever holds
them, however it ends."""

from __future__ import annotations

import fcntl
import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from running import places


class Held(Exception):
    """Somebody else has it; the message says who."""


def _file(what: str) -> Path:
    path = places.database()
    return path.with_name(f"{path.name}.{what}")


@contextmanager
def _locked(what: str, how: int, said: str) -> Iterator[None]:
    with places.private():
        there = os.open(_file(what), os.O_RDWR | os.O_CREAT, 0o600)
    try:
        try:
            fcntl.flock(there, how | fcntl.LOCK_NB)
        except BlockingIOError:
            raise Held(said) from None
        yield
    finally:
        os.close(there)


@contextmanager
def serving() -> Iterator[None]:
    """For as long as a server has the database. Raises Held for a second one."""
    with _locked(
        "serving",
        fcntl.LOCK_EX,
        f"Another server has {places.database()} already. Stop it first; two of them would each "
        "answer for what the other does not know.",
    ):
        yield


@contextmanager
def working() -> Iterator[None]:
    """For as long as a worker has the database; there may be more than one. Raises Held while it is
    put back."""
    with _locked("working", fcntl.LOCK_SH, "The database is being put back from a backup."):
        yield


@contextmanager
def nobody_else() -> Iterator[None]:
    """While the database is put back. Raises Held where a server or a worker has it."""
    with (
        _locked("serving", fcntl.LOCK_EX, "The server is running: stop it first."),
        _locked("working", fcntl.LOCK_EX, "The worker is running: stop it first."),
    ):
        yield
