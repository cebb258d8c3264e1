"""A week reckoned: its days with what stands in their slots, each against the day's targets, and
what is cooked for it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from functools import cached_property

from django.utils import timezone

from clients.plan.in_force import Plan
from clients.plan.strip import Reading, in_one_line, strip
from nutrition.composition.ingredient import Ingredient, plain_name
from nutrition.composition.profile import Profile
from nutrition.composition.supplements import per_day
from nutrition.insight.variety import colors_in, distinct_plants
from nutrition.planning.skeleton import Skeleton, slots_of
from nutrition.planning.week import Slot
from nutrition.safety.meal_size import meal_sizes
from nutrition.safety.situations import PlannedDay
from nutrition.targets.meals import MAIN_MEALS, MEAL_NAMES
from planner.day import Entry, entry_of
from recipes.facts import parts_at_hand
from week.models import MadeDay, Week, WeekEntry
from week.planner_days import changed_from, held_by
from week.pots import Pot, Thawed, eatings_of, from_the_house, pots_of
from week.problem import BESIDES, Plans, plan_for, skeleton_in


@dataclass(frozen=True, kw_only=True)
class Place:
    """A slot of a day with what stands in it."""

    slot: Slot
    row: WeekEntry | None
    entry: Entry | None

    @property
    def key(self) -> str:
        return self.slot.key

    @property
    def name(self) -> str:
        """What stands there, a food without its state: there is little room."""
        if self.entry is None:
            return self.slot.kind
        food = self.entry.portion.food
        return plain_name(food) if food is not None else self.entry.name

    @property
    def counted(self) -> str:
        """How many servings or bowls, where it is not one: on its plate."""
        if self.row is None or self.entry is None or self.row.food or self.row.amount == 1:
            return ""
        return f"{self.row.amount:.2g}"


@dataclass(frozen=True, kw_only=True)
class MealOfDay:
    """A meal of a day: its places, whether it is packed, or eaten away."""

    key: str
    name: str
    places: tuple[Place, ...]
    packed: bool = False
    away: bool = False


@dataclass(frozen=True, kw_only=True)
class DayOfWeek:
    """A day of the week: its meals, all of it with supplements; the planner's day that was made of
    it, and whether that was changed since. What holds on its date is asked for where it is
    needed: a shopping list needs no targets."""

    at: int
    date: date
    plans: Plans
    meals: tuple[MealOfDay, ...]
    profile: Profile
    made: MadeDay | None
    changed: bool
    moved: bool

    @cached_property
    def plan(self) -> Plan:
        """What holds on its date."""
        return self.plans.on(self.date)

    @cached_property
    def strip(self) -> list[Reading]:
        """Where it stands on what is watched."""
        return strip(self.plan, self.profile if self.entries else None)

    @property
    def entries(self) -> list[Entry]:
        return [one.entry for meal in self.meals for one in meal.places if one.entry]

    @property
    def foods(self) -> list[Ingredient]:
        return [food for entry in self.entries for food in entry.foods]

    @property
    def unread(self) -> tuple[str, ...]:
        return tuple(line for entry in self.entries for line in entry.unread)

    @property
    def late(self) -> bool:
        """Whether it stands in the right half of its row: what opens then opens to the left."""
        return self.at % 7 >= 4

    @property
    def line(self) -> str:
        return in_one_line(self.strip)

    @property
    def missed(self) -> list[Reading]:
        return [row for row in self.strip if row.missed]

    @property
    def colors(self) -> list[str]:
        return colors_in(self.foods)

    @property
    def today(self) -> bool:
        return self.date == timezone.localdate()

    def planned(self) -> PlannedDay:
        """The day as the cautions look at it."""
        mains = [meal for meal in self.meals if meal.key in MAIN_MEALS and _filled(meal)]
        carbohydrate = [
            Profile.total(one.entry.profile for one in meal.places if one.entry)[
                "carbohydrate_g"
            ].amount
            for meal in mains
        ]
        eaten = [[place.entry for place in meal.places if place.entry] for meal in self.meals]
        return PlannedDay(
            profile=self.profile,
            foods=self.foods,
            main_meals=len(mains),
            least_meal_carbohydrate_g=min(carbohydrate, default=None),
            lines=self.unread,
            **meal_sizes([[food for one in meal for food in one.foods] for meal in eaten]),
        )


def _filled(meal: MealOfDay) -> bool:
    return any(one.entry for one in meal.places)


@dataclass(frozen=True, kw_only=True)
class ReckonedWeek:
    week: Week
    skeleton: Skeleton
    days: list[DayOfWeek]
    rows: list[WeekEntry]

    @cached_property
    def plan(self) -> Plan:
        """What holds for the week."""
        return plan_for(self.week)

    @property
    def meals(self) -> list[tuple[str, str]]:
        """The meals that some day has."""
        there = {meal.key for day in self.days for meal in day.meals}
        return [(key, name) for key, name in MEAL_NAMES.items() if key in there]

    @property
    def blocks(self) -> list[list[DayOfWeek]]:
        """The days in rows of seven."""
        return [self.days[at : at + 7] for at in range(0, len(self.days), 7)]

    @property
    def ribbons(self) -> list[Pot]:
        """The pots that are eaten on another day than they are cooked on."""
        return [pot for pot in self.pots if pot.ends - pot.starts > 1]

    @property
    def on_the_day(self) -> list[tuple[str, list[date]]]:
        """What is made and eaten on one day, with its days."""
        out: dict[str, list[date]] = {}
        for pot in self.pots:
            if pot.ends - pot.starts == 1:
                out.setdefault(pot.name, []).append(pot.cooked_on)
        return list(out.items())

    @cached_property
    def pots(self) -> list[Pot]:
        return pots_of(self.week, self.rows, self.skeleton)

    @cached_property
    def thawed(self) -> list[Thawed]:
        """What is eaten of what stands cooked in the house."""
        return from_the_house(self.week, eatings_of(self.week, self.rows, self.skeleton))[1]

    @property
    def plants(self) -> list[str]:
        return distinct_plants([food for day in self.days for food in day.foods])

    @property
    def filled(self) -> int:
        return sum(1 for day in self.days for meal in day.meals for one in meal.places if one.entry)

    @property
    def places(self) -> int:
        return sum(1 for day in self.days for meal in day.meals for _one in meal.places)

    @property
    def pinned(self) -> int:
        return sum(1 for row in self.rows if row.locked)

    @cached_property
    def mean(self) -> Profile:
        """The average of the days that have something in them."""
        full = [day for day in self.days if day.entries]
        return Profile.total(day.profile for day in full) * (1.0 / max(len(full), 1))

    @property
    def before(self) -> date:
        """The day before the first, on which one may cook."""
        return self.week.start - timedelta(days=1)


def rows_of(week: Week) -> list[WeekEntry]:
    """The rows of a week with what they point to."""
    found = week.entries.select_related("recipe", "bowl", "planned")
    return list(found.prefetch_related("bowl__parts__recipe"))


def reckon_week(week: Week, moved: Sequence[int] = ()) -> ReckonedWeek:
    """The week as it stands; `moved` are the days that a change just touched."""
    plans, skeleton = Plans(week), skeleton_in(week)
    with parts_at_hand():
        rows = rows_of(week)
        measures = week.practice.measures
        taken = per_day(week.client.supplements_taken())
        entries = {row.slot: (row, entry_of(row, measures)) for row in rows}
        slots = {slot.key: slot for slot in slots_of(skeleton, week.start, week.days)}
        made = {row.day.date: row for row in week.made_days.select_related("day")}
        days = []
        for at in range(week.days):
            meals = tuple(_meals(week, skeleton, at, slots, entries))
            mine = [entry for key, (row, entry) in entries.items() if row.day == at and entry]
            food = Profile.total(entry.profile for entry in mine)
            profile = food + taken if mine else food
            there = made.get(week.date_of(at))
            held = held_by(row for row in rows if row.day == at)
            days.append(
                DayOfWeek(
                    at=at,
                    date=week.date_of(at),
                    plans=plans,
                    meals=meals,
                    profile=profile,
                    made=there,
                    changed=there is not None and changed_from(there, held),
                    moved=at in moved,
                )
            )
    return ReckonedWeek(week=week, skeleton=skeleton, days=days, rows=rows)


def _meals(
    week: Week,
    skeleton: Skeleton,
    at: int,
    slots: dict[str, Slot],
    entries: dict[str, tuple[WeekEntry, Entry | None]],
):
    weekday = skeleton.days[week.date_of(at).weekday()]
    for key, name in MEAL_NAMES.items():
        own = [slot for slot in slots.values() if slot.day == at and slot.meal == key]
        places = [_place(slot, entries) for slot in own]
        besides = [
            row
            for row, _entry in entries.values()
            if row.day == at and row.meal == key and row.slot not in slots
        ]
        for row in besides:
            slot = Slot(key=row.slot, day=at, meal=key, kind=row.kind or BESIDES)
            places.append(_place(slot, entries))
        if places or key in weekday.meals:
            yield MealOfDay(
                key=key,
                name=name,
                places=tuple(places),
                packed=key in weekday.packed,
                away=key in weekday.away,
            )


def _place(slot: Slot, entries: dict[str, tuple[WeekEntry, Entry | None]]) -> Place:
    row, entry = entries.get(slot.key, (None, None))
    return Place(slot=slot, row=row, entry=entry)
