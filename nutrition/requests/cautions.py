"""What is to be warned of for a person and what they eat: every caution that stands, why, and what
could not be read."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Annotated

from annotated_types import Ge, Lt

from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.supplements import Supplement, per_day
from nutrition.requests.fields import OneOf
from nutrition.requests.meals import Eaten, Meals, read_meals
from nutrition.requests.person import Asked, PersonGiven
from nutrition.requests.planned_person import situation_of
from nutrition.requests.structure import Structure, Told, decoded
from nutrition.safety.caution_rules import LEVELS
from nutrition.safety.cautions import Caution, cautions_in
from nutrition.safety.situations import day_numbers, tablet_numbers
from nutrition.targets.conditions import conditions
from nutrition.targets.day import DayTargets
from nutrition.targets.person import LIFE_STAGE_WORDS, OutOfRange, Referred
from nutrition.targets.voices import GENERAL

LEVEL_WORDS = dict(zip(LEVELS, ("stop", "caution", "note"), strict=True))
# What labels of tablets call what the table has by another name.
SUPPLEMENT_WORDS = {
    "vitamin_a_retinol_ug": "vitamin_a_rae_ug",
    "retinol_ug": "vitamin_a_rae_ug",
    "folic_acid_ug": "folate_ug",
}
NO_MORE_A_DAY = 1e6
Nutrient = Annotated[str, OneOf(lambda: {**NUTRIENT, **SUPPLEMENT_WORDS})]
Dose = Annotated[float, Ge(0), Lt(NO_MORE_A_DAY)]


class CautionsAsked(Structure):
    """A person, their meals as lines, and what they take besides: a nutrient and so much a day."""

    person: PersonGiven
    meals: Meals = {}
    supplements: dict[Nutrient, Dose] | None = None

    def doses(self) -> dict[str, float] | None:
        """The doses by the names that the table has."""
        if self.supplements is None:
            return None
        return {SUPPLEMENT_WORDS.get(key, key): dose for key, dose in self.supplements.items()}


class CautionTold(Told):
    """A caution in one sentence; `because` are the foods, numbers or conditions that set it off."""

    code: str
    level: str
    text: str
    because: list[str]
    source: str


class LineTold(Told):
    """A line that was not taken, and why."""

    line: str
    why: str


class CautionsAnswer(Told):
    """Everything that stands, the gravest first; the lines that were not read; and what is not
    known of what is eaten where it could matter."""

    cautions: list[CautionTold]
    refused: list[LineTold]
    unresolved: list[LineTold]
    unknown: list[str]


def outside(error: Referred) -> Caution:
    """That nothing is computed for a person, why, and to whom to turn."""
    return Caution(
        code=f"outside_the_formulas_{error.field}",
        level=LEVELS[0],
        text=str(error),
        why="A number computed where no formula holds is a guess.",
        refer_to=error.refer_to,
        source="the ranges of the formulas used here",
    )


def _told(caution: Caution, people: Sequence[str]) -> CautionTold:
    return CautionTold(
        code=caution.code,
        level=LEVEL_WORDS[caution.level],
        text=caution.sentence,
        because=list(caution.because) or list(people),
        source=caution.source,
    )


def cautions_of(
    asked: Asked, eaten: Eaten, doses: Mapping[str, float] | None = None
) -> CautionsAnswer:
    """Everything that stands, with doses of nutrients a day that are taken besides. Raises
    OutOfRange for a person who cannot be."""
    person = asked.person
    told: list[CautionTold] = []
    numbers: dict[str, float] = {}
    day: DayTargets | None = None
    try:
        day = asked.day()
    except Referred as error:
        told.append(_told(outside(error), [str(error)]))
    taken = [
        Supplement(key=key, dose=dose, form="", per_week=7.0) for key, dose in (doses or {}).items()
    ]
    if doses is not None:
        numbers |= tablet_numbers(taken)
    if eaten.foods:
        planned = eaten.planned()
        numbers |= day_numbers(replace(planned, profile=planned.profile + per_day(taken)))
    told_of = situation_of(asked, day, numbers, eaten.foods or None, eaten.unread)
    stage = [LIFE_STAGE_WORDS[person.life_stage]] if person.life_stage != "adult" else []
    people = [conditions()[code].name for code in sorted(person.conditions)] + stage
    told += [_told(caution, people) for caution in cautions_in(told_of)]
    order = list(LEVEL_WORDS.values())
    return CautionsAnswer(
        cautions=sorted(told, key=lambda one: order.index(one.level)),
        refused=[LineTold(line=line, why=why) for line, why in eaten.refused],
        unresolved=[LineTold(line=line, why=why) for line, why in eaten.unresolved],
        unknown=[] if day is None or not eaten.foods else unknown_words(day, eaten),
    )


def unknown_words(day: DayTargets, eaten: Eaten) -> list[str]:
    """What of the targets with a most is not known of what is eaten, where it could matter."""
    out = []
    for key, target in day.targets.items():
        if key not in NUTRIENT or NUTRIENT[key].group == "indices":
            continue
        if target.high is None or target.high_by.rank == GENERAL:
            # an upper level that nobody comes near is no reason to read labels
            continue
        amount = eaten.profile[key]
        unit = NUTRIENT[key].unit
        most = amount.amount + amount.could_add
        if amount.complete or not amount.amount <= target.high < most:
            continue
        reach = (
            f"between {amount.amount:,.0f} and {most:,.0f} {unit}"
            if most < float("inf")
            else f"at least {amount.amount:,.0f} {unit}"
        )
        out.append(
            f"{NUTRIENT[key].name} is not known of all of it: {reach}, the most {target.high:,.0f}"
        )
    return out


def report(given: object) -> CautionsAnswer:
    """The cautions for `{"person": {...}, "meals": [[line, ...], ...], "supplements": {...}}`.

    Raises OutOfRange naming the field.
    """
    asked = decoded(CautionsAsked, given, OutOfRange)
    person = asked.person.asked_within("person")
    return cautions_of(person, read_meals(asked.meals.values()), asked.doses())


def as_text(answer: CautionsAnswer) -> str:
    """The report for reading in a terminal."""
    out = []
    for one in answer.cautions:
        out.append(f"{one.level.upper():8} {one.text} ({one.source})")
        if one.because:
            out.append(f"{'':8} because of: {', '.join(one.because)}")
    out += [f"REFUSED  {one.line}: {one.why}" for one in answer.refused]
    out += [f"NOT READ {one.line}: {one.why}" for one in answer.unresolved]
    out += [f"UNKNOWN  {words}" for words in answer.unknown]
    return "\n".join(out) or "Nothing to warn of."
