"""Kinds of fields that structures have in common: a word out of some, a date, a flag, a number to
plan with, and what may be written in a shorter way."""

from __future__ import annotations

import difflib
from collections.abc import Callable, Iterable
from datetime import date
from typing import Annotated, Any

from pydantic import (
    BeforeValidator,
    GetCoreSchemaHandler,
    GetJsonSchemaHandler,
    WithJsonSchema,
)
from pydantic.functional_validators import AfterValidator
from pydantic_core import CoreSchema, PydanticCustomError, core_schema

from nutrition.targets.orders import LEAST_BY_HAND, MOST_BY_HAND

# The kind of a refusal that carries its own sentence, the place before it.
OWN = "own"
# So many words are told to choose from; of more, those that are near.
MOST_TOLD = 24


def refusal(said: str) -> PydanticCustomError:
    """What a check of a field raises: what is said after its place."""
    return PydanticCustomError(OWN, "{said}", {"said": said})


def _unknown(word: str, known: list[str]) -> str:
    if len(known) <= MOST_TOLD:
        return f" is {word!r}: choose {', '.join(known)}"
    near = difflib.get_close_matches(word, known, 3)
    return " is not known" + (f" (near: {', '.join(near)})" if near else "")


class OneOf:
    """A word that is one of some, which are known only once the tables are read; `said` tells of
    another."""

    def __init__(
        self,
        known: Callable[[], Iterable[str]],
        said: Callable[[str, list[str]], str] = _unknown,
    ) -> None:
        self.known, self.said = known, said

    def __get_pydantic_core_schema__(
        self, source: object, handler: GetCoreSchemaHandler
    ) -> CoreSchema:
        return core_schema.no_info_after_validator_function(self._check, handler(source))

    def __get_pydantic_json_schema__(
        self, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> dict[str, Any]:
        return {"type": "string", "enum": list(self.known())}

    def _check(self, word: str) -> str:
        known = list(self.known())
        if word not in known:
            raise refusal(self.said(word, known))
        return word


class Shorter:
    """What may be written in shorter ways, made the whole one before it is read; `ways` describe
    them as JSON Schema."""

    def __init__(self, whole: Callable[[Any], Any], *ways: dict[str, Any]) -> None:
        self.whole, self.ways = whole, ways

    def __get_pydantic_core_schema__(
        self, source: object, handler: GetCoreSchemaHandler
    ) -> CoreSchema:
        return core_schema.no_info_before_validator_function(self.whole, handler(source))

    def __get_pydantic_json_schema__(
        self, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> dict[str, Any]:
        return {"anyOf": [handler(schema), *self.ways]}


def _date(given: object) -> date:
    try:
        return date.fromisoformat(given if isinstance(given, str) else "")
    except ValueError:
        raise refusal(f": “{str(given)[:40]}” is no date; write 2026-11-03") from None


def _plannable(value: float) -> float:
    if value and not LEAST_BY_HAND <= abs(value) <= MOST_BY_HAND:
        raise refusal(
            f" is no number to plan with: give 0, or {LEAST_BY_HAND:g} to {MOST_BY_HAND:,.0f}"
        )
    return value


def _word(given: object) -> object:
    plain = isinstance(given, int | float) and not isinstance(given, bool)
    return f"{given}" if plain else given


# A day of the calendar.
OnDay = Annotated[
    date, BeforeValidator(_date), WithJsonSchema({"type": "string", "format": "date"})
]
# A number that a target or a portion can have, and the solver can count with.
Plannable = Annotated[float, AfterValidator(_plannable)]
# A name that may be a number.
Word = Annotated[str, Shorter(_word, {"type": "number"})]
