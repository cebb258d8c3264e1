"""What a row points to: by a field, and by what stands within its text and plain data, as
"recipe-12" does. In an archive everything is numbered within it."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from django.db import models

# The number of a row of a table, for one within the archive or the other way round; None where
# there is none.
Renumber = Callable[[str, int], int | None]

# What a whole text points to, by how it begins.
_TEXTS = {
    "own": "pantry.ownfood",
    "food-own": "pantry.ownfood",
    "recipe": "recipes.recipe",
    "bowl": "bowls.bowl",
    "out": "planner.planneddish",
}
_TEXT = re.compile(rf"({'|'.join(_TEXTS)})-(\d+)")
# A school of the practice's own: the one it was copied from, and its number.
_SCHOOL = re.compile(r"([a-z_]+):(\d+)")
_SCHOOLS = "schools.ownschool"
# What a name in plain data points to.
_NAMES = {
    "recipe_id": "recipes.recipe",
    "bowl_id": "bowls.bowl",
    "planned_id": "planner.planneddish",
}
# The fields of a table that hold such a text; in any other it is what somebody wrote.
TEXT_FIELDS = frozenset({"food", "key", "school", "like"})
# A name in plain data under which names stand, each with the number of what it means.
_MEANT = {"part_ids": "recipes.recipe"}


def may_hold(field: models.Field) -> bool:
    """Whether a field may hold references within what stands in it."""
    return isinstance(field, models.JSONField) or (
        isinstance(field, models.CharField) and field.name in TEXT_FIELDS
    )


def renumbered(field: models.Field, value: Any, renumber: Renumber) -> Any:
    """What stands in a field, with every reference in it renumbered."""
    return in_data(value, renumber, field.name) if may_hold(field) else value


def in_text(text: str, renumber: Renumber, under: str = "") -> str:
    """A text that is a reference, renumbered; any other as it is. What is named as a school alone
    can be one: elsewhere "lunch:2" is what somebody wrote."""
    if found := _TEXT.fullmatch(text):
        number = renumber(_TEXTS[found[1]], int(found[2]))
        return text if number is None else f"{found[1]}-{number}"
    if under == "school" and (found := _SCHOOL.fullmatch(text)):
        number = renumber(_SCHOOLS, int(found[2]))
        return text if number is None else f"{found[1]}:{number}"
    return text


def in_data(data: Any, renumber: Renumber, under: str = "") -> Any:
    """Plain data with every reference in it renumbered."""
    if isinstance(data, dict):
        return {
            in_text(str(name), renumber): (
                _number(_MEANT[under], value, renumber)
                if under in _MEANT and isinstance(value, int)
                else in_data(value, renumber, str(name))
            )
            for name, value in data.items()
        }
    if isinstance(data, list):
        return [in_data(one, renumber, under) for one in data]
    if isinstance(data, str):
        return in_text(data, renumber, under)
    if isinstance(data, int) and not isinstance(data, bool) and under in _NAMES:
        return _number(_NAMES[under], data, renumber)
    return data


def _number(table: str, number: int, renumber: Renumber) -> int | None:
    """A reference to what is gone leads nowhere."""
    return renumber(table, number)


def found_in(data: Any, under: str = "") -> set[tuple[str, int]]:
    """Every table and number that plain data points to."""
    out: set[tuple[str, int]] = set()

    def note(table: str, number: int) -> int:
        out.add((table, number))
        return number

    in_data(data, note, under)
    return out
