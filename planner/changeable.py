"""A day, or one meal of it, as something that can be changed: its entries as portions, what stays
as it is eaten besides, and an edit as one step that can be undone."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import replace
from functools import cached_property

from django.http import HttpResponse, QueryDict
from django.shortcuts import render

from bowls.bench_address import bench_for
from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from changes.aims import WHOLE_DAY, meal_of, meal_options
from changes.changeable import Changeable, Look
from changes.offers import Edit, Outdated, swapped_in
from clients.models import Client
from clients.pages.context import PageRequest
from clients.plan.in_force import Plan
from nutrition.composition.portion import Dish, Limits, Portion
from nutrition.composition.profile import Profile
from nutrition.portions.part_role import role_of
from nutrition.portions.serving_limits import (
    BOWL_COUNTS,
    SERVING_COUNTS,
    limits_around,
    limits_by_count,
)
from nutrition.portions.serving_rules import servable
from nutrition.portions.stomach_room import rooms_of
from nutrition.targets.aims import ALL, SOME, UNPLANNED
from nutrition.written.typed_amounts import leveled_range
from planner.completeness import filled
from planner.day import Entry, ReckonedDay, bowl_portion, reckon_day
from planner.models import MEALS, Day, DayEntry
from planner.page import PAGES
from planner.planned_copies import plan_dish
from planner.plans import plan_for
from practice.undo import asked_by
from recipes.client_copies import made_without
from recipes.dishes import others_in, recipe_of
from recipes.facts import facts_of
from recipes.lessened import made_with_less
from recipes.models import Recipe
from webkit.drawing.dishes import FILLED, dish_round, ghosts, outlined

MOST_BOWLS = 6
# What is added where no meal is chosen goes into this one.
USUAL_MEAL = "dinner"


class DayChanges(Changeable):
    kind, pages = "day", "planner"
    no_plan = "The client's targets are not known."
    nothing = "There is nothing to balance yet: put something into a meal below."
    balance_words = "Balance"
    swap_words = "Looking at"

    @classmethod
    def opened(cls, request: PageRequest, pk: int) -> tuple[DayChanges, HttpResponse | None]:
        day, elsewhere = PAGES.opened(request, pk)
        return cls(request, day), elsewhere

    @property
    def client(self) -> Client:
        return self.record.client

    @cached_property
    def plan(self) -> Plan:
        return plan_for(self.record)

    @cached_property
    def reckoned(self) -> ReckonedDay:
        return reckon_day(self.record)

    @cached_property
    def entries(self) -> dict[str, Entry]:
        return {str(entry.row.pk): entry for entry in self.reckoned.entries}

    def look(self, asked: QueryDict, swaps: bool = False) -> Look:
        """Judged by a meal, or by as much of the day as has meals in it."""
        day = self.day
        meal = meal_of(day, asked.get("meal", WHOLE_DAY))
        full = filled(self.reckoned, self.plan)
        partial = meal is None and full.share < 1
        words = ""
        if partial and full.empty:
            judged = "held against its" if swaps else "balanced for its"
            words = (
                f"{', '.join(full.empty)}: still empty. The rest is {judged} "
                f"{full.share * 100:.0f} % of the day."
            )
        entries = [
            entry
            for row in self.reckoned.meals
            for entry in row.entries
            if entry.profile.grams > 0 and (meal is None or row.key == meal.key)
        ]
        names = Counter(entry.name for entry in entries)
        besides, rest = Profile.empty(), Profile.empty()
        if meal is None:
            besides = self.reckoned.supplements_profile * (full.share if partial else 1.0)
        else:
            others = (row.profile for row in self.reckoned.meals if row.key != meal.key)
            rest = Profile.total([*others, self.reckoned.supplements_profile])
        return Look(
            portions=[
                replace(
                    entry.portion,
                    limits=_limits(entry),
                    # what is eaten twice is told apart by its meal
                    name=entry.name
                    if names[entry.name] == 1 or not swaps
                    else f"{entry.name} ({entry.row.get_meal_display().lower()})",
                )
                for entry in entries
            ],
            besides=besides,
            chosen=meal.key if meal else WHOLE_DAY,
            options=meal_options(day),
            meal=meal,
            share=full.share if partial else None,
            words=words,
            star=False,
            rooms=rooms_of(
                day, [[one.portion for one in meal.entries] for meal in self.reckoned.meals]
            ),
            rest=rest,
            rest_planned=UNPLANNED if meal is None else SOME if full.empty else ALL,
        )

    def dishes(self, look: Look) -> Mapping[str, Sequence[Portion]]:
        out = {}
        for one in look.portions:
            row = self.entries[one.key].row
            if row.bowl_id:
                out[one.key] = self._bowls(row)
            elif row.recipe is not None:
                out[one.key] = others_in(
                    row.recipe.role,
                    [row.recipe_id],
                    one.grams,
                    self.gate,
                    self.client,
                    self.system,
                )
        return out

    def _bowls(self, row: DayEntry) -> tuple[Portion, ...]:
        """Other bowls of the client or of everybody, eaten whole, that hold nothing the client is
        not to have."""
        out = []
        others = Bowl.objects.filter(client=None) | Bowl.objects.filter(client=self.client)
        for bowl in others.exclude(pk=row.bowl_id)[: MOST_BOWLS * 2]:  # type: ignore[misc]
            portion = bowl_portion(reckon_bowl(bowl), f"bowl-{bowl.pk}")
            if portion.grams > 0 and not self.gate.why_not_dish(portion.foods):
                out.append(portion)
        return tuple(out[:MOST_BOWLS])

    def known(self) -> set[str]:
        return set(self.entries)

    def write(self, edits: Sequence[Edit], why: str, asked: QueryDict, version: int) -> str:
        """What is added goes into the meal that is asked for."""
        day, changed = self.record, []
        meal = asked.get("meal", "")
        for edit in edits:
            entry = self.entries.get(edit.key)
            if entry is None and edit.key:
                raise Outdated("That is no longer in the day.")
            row = (
                entry.row
                if entry
                else DayEntry(day=day, meal=meal if meal in dict(MEALS) else USUAL_MEAL)
            )
            self._write_row(row, entry, edit)
            changed.append((row, edit))
        _version, *by = asked_by(self.request)
        with day.changing(version, *by):
            for row, edit in changed:
                if edit.left_out:
                    if row.pk:
                        row.delete()
                    continue
                if edit.dish or edit.food:
                    plan_dish(row, day.practice)
                row.save()
        return why

    def _write_row(self, row: DayEntry, entry: Entry | None, edit: Edit) -> None:
        kind, _dash, pk = edit.dish.partition("-")
        if kind == "recipe":
            row.bowl, row.recipe, row.food = None, recipe_of(edit.dish), ""
            if row.recipe is None:
                raise Outdated("That recipe is no longer there.")
            row.amount = round(edit.grams / facts_of(row.recipe).serving.grams, 3)
        elif kind == "bowl":
            row.bowl, row.recipe, row.food = Bowl.objects.filter(pk=pk).first(), None, ""
            row.amount = 1.0
            if row.bowl is None:
                raise Outdated("That bowl is no longer there.")
        elif edit.food:
            row.bowl, row.recipe, row.food = None, None, swapped_in(edit.food).slug
            row.amount = edit.grams
            row.low_g, row.high_g = leveled_range(row.amount)
        elif row.food:
            row.amount = edit.grams
            row.low_g, row.high_g = leveled_range(row.amount)
        elif entry is not None:
            row.amount = round(edit.grams / entry.portion.unit_g, 3)

    def remake(self, key: str) -> str:
        entry = self.entries.get(key)
        if entry is None or entry.row.recipe is None:
            raise Outdated(
                "Only a recipe can be made without something here: open the bowl, or leave it out."
            )
        row, recipe, by = entry.row, entry.row.recipe, self.request.user
        made, said = made_without(recipe, recipe.title, self.client, self.gate, by)
        self._put(row, made)
        return said

    def lessen(self, key: str, food: str, left: float) -> str:
        entry = self.entries.get(key)
        if entry is None or entry.row.recipe is None:
            return super().lessen(key, food, left)
        row, by = entry.row, self.request.user
        made, said = made_with_less(row.recipe, self.client, food, left, by)
        self._put(row, made)
        return said

    def _put(self, row: DayEntry, recipe: Recipe) -> None:
        """The recipe in an entry's place. Raises StaleSave."""
        with self.record.changing(*asked_by(self.request)):
            row.recipe = recipe
            plan_dish(row, self.record.practice)
            row.save()

    def bench_url(self, key: str, nutrient: str, most: float, ml: float) -> str:
        entry = self.entries.get(key)
        return bench_for(entry.row.recipe_id, nutrient, most, ml) if entry is not None else ""

    def answer(self, key: str = "") -> HttpResponse:
        stored = PAGES.stored(self.record.pk)
        return PAGES.answer(self.request, stored)

    def page(self, context: dict[str, object]) -> HttpResponse:
        own = PAGES.context(self.request, self.record)
        return render(self.request, "planner/page.html", own | context)

    def stale(self, current: Day, what: str) -> HttpResponse:
        return PAGES.stale(self.request, current, what)

    def addresses(self, look: Look | None) -> dict[str, object]:
        own, meal = super().addresses(look), look.meal.key if look and look.meal else ""
        swap, goes_into = own["swap_url"], meal or USUAL_MEAL
        return own | {
            "take_url": f"{swap}?meal={meal}",
            "held_url": f"{swap}?meal={goes_into}",
            "add_meal": goes_into,
            "whole_day_words": "whole day, supplements counted",
        }

    def besides(self, look: Look) -> Profile:
        return look.rest if look.meal else self.reckoned.supplements_profile

    def strip_meal(self, look: Look) -> None:
        return None

    def pictures(self, look: Look, portions: Mapping[str, float]) -> dict[str, object]:
        eaten = Dish.of(self.key, "What is eaten", look.portions)
        return {
            "round": dish_round(eaten, "energy_kcal"),
            "ghosts": ghosts(look.portions, portions),
            "own_round": True,
        }

    def outline(self, look: Look, portions: Sequence[Portion]) -> dict[str, object]:
        room = sum(one.volume_ml for one in look.portions) / FILLED
        return self.pictures(look, {one.key: one.grams for one in look.portions}) | {
            "ghosts": outlined(portions, room)
        }


def _limits(entry: Entry) -> Limits:
    row, grams = entry.row, entry.profile.grams
    if row.food and entry.portion.food is not None:
        food = entry.portion.food
        return limits_around(servable(food, food.role), grams)
    counts = BOWL_COUNTS if row.bowl_id else SERVING_COUNTS
    unit_ml = entry.portion.volume_ml / row.amount if row.amount else 0.0
    one = entry.portion
    said = row.recipe.role if row.recipe is not None else ""
    role = role_of(one.name, one.foods, one.profile, said)
    rich = row.recipe is not None and servable(None, role).last
    return limits_by_count(counts, row.amount, entry.portion.unit_g, unit_ml, rich)
