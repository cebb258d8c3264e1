"""Who is acting, for which practice, in which deed: set around a request or a job, asked wherever
something is written."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field
from uuid import uuid4


@dataclass
class Acting:
    """Somebody in a practice at one deed, by their numbers. `known` keeps for the length of it what
    is looked up again and again."""

    practice: int
    who: int | None
    deed: str = field(default_factory=lambda: uuid4().hex)
    known: dict[object, object] = field(default_factory=dict)


_NOW: ContextVar[Acting | None] = ContextVar("acting", default=None)


def acting_now() -> Acting | None:
    """Who is acting; None where nobody is: what commands load and repair is not in the record one
    by one."""
    return _NOW.get()


@contextmanager
def acting(practice: int | None, who: int | None) -> Iterator[None]:
    """Within this, what is written is written down as theirs; for no practice as nobody's."""
    token = _NOW.set(Acting(practice, who) if practice is not None else None)
    try:
        yield
    finally:
        _NOW.reset(token)
