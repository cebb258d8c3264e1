"""A person who is followed: weigh-ins, logged days, what happened and blood values."""

from __future__ import annotations

from datetime import date
from typing import Annotated

from annotated_types import Len
from pydantic import Field

from nutrition.composition.portion import Portion, room_ml
from nutrition.follow_up.events import KINDS, Happened
from nutrition.follow_up.intake import Bite, LoggedDay
from nutrition.follow_up.weigh_in import LATER, MORNING, Weighed, read_weight
from nutrition.requests.fields import OnDay, OneOf, Word
from nutrition.requests.meals import Meals, read_meal
from nutrition.requests.person import PersonGiven
from nutrition.requests.structure import Structure
from nutrition.targets.blood import BadValue, Measured, check_value
from nutrition.targets.person import LIMITS, OutOfRange

MOST_WEIGHED, MOST_DAYS, MOST_HAPPENED, MOST_VALUES = 2000, 400, 200, 500
LONGEST_SCALE, LONGEST_WORDS = 40, 200
TIMES = ("", MORNING, LATER)


class WeighInGiven(Structure):
    """A weight on a day, in kg or as it is read off a scale: "223.5 lb", "15 st 13"."""

    on: OnDay
    kg: float | None = None
    weight: Word | None = None
    time: Annotated[str, OneOf(lambda: TIMES)] = ""
    dressed: bool = False
    scale: Annotated[str, Len(0, LONGEST_SCALE)] = ""

    def weighed(self, at: int) -> Weighed:
        """Raises OutOfRange for a weight that cannot be."""
        field = f"weighed[{at}]"
        read = None if self.weight is None else read_weight(self.weight)
        kg = self.kg if read is None else read
        if kg is None:
            raise OutOfRange(field, f"{field} needs kg, or a weight such as 223.5 lb.")
        low, high = LIMITS["weight_kg"]
        if not low <= kg <= high:
            said = f"{field}: {kg:g} kg on {self.on} is outside {low:g} to {high:g} kg."
            raise OutOfRange(field, said)
        return Weighed(self.on, kg, time=self.time, dressed=self.dressed, scale=self.scale)


class DayGiven(Structure):
    """What was eaten on a day and what was planned, as meals of lines; `whole` says that all of it
    is there."""

    on: OnDay
    meals: Meals = {}
    planned: Meals = {}
    whole: bool = True


class HappenedGiven(Structure):
    """Something that bears on the weight."""

    kind: Annotated[str, OneOf(lambda: KINDS)]
    start: OnDay = Field(alias="from")
    until: OnDay | None = None
    words: Annotated[str, Len(0, LONGEST_WORDS)] = ""


class BloodGiven(Structure):
    """A blood value in a unit, with the range of its laboratory where that is known."""

    what: str
    value: float
    unit: str
    on: OnDay
    low: float | None = None
    high: float | None = None

    def measured(self, at: int) -> Measured:
        """Raises OutOfRange for a value that cannot be."""
        try:
            check_value(self.what, self.value, self.unit)
        except BadValue as error:
            raise OutOfRange(f"blood[{at}]", f"blood[{at}]: {error}") from None
        edges = {"low": self.low, "high": self.high}
        return Measured(
            key=self.what,
            value=self.value,
            unit=self.unit,
            on=self.on,
            **{name: edge for name, edge in edges.items() if edge is not None},
        )


class FollowAsked(Structure):
    """The person, their record, and for what weight [kg] and when their targets were made;
    `target_kcal` is the energy that is planned, that of their targets where none is given."""

    person: PersonGiven
    weighed: Annotated[list[WeighInGiven], Len(0, MOST_WEIGHED)] = []
    days: Annotated[list[DayGiven], Len(0, MOST_DAYS)] = []
    happened: Annotated[list[HappenedGiven], Len(0, MOST_HAPPENED)] = []
    blood: Annotated[list[BloodGiven], Len(0, MOST_VALUES)] = []
    today: OnDay | None = None
    made_for_kg: float | None = None
    made_on: OnDay | None = None
    planned_since: OnDay | None = None
    target_kcal: float | None = None

    def weigh_ins(self) -> list[Weighed]:
        """In the order of their days. Raises OutOfRange for one that cannot be, or a second of a
        day."""
        out: dict[date, Weighed] = {}
        for at, given in enumerate(self.weighed):
            one = given.weighed(at)
            if one.on in out:
                raise OutOfRange("weighed", f"There are two weights of {one.on}: give one.")
            out[one.on] = one
        return [out[on] for on in sorted(out)]

    def logged(self) -> tuple[list[LoggedDay], list[str]]:
        """The days in their order, and the lines of them that were not read: such a day is not
        whole. Raises OutOfRange."""
        out, unread = [], []
        for given in self.days:
            eaten, missed = _bites(given.meals)
            planned, _missed = _bites(given.planned)
            unread += [f"{given.on}: {line}" for line in missed]
            whole = given.whole and bool(eaten) and not missed
            out.append(LoggedDay(on=given.on, whole=whole, eaten=eaten, planned=planned))
        if len({day.on for day in out}) < len(out):
            raise OutOfRange("days", "There are two logs of one day: give one.")
        return sorted(out, key=lambda day: day.on), unread

    def marks(self) -> list[Happened]:
        """What happened when."""
        return [
            Happened(one.kind, one.start, one.until or one.start, one.words)
            for one in self.happened
        ]

    def values(self) -> list[Measured]:
        """Raises OutOfRange for one that cannot be."""
        return [one.measured(at) for at, one in enumerate(self.blood)]


def _bites(meals: dict[str, list[str]]) -> tuple[tuple[Bite, ...], list[str]]:
    """Meals of lines as what was eaten, each with the ranges of its lines; and the lines that were
    not read."""
    bites: list[Bite] = []
    missed: list[str] = []
    for name, lines in meals.items():
        eaten = read_meal(lines)
        missed += eaten.unread
        if not eaten.foods:
            continue
        grams = eaten.profile.grams
        portion = Portion(
            key=name,
            name=f"meal {name}",
            role="base",
            grams=grams,
            profile=eaten.profile,
            volume_ml=room_ml(None, grams),
            foods=eaten.foods,
        )
        bites.append(Bite(name, portion))
    return tuple(bites), missed
