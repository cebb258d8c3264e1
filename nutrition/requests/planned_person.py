"""A person as they are planned for: their day, what is known of them, and what may not be served to
them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from nutrition.composition.ingredient import Ingredient
from nutrition.requests.person import Asked, PersonGiven
from nutrition.requests.structure import Refuse
from nutrition.safety.cautions import Situation
from nutrition.safety.gate import Gate, avoided_kinds
from nutrition.safety.situations import body_numbers, planned_situation, situation
from nutrition.targets.day import DayTargets
from nutrition.targets.person import OutOfRange


@dataclass(frozen=True, kw_only=True)
class PlannedPerson:
    """Who it is planned for, their day's targets, their situation, and their gate."""

    asked: Asked
    day: DayTargets
    situation: Situation
    gate: Gate


def planned_for(given: PersonGiven, refuse: Refuse) -> PlannedPerson:
    """The person who stands in the field "person". Raises what `refuse` makes, by the field that
    cannot be."""
    asked = given.asked_within("person", refuse)
    try:
        day = asked.day()
    except OutOfRange as error:
        raise refuse(f"person.{error.field}", f"person: {error}") from None
    known = planned_situation(day, asked.orders)
    avoided = avoided_kinds(day.person.conditions, asked.school, day.person.age_years)
    return PlannedPerson(asked=asked, day=day, situation=known, gate=Gate(known, avoided))


def situation_of(
    asked: Asked,
    day: DayTargets | None,
    numbers: Mapping[str, float] | None = None,
    foods: Sequence[Ingredient] | None = None,
    lines: Sequence[str] = (),
) -> Situation:
    """What the cautions look at: of the day, or of the body alone where no day is computed; with
    what else is known in numbers."""
    if day is not None:
        return planned_situation(day, asked.orders, numbers=numbers, foods=foods, lines=lines)
    code = asked.school.code if asked.school else ""
    known = body_numbers(asked.person) | dict(numbers or {})
    return situation(asked.person, code, known, foods, lines=lines)
