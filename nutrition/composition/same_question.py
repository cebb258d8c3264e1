"""A question that was asked before: what a pure answer is kept by."""

from __future__ import annotations

from collections.abc import Hashable
from typing import Generic, TypeVar

T = TypeVar("T")


class Asked(Generic[T]):
    """What a function looks at, equal to what has the same key. Where the key holds the `id` of an
    object, `about` holds the object, so that the id is not given to another one while an answer is
    kept: a food whose label is corrected keeps its name, and is another object."""

    __slots__ = ("_hash", "_key", "about")

    def __init__(self, about: T, key: Hashable) -> None:
        self.about, self._key, self._hash = about, key, hash(key)

    def __hash__(self) -> int:
        return self._hash

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Asked) and self._key == other._key
