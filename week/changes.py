"""Changes of a week: a dish placed, moved to another day, pinned, made more or less; a proposal
taken. Each is one step that can be undone."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence

from clients.models import Client
from nutrition.composition.foods import food_table
from nutrition.composition.helpings import first_helping_g
from nutrition.planning.additions import ADDED_PLACE
from nutrition.planning.skeleton import slots_of
from nutrition.planning.week import Choice
from nutrition.written.guess import UnreadableGuess, read_guess
from nutrition.written.typed_amounts import UnreadableAmount, leveled_range, read_amount
from planner.counts import count_in
from planner.models import MEALS
from planner.planned_copies import is_out, plan_dish, plan_out
from week.dishes import Thing, things_of
from week.models import Week, WeekEntry
from week.problem import skeleton_in

# What the planner put in where something was missing.
ADDED = "added"
# What is put beside the slots of a meal has places from here on, after that of what was added.
BESIDE_FROM = ADDED_PLACE + 1
MOST_PLACES = 40
SLOT = re.compile(r"(?P<day>[0-9]{1,3})-(?P<meal>[a-z]+)-(?P<place>[0-9]{1,3})")


class NotThere(ValueError):
    """What a change is about is no longer there; the message says what."""


def kinds_by_slot(week: Week) -> dict[str, str]:
    """The kind of every slot of the week, by its key."""
    return {slot.key: slot.kind for slot in slots_of(skeleton_in(week), week.start, week.days)}


def parts_of_slot(week: Week, key: str) -> tuple[int, str, int]:
    """Day, meal and place of a slot's key. Raises NotThere."""
    match = SLOT.fullmatch(key)
    if match is None or match["meal"] not in dict(MEALS):
        raise NotThere("There is no such place in the week.")
    day, meal, place = match["day"], match["meal"], match["place"]
    if int(day) >= week.days or int(place) >= MOST_PLACES:
        raise NotThere("There is no such place in the week.")
    return int(day), meal, int(place)


def put(week: Week, slot: str, thing: Thing, count: float, pinned: bool = False) -> WeekEntry:
    """Something in a slot, in place of what stood there. `count` is of servings, bowls or helpings.
    Inside a change of the week. Raises NotThere."""
    day, meal, place = parts_of_slot(week, slot)
    row = week.entries.filter(day=day, meal=meal, place=place).first()
    row = row or WeekEntry(week=week, day=day, meal=meal, place=place)
    row.kind = ADDED if place == ADDED_PLACE else kinds_by_slot(week).get(slot, "")
    row.recipe, row.bowl, row.food = thing.recipe, thing.bowl, ""
    row.low_g = row.high_g = None
    row.amount, row.locked = count, pinned
    if thing.food is not None:
        row.food = thing.food.slug
        row.amount = round(first_helping_g(thing.food) * count, 1)
        row.low_g, row.high_g = leveled_range(row.amount)
    plan_dish(row, week.practice)
    row.save()
    return row


def put_out(week: Week, slot: str, text: str) -> str:
    """A meal eaten out in a slot, in place of what stood there; the slot. Inside a change of the
    week. Raises NotThere with what is wrong."""
    day, meal, place = parts_of_slot(week, slot)
    try:
        guess = read_guess(text)
    except UnreadableGuess as error:
        raise NotThere(f"{error} It was: {text[:400]}") from None
    row = week.entries.filter(day=day, meal=meal, place=place).first()
    row = row or WeekEntry(week=week, day=day, meal=meal, place=place)
    row.kind = kinds_by_slot(week).get(slot, "")
    row.low_g = row.high_g = None
    plan_out(row, week.practice, guess)
    row.save()
    return slot


def take(week: Week, planned: Mapping[str, Choice], client: Client) -> int:
    """What a proposal says in every slot; pinned ones are left as they are. How many changed.
    Inside a change of the week."""
    before = {row.slot: row for row in week.entries.select_related("recipe", "bowl")}
    kinds = kinds_by_slot(week)
    changed = 0
    things = things_of((choice.candidate for choice in planned.values()), client)
    for slot, row in before.items():
        planners = slot in kinds or row.place == ADDED_PLACE
        if planners and slot not in planned and not row.locked:
            row.delete()
            changed += 1
    for slot, choice in planned.items():
        there = before.get(slot)
        if there is not None and (
            there.locked or (slot not in kinds and there.place != ADDED_PLACE)
        ):
            continue
        thing = things.get(choice.candidate)
        if thing is None or (there is not None and _is(there, thing, choice)):
            continue
        put(week, slot, thing, choice.count)
        changed += 1
    return changed


def _is(row: WeekEntry, thing: Thing, choice: Choice) -> bool:
    amount = choice.count
    if thing.food is not None:
        amount = round(first_helping_g(thing.food) * choice.count, 1)
    return row.key == thing.key and abs(row.amount - amount) < 1e-6


def set_amount(week: Week, row: WeekEntry, text: str) -> None:
    """So much of what stands in a place, as it was typed: a count of servings or bowls, any measure
    of a food. Inside a change of the week. Raises NotThere with what is wrong."""
    values: dict[str, float | None] = {}
    try:
        if is_out(row):
            raise NotThere("A meal eaten out is written anew: type it below.")
        if row.food:
            line = read_amount(text, food_table()[row.food], week.practice.measures)
            values = {"amount": line.grams, "low_g": line.low, "high_g": line.high}
        else:
            values = {"amount": count_in(text)}
    except UnreadableAmount as error:
        raise NotThere(str(error)) from None
    week.entries.filter(pk=row.pk).update(**values)


def move(week: Week, pk: int, day: int) -> tuple[int, int]:
    """A dish to another day: into the same slot, or one of its kind in that meal, what stood there
    takes its place; else beside that meal's slots. The two days. Inside a change of the week.
    Raises NotThere."""
    row = week.entries.filter(pk=pk).first()
    if row is None:
        raise NotThere("That dish is no longer in the week: somebody took it out.")
    if not 0 <= day < week.days:
        raise NotThere("That day is not in this week.")
    first = row.day
    if day == first:
        return first, first
    kinds = kinds_by_slot(week)
    own = f"{day}-{row.meal}-{row.place}"
    fitting = [key for key, kind in kinds.items() if key == own and kind == row.kind]
    fitting += [
        key
        for key, kind in kinds.items()
        if kind == row.kind and key.startswith(f"{day}-{row.meal}-")
    ]
    place = parts_of_slot(week, fitting[0])[2] if fitting else _free_beside(week, day, row.meal)
    other = week.entries.filter(day=day, meal=row.meal, place=place).first()
    if other is not None:
        # out of the way, so that no two stand in one slot
        WeekEntry.objects.filter(pk=other.pk).update(place=MOST_PLACES)
    before = row.place
    WeekEntry.objects.filter(pk=row.pk).update(day=day, place=place)
    if other is not None:
        kind = kinds.get(f"{first}-{row.meal}-{before}", other.kind)
        WeekEntry.objects.filter(pk=other.pk).update(day=first, place=before, kind=kind)
    return first, day


def _free_beside(week: Week, day: int, meal: str) -> int:
    """Raises NotThere where the meal is full."""
    taken = set(week.entries.filter(day=day, meal=meal).values_list("place", flat=True))
    free = (place for place in range(BESIDE_FROM, MOST_PLACES) if place not in taken)
    place = next(free, None)
    if place is None:
        raise NotThere("That meal holds no more.")
    return place


def beside(week: Week, day: int, meal: str) -> str:
    """A free place beside the slots of a meal. Raises NotThere where the meal is full."""
    return f"{day}-{meal}-{_free_beside(week, day, meal)}"


def _moved_on(
    row: WeekEntry, rows: Sequence[WeekEntry], kinds: Mapping[str, str], days: int, by: int
) -> int:
    """The day on which a dish stands when all that is not pinned in its place is moved on in turn:
    around what is pinned."""
    meal, place = row.meal, row.place
    pinned = {one.day for one in rows if one.locked and (one.meal, one.place) == (meal, place)}
    free = [
        day
        for day in range(days)
        if day not in pinned and (f"{day}-{meal}-{place}" in kinds or place >= ADDED_PLACE)
    ]
    return free[(free.index(row.day) + by) % len(free)] if row.day in free else row.day


def copy_on(week: Week, by_days: int = 1) -> Week:
    """The week after it, its dishes moved on by so many days in turn, for the targets of its own
    time; what is pinned stays on its weekday. Not in a change: a week of its own."""
    from clients.plan.versions import version_on

    start = week.date_of(week.days)
    made = Week.objects.create(
        practice=week.practice,
        client=week.client,
        start=start,
        days=week.days,
        note=week.note,
        made_for=version_on(week.client, start),
        skeleton=week.skeleton,
        container_ml=week.container_ml,
    )
    rows = list(week.entries.all())
    kinds, taken = kinds_by_slot(made), set()
    for row in sorted(rows, key=lambda one: not one.locked):
        day = row.day if row.locked else _moved_on(row, rows, kinds, week.days, by_days)
        meal, place = row.meal, row.place
        if (day, meal, place) in taken or (
            f"{day}-{meal}-{place}" not in kinds and place < ADDED_PLACE
        ):
            # nothing is lost: what has no place of its own there stands beside the others
            places = range(BESIDE_FROM, MOST_PLACES)
            place = next(one for one in places if (day, meal, one) not in taken)
        taken.add((day, meal, place))
        row.pk, row._state.adding, row.week = None, True, made
        row.day, row.place = day, place
        plan_dish(row, week.practice)
        row.save()
    return made
