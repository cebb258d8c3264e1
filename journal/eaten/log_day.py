"""A day of the log: what was planned for it with what is known of each, what was eaten besides, and
how it is changed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from django.db import IntegrityError, transaction

from clients.models import Client
from journal.eaten.spoken_log import Choices, Names, choices_for, dish_name, of_planned
from journal.models import LoggedDay, LoggedEntry
from journal.record.days import logged_days
from nutrition.composition.foods import food_table
from nutrition.composition.profile import Profile
from nutrition.follow_up.intake import LoggedDay as Known
from nutrition.follow_up.kitchen_line import LEFT_OUT
from nutrition.follow_up.told_amounts import AS_PLANNED, BY_EYE
from planner.models import MEALS, Day, DayEntry
from planner.planned_copies import guess_of, is_out
from practice.models import Practice

# What a touch says of a planned dish: how much of it, and what that is called.
SHARES = ((1.0, "as planned"), (0.5, "half"), (0.75, "\u00be"), (1.5, "1\u00bd"), (0.0, "none"))


@dataclass(frozen=True)
class Planned:
    """Something that was planned, what it is called, and the rows that decide it."""

    row: DayEntry
    name: str
    decided: list[LoggedEntry]

    @property
    def share(self) -> float | None:
        """How much of it was eaten; None while nobody said."""
        if not self.decided or not self.row.amount:
            return None
        eaten = sum(one.amount for one in self.decided if one.eaten)
        return eaten / self.row.amount

    @property
    def said(self) -> str:
        """ "half", "as planned" """
        share = self.share
        if share is None:
            return ""
        named = next((words for size, words in SHARES if abs(size - share) < 0.02), "")
        return named or f"{share * 100:.0f} %"


@dataclass(frozen=True)
class Besides:
    """A row that decides nothing that was planned: what it is called, how much of it, and what it
    may be where nobody settled it."""

    row: LoggedEntry
    name: str
    said: str
    choices: Choices | None


@dataclass(frozen=True)
class MealLog:
    key: str
    name: str
    planned: list[Planned]
    besides: list[Besides]

    @property
    def undecided(self) -> bool:
        return any(not one.decided for one in self.planned)


@dataclass(frozen=True, kw_only=True)
class DayLog:
    """A day as the log shows it. `known` is None while nothing of it was logged."""

    date: date
    log: LoggedDay | None
    day: Day | None
    meals: list[MealLog]
    known: Known | None

    @property
    def version(self) -> int:
        return self.log.version if self.log else 0

    @property
    def whole(self) -> bool:
        return bool(self.log and self.log.whole)

    @property
    def profile(self) -> Profile:
        return self.known.profile if self.known else Profile.empty()

    @property
    def unsettled(self) -> int:
        return sum(one.choices is not None for meal in self.meals for one in meal.besides)

    @property
    def undecided(self) -> int:
        return sum(not one.decided for meal in self.meals for one in meal.planned)

    @property
    def anything(self) -> bool:
        return any(meal.planned or meal.besides for meal in self.meals)


def log_of(client: Client, on: date) -> DayLog:
    """What is known of a client's day."""
    log = client.logged_days.filter(date=on).select_related("practice").first()
    day = client.days.filter(date=on).first()
    planned = planned_rows(day)
    rows = list(log.entries.select_related("bowl", "recipe", "planned")) if log else []
    names = Names(client, planned)
    keys = {one.pk for one in planned}
    system = client.practice.measures
    meals = []
    for key, name in MEALS:
        mine = [
            Planned(one, dish_name(one), [row for row in rows if row.of_entry_id == one.pk])
            for one in planned
            if one.meal == key
        ]
        others = [
            _besides(row, names, system)
            for row in rows
            if row.meal == key and row.of_entry_id not in keys
        ]
        meals.append(MealLog(key, name, mine, others))
    known = logged_days(client, on, on) if log else []
    return DayLog(date=on, log=log, day=day, meals=meals, known=known[0] if known else None)


def planned_rows(day: Day | None) -> list[DayEntry]:
    return list(day.entries.select_related("bowl", "recipe", "planned")) if day else []


def _besides(row: LoggedEntry, names: Names, system: str) -> Besides:
    if not row.settled:
        return Besides(row, row.said or "something", "", choices_for(row, names, system))
    if row.food:
        said = f"{row.amount:.0f} g{_in_brackets(row.low_g, row.high_g, row.basis, 0)}"
        name = food_table()[row.food].name if row.food in food_table() else row.food
        return Besides(row, name, said, None)
    if is_out(row):
        return Besides(row, dish_name(row), guess_of(row).said, None)
    unit = "bowl" if row.bowl_id else "serving"
    many = "" if row.amount == 1 else "s"
    said = f"{round(row.amount, 2):g} {unit}{many}{_in_brackets(row.low, row.high, row.basis, 2)}"
    return Besides(row, dish_name(row), said, None)


def _in_brackets(low: float | None, high: float | None, basis: str, digits: int) -> str:
    """ " (39–81, by eye)", the range left out where its ends read alike or are not known"""
    ends = [f"{round(end, digits):g}" for end in (low, high) if end is not None]
    said = "–".join(ends) if len(set(ends)) == 2 else ""
    words = ", ".join(one for one in (said, basis) if one)
    return f" ({words})" if words else ""


def open_log(client: Client, practice: Practice, on: date) -> LoggedDay:
    """The log of a day, begun if there is none."""
    try:
        with transaction.atomic():
            log, _made = LoggedDay.objects.get_or_create(
                client=client, date=on, defaults={"practice": practice}
            )
    except IntegrityError:
        log = LoggedDay.objects.get(client=client, date=on)
    return log


def decide(log: LoggedDay, rows: Sequence[DayEntry], share: float) -> None:
    """Of each of these planned rows so much was eaten, whatever was said of it before."""
    log.entries.filter(of_entry__in=rows).delete()
    words = {1.0: "as planned", 0.0: LEFT_OUT}
    for row in rows:
        how = words.get(share) or ("less" if share < 1 else "more")
        spread = AS_PLANNED if share == 1 else BY_EYE
        of_planned(log, row, share, how, spread=spread).save()


def undecided_of(log: LoggedDay, rows: Sequence[DayEntry]) -> list[DayEntry]:
    """The planned rows of which nothing was said yet."""
    done = set(log.entries.exclude(of_entry=None).values_list("of_entry_id", flat=True))
    return [row for row in rows if row.pk not in done]
