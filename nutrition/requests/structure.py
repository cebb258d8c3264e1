"""Typed structures of plain data: decoded with every refusal in a sentence and by its field,
written back, and described as JSON Schema."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from typing import Any, TypeVar

from pydantic import BaseModel, ConfigDict, ValidationError, model_validator
from pydantic_core import ErrorDetails

from nutrition.composition.errors import CoreError
from nutrition.requests.fields import OWN

# What is wrong with a value, by the kind of the refusal as the library names it.
SENTENCES: Mapping[str, str] = {
    "missing": "{at} is missing",
    "float_type": "{at} is a number, not {given}",
    "finite_number": "{at} is a number, not {given}",
    "int_type": "{at} is a whole number, not {given}",
    "bool_type": "{at} is true or false, not {given}",
    "string_type": "{at} is a text, not {given}",
    "string_too_long": "{at} has more than the {max_length} characters that can be kept",
    "list_type": "{at} is a list, not {given}",
    "dict_type": "{at} is an object, not {given}",
    "model_type": "{at} is an object, not {given}",
    "too_long": "{at} has up to {max_length}",
    "too_short": "{at} has at least {min_length}",
    "greater_than": "{at} is a number above {gt:g}, not {given}",
    "greater_than_equal": "{at} is a number of at least {ge:g}, not {given}",
    "less_than": "{at} is a number below {lt:g}, not {given}",
    "less_than_equal": "{at} is a number of up to {le:g}, not {given}",
}
LONGEST_SHOWN = 60
DIALECT = {"$schema": "https://json-schema.org/draft/2020-12/schema"}

# Makes the error that a command refuses with, of a field and a sentence.
Refuse = Callable[[str, str], CoreError]


class Structure(BaseModel):
    """Plain data of one shape. What is null is as if it were not there; what no field takes is kept
    and told of, never an error."""

    model_config = ConfigDict(
        strict=True, frozen=True, extra="allow", allow_inf_nan=False, validate_by_name=True
    )

    @model_validator(mode="before")
    @classmethod
    def _without_nulls(cls, given: object) -> object:
        if not isinstance(given, dict):
            return given
        return {str(key): value for key, value in given.items() if value is not None}

    @property
    def ignored(self) -> tuple[str, ...]:
        """The fields that nothing understood."""
        return tuple(self.model_extra or ())


class Told(BaseModel):
    """An answer, or a part of one: made of what the core found, written as plain data."""

    model_config = ConfigDict(frozen=True, from_attributes=True)

    def data(self) -> dict[str, Any]:
        """As JSON has it; what was never set is left out."""
        return self.model_dump(mode="json", by_alias=True, exclude_unset=True)


S = TypeVar("S", bound=Structure)


def _place(steps: Iterable[int | str], within: str) -> str:
    out = within
    for step in steps:
        if isinstance(step, int):
            out += f"[{step}]"
        elif step != "[key]":
            out += f".{step}" if out else step
    return out


def _shown(given: object) -> str:
    text = repr(given)
    return text if len(text) <= LONGEST_SHOWN else f"{text[:LONGEST_SHOWN]}..."


def _sentence(error: ErrorDetails, at: str) -> str:
    about = error.get("ctx", {})
    if error["type"] == OWN:
        return f"{at}{about['said']}"
    words = SENTENCES.get(error["type"], "{at} cannot be {given}")
    return words.format(**about, at=at, given=_shown(error["input"]))


def decoded(structure: type[S], given: object, refuse: Refuse, within: str = "") -> S:
    """Plain data as a structure; `within` is the field that it stands in. Raises what `refuse`
    makes, by the first field that cannot be."""
    if not isinstance(given, dict):
        raise refuse(within or "file", f"{within or 'The file'} holds no JSON object.")
    try:
        return structure.model_validate(given)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        at = _place(first["loc"], within)
        said = _sentence(first, at)
        raise refuse(at, said if said.endswith("?") else f"{said}.") from None


def rounded(value: float, figures: int) -> float:
    """A number to so many significant figures."""
    return float(f"{value:.{figures}g}")


def answer_schema(answered: type[Told]) -> dict[str, Any]:
    """What a command gives, as JSON Schema (draft 2020-12)."""
    return {**DIALECT, **answered.model_json_schema(mode="serialization")}


def schema_of(asked: type[Structure], answered: type[Told]) -> dict[str, Any]:
    """What a command takes and what it gives, as JSON Schema (draft 2020-12)."""
    request = {**DIALECT, **asked.model_json_schema(mode="validation")}
    return {"request": request, "answer": answer_schema(answered)}
