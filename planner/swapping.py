"""A day's entries as something that can be swapped: for another food, or for another recipe or bowl
of the same kind."""

from __future__ import annotations

from collections import Counter

from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from bowls.swapping import dishes_in, recipe_of
from clients.swap_panel import Outdated, Subject, swapped_in
from nutrition.composition.foods import food_table
from nutrition.composition.profile import Profile
from nutrition.safety.gate import Gate
from nutrition.swaps.ranking import Dish, Line
from nutrition.written.typed_amounts import leveled_range
from planner.balancing import unit_g
from planner.day import Entry, ReckonedDay
from planner.models import Day, DayEntry
from planner.planned import plan_dish
from practice.models import User
from recipes.facts import facts_of

MOST_BOWLS = 6


def key_of(day: Day) -> str:
    """What a change that is offered for this day is signed for."""
    return f"day-{day.pk}"


def _bowls(entry: Entry, gate: Gate) -> tuple[Dish, ...]:
    """Other bowls of the client or of everybody, eaten whole, that hold nothing the client is not
    to have."""
    out, client = [], entry.row.day.client
    others = Bowl.objects.filter(client=None) | Bowl.objects.filter(client=client)
    for bowl in others.exclude(pk=entry.row.bowl_id)[: MOST_BOWLS * 2]:
        reckoned = reckon_bowl(bowl)
        if reckoned.profile.grams > 0 and not gate.why_not_dish(reckoned.ingredients):
            out.append(
                Dish(
                    key=f"bowl-{bowl.pk}",
                    name=bowl.name,
                    grams=reckoned.profile.grams,
                    profile=reckoned.profile,
                    words="1 bowl",
                )
            )
    return tuple(out[:MOST_BOWLS])


def _line(entry: Entry, name: str, gate: Gate) -> Line:
    if entry.row.bowl_id:
        dishes = _bowls(entry, gate)
    elif entry.row.recipe_id:
        dishes = dishes_in(
            entry.row.recipe.role,
            [entry.row.recipe_id],
            entry.profile.grams,
            gate,
            entry.row.day.client,
        )
    else:
        dishes = ()
    food = food_table()[entry.row.food] if entry.row.food else None
    return Line(str(entry.row.pk), name, food, entry.profile.grams, entry.profile, dishes)


def subject_of(day: ReckonedDay, meal: str | None, gate: Gate, share: float = 1.0) -> Subject:
    """The entries of the day, or of one meal of it; supplements count toward the whole day, or
    `share` of it [0 to 1]."""
    entries = [
        entry for row in day.meals for entry in row.entries if meal is None or row.key == meal
    ]
    names = Counter(entry.name for entry in entries)
    lines = [
        # what is eaten twice is told apart by its meal
        _line(
            entry,
            entry.name
            if names[entry.name] == 1
            else f"{entry.name} ({entry.row.get_meal_display().lower()})",
            gate,
        )
        for entry in entries
        if not entry.row.locked and entry.profile.grams > 0
    ]
    profile = Profile.total(entry.profile for entry in entries)
    taken = day.supplements_profile * share if meal is None else Profile.empty()
    return Subject(
        key=key_of(day.day), version=day.day.version, lines=lines, profile=profile + taken
    )


def apply(day: Day, entries: dict[str, Entry], steps: list[dict], meal: str, by: User) -> None:
    """Take the steps as one change that can be undone; what is added goes into `meal`. Raises
    Outdated, StaleSave."""
    changed = []
    for step in steps:
        row = (
            DayEntry(day=day, meal=meal)
            if not step["line"]
            else entries[step["line"]].row
            if step["line"] in entries
            else None
        )
        if row is None:
            raise Outdated("That is no longer in the day.")
        kind, _dash, _pk = step["dish"].partition("-")
        if kind == "recipe":
            row.bowl, row.recipe, row.food = None, recipe_of(step["dish"]), ""
            row.amount = round(step["grams"] / facts_of(row.recipe).serving.grams, 3)
        elif kind == "bowl":
            bowl = Bowl.objects.filter(pk=step["dish"].removeprefix("bowl-")).first()
            if bowl is None:
                raise Outdated("That bowl is no longer there.")
            row.bowl, row.recipe, row.food, row.amount = bowl, None, "", 1.0
        elif step["food"]:
            row.bowl, row.recipe, row.food, row.amount = (
                None,
                None,
                swapped_in(step["food"]).slug,
                step["grams"],
            )
            row.low_g, row.high_g = leveled_range(row.amount)
        else:
            row.amount = round(step["grams"] / unit_g(entries[step["line"]]), 3)
        changed.append((row, step["dish"]))
    with day.changing(day.version, by):
        for row, dish in changed:
            if row.amount <= 0:
                row.delete()
                continue
            if dish or row.food:
                plan_dish(row, day.practice)
            row.save()
