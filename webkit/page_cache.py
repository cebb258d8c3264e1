"""What is asked many times while one page is read, and found once."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from typing import Any, TypeVar

T = TypeVar("T")
_KEPT: ContextVar[dict[Hashable, Any] | None] = ContextVar("kept while a page is read")


@contextmanager
def reading() -> Iterator[None]:
    """Within this nothing changes that is kept: a page that is only read."""
    before = _KEPT.set({})
    try:
        yield
    finally:
        _KEPT.reset(before)


def is_reading() -> bool:
    """Whether a page is only read."""
    return _KEPT.get(None) is not None


def once(key: Hashable, find: Callable[[], T]) -> T:
    """What was found for the key while this page is read; found anew where it may have changed."""
    kept = _KEPT.get(None)
    if kept is None:
        return find()
    if key not in kept:
        kept[key] = find()
    found: T = kept[key]
    return found
