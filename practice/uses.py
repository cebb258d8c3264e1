"""What depends on a record, and what moves with a change of it: asked of the later stages, which
each speak for themselves.

A stage registers when it starts; an earlier one asks without knowing who answers.
"""

from collections import defaultdict
from collections.abc import Callable
from typing import Any

from django.db import models

# By model: each takes a record and says in words where it is used, empty where it is not.
_ASKED: dict[type, list[Callable[[Any], str]]] = defaultdict(list)
# By model: each takes a record before and after a change and says in words what moves with it, and
# what does not.
_MOVED: dict[type, list[Callable[[Any, Any], list[str]]]] = defaultdict(list)


def says_uses(model: type, ask: Callable[[Any], str]) -> None:
    if ask not in _ASKED[model]:
        _ASKED[model].append(ask)


def says_moves(model: type, ask: Callable[[Any, Any], list[str]]) -> None:
    if ask not in _MOVED[model]:
        _MOVED[model].append(ask)


def uses_of(record: models.Model) -> list[str]:
    """Where a record is used, in words."""
    return [words for ask in _ASKED[type(record)] if (words := ask(record))]


def moves_of(before: models.Model, after: models.Model) -> list[str]:
    """What moves with a change of a record, and what stays, in words."""
    return [words for ask in _MOVED[type(after)] for words in ask(before, after)]


def some(names: list[str], one: str, most: int = 4) -> str:
    """ "3 bowls: A, B, C"; the rest is counted."""
    more = f" and {len(names) - most} more" if len(names) > most else ""
    return (
        f"{len(names)} {one}{'s' if len(names) != 1 else ''}: {', '.join(names[:most])}{more}"
        if names
        else ""
    )
