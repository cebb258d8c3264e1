"""What depends on a record, and what moves with a change of it: asked of the later stages."""

from typing import Any

from django.db import models

from webkit.extension_points import Question

# Where is a record used? In words; empty where it is not.
USES: Question[[Any], str] = Question()
# What moves with a record that was changed from one to the other, and what stays? In words.
MOVES: Question[[Any, Any], list[str]] = Question()


def uses_of(record: models.Model) -> list[str]:
    """Where a record is used, in words."""
    return [words for words in USES.ask(record) if words]


def moves_of(before: models.Model, after: models.Model) -> list[str]:
    """What moves with a change of a record, and what stays, in words."""
    return [words for said in MOVES.ask(before, after) for words in said]


def counted(count: int, one: str) -> str:
    """ "3 bowls"; empty for none."""
    return f"{count} {one}{'s' if count != 1 else ''}" if count else ""


def some(names: list[str], one: str, most: int = 4) -> str:
    """ "3 bowls: A, B, C"; the rest is counted."""
    more = f" and {len(names) - most} more" if len(names) > most else ""
    return f"{counted(len(names), one)}: {', '.join(names[:most])}{more}" if names else ""
