"""A bowl as something that can be changed: its portions, other recipes in a part's place, and an
edit as one step that can be undone."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from functools import cached_property

from django.http import HttpResponse, QueryDict
from django.shortcuts import render
from django.urls import reverse

from bowls.bench_address import bench_for
from bowls.bowl import Part, Reckoned, reckon_bowl
from bowls.models import Bowl, BowlPart
from bowls.page import PAGES, client_of, judged_meal, part_addresses
from changes.aims import WHOLE_DAY, meal_options
from changes.changeable import Changeable, Look
from changes.offers import Edit, Outdated, swapped_in
from clients.models import Client
from clients.pages.context import PageRequest
from nutrition.composition.food_classes import classes_of
from nutrition.composition.foods import ROLES
from nutrition.composition.portion import Portion
from nutrition.composition.profile import Profile
from nutrition.portions.part_role import role_of
from nutrition.portions.problem import PlateShare
from nutrition.portions.serving_limits import limits_around
from nutrition.portions.serving_rules import servable
from nutrition.portions.stomach_room import rooms_of
from nutrition.targets.schools import School
from practice.undo import asked_by
from recipes.client_copies import made_without
from recipes.dishes import others_in, recipe_of
from recipes.lessened import made_with_less
from recipes.models import Recipe
from webkit.drawing.dishes import dish_round, ghosts, outlined


class BowlChanges(Changeable):
    kind, pages = "bowl", "bowls"
    no_plan = "Choose a client whose targets are known: a bowl is balanced against them."
    nothing = "There is nothing to balance yet: add parts below."
    balance_words = "This bowl is"
    swap_words = "This bowl is"

    @classmethod
    def opened(cls, request: PageRequest, pk: int) -> tuple[BowlChanges, HttpResponse | None]:
        bowl, elsewhere = PAGES.opened(request, pk)
        return cls(request, bowl), elsewhere

    @property
    def client(self) -> Client | None:
        return client_of(self.request, self.record)

    @cached_property
    def reckoned(self) -> Reckoned:
        return reckon_bowl(self.record)

    def look(self, asked: QueryDict, swaps: bool = False) -> Look:
        """Judged by the meal that is asked for, or as the bowl's own page judges it."""
        day = self.day
        meal, words = judged_meal(self.record, self.plan, self.client, asked.get("meal", ""))
        vessel, star, plate = (
            name in asked or ("asked" not in asked and name != "plate")
            for name in ("vessel", "star", "plate")
        )
        switches = [
            ("vessel", f"fits the {self.record.vessel_ml:,.0f} mL bowl", vessel),
            ("star", "the star stays the largest", star),
        ]
        if day.school:
            switches.append(("plate", f"the plate of {day.school.name}", plate))
        return Look(
            portions=[_limited(part, star and part.portion.star) for part in self.reckoned.parts],
            besides=Profile.empty(),
            chosen=meal.key if meal else WHOLE_DAY,
            options=meal_options(day),
            meal=meal,
            chosen_words=words,
            vessel_ml=float(self.record.vessel_ml) if vessel else None,
            rooms=rooms_of(day, [[part.portion for part in self.reckoned.parts]]),
            star=star,
            plate=_plate(day.school, self.reckoned) if plate and day.school else (),
            switches=switches,
        )

    def dishes(self, look: Look) -> Mapping[str, Sequence[Portion]]:
        used = [part.row.recipe_id for part in self.reckoned.parts]
        return {
            str(part.pk): others_in(
                part.row.role, used, part.row.grams, self.gate, self.client, self.system
            )
            for part in self.reckoned.parts
        }

    def known(self) -> set[str]:
        return {str(part.pk) for part in self.reckoned.parts}

    def write(self, edits: Sequence[Edit], why: str, asked: QueryDict, version: int) -> str:
        bowl = self.record
        rows = {str(row.pk): row for row in bowl.parts.all()}
        changed = []
        for edit in edits:
            row = rows.get(edit.key) if edit.key else BowlPart(bowl=bowl, place=len(rows) + 1)
            if row is None:
                raise Outdated("That part is no longer in the bowl.")
            if edit.dish:
                row.recipe, row.food = recipe_of(edit.dish), ""
                if row.recipe is None:
                    raise Outdated("That recipe is no longer there.")
            elif edit.food:
                food = swapped_in(edit.food)
                if not edit.key:
                    row.role = food.role if food.role in ROLES else "topping"
                row.recipe, row.food = None, food.slug
            row.level(edit.grams)
            changed.append((row, edit))
        _version, *by = asked_by(self.request)
        with bowl.changing(version, *by):
            for row, edit in changed:
                if edit.left_out:
                    row.delete()
                else:
                    row.save()
        return why

    def remake(self, key: str) -> str:
        part, recipe, client = self._made_again(key)
        made, said = made_without(recipe, part.name, client, self.gate, self.request.user)
        self._put(part, made)
        return said

    def _recipe_in(self, key: str) -> tuple[Part, Recipe]:
        """The part that is a recipe, and that. Raises Outdated where it is not there."""
        part = next((part for part in self.reckoned.parts if str(part.pk) == key), None)
        if part is None or part.row.recipe is None:
            raise Outdated("That part is no longer in the bowl.")
        return part, part.row.recipe

    def lessen(self, key: str, food: str, left: float) -> str:
        part, recipe, client = self._made_again(key)
        made, said = made_with_less(recipe, client, food, left, self.request.user)
        self._put(part, made)
        return said

    def _made_again(self, key: str) -> tuple[Part, Recipe, Client]:
        """The part that is a recipe, that, and whose own it is made as. Raises Outdated."""
        part, recipe = self._recipe_in(key)
        if self.client is None:
            raise Outdated("Choose a client: the recipe is made again as theirs.")
        return part, recipe, self.client

    def _put(self, part: Part, recipe: Recipe) -> None:
        """The recipe in a part's place. Raises StaleSave."""
        with self.record.changing(*asked_by(self.request)) as stored:
            stored.parts.filter(pk=part.pk).update(recipe=recipe)

    def bench_url(self, key: str, nutrient: str, most: float, ml: float) -> str:
        return bench_for(self._recipe_in(key)[1].pk, nutrient, most, ml)

    def answer(self, key: str = "") -> HttpResponse:
        return PAGES.answer(self.request, PAGES.stored(self.record.pk))

    def page(self, context: dict[str, object]) -> HttpResponse:
        own = PAGES.context(self.request, self.record)
        return render(self.request, "bowls/page.html", own | context)

    def stale(self, current: Bowl, what: str) -> HttpResponse:
        return PAGES.stale(self.request, current, what)

    def addresses(self, look: Look | None) -> dict[str, object]:
        limits = [
            (part, reverse("bowls:limits", args=[self.record.pk, part.pk]))
            for part in self.reckoned.parts
            if look
        ]
        return super().addresses(look) | {"limits_of": limits, "whole_day_words": "whole day"}

    def pictures(self, look: Look, portions: Mapping[str, float]) -> dict[str, object]:
        vessel = self.record.vessel_ml
        return {
            "round": dish_round(
                self.reckoned.dish, "protein_g", vessel, part_addresses(self.reckoned)
            ),
            "ghosts": ghosts(look.portions, portions, vessel),
            "round_label": f"{self.record.name}: parts by volume, the proposal outlined",
        }

    def outline(self, look: Look, portions: Sequence[Portion]) -> dict[str, object]:
        return self.pictures(look, {one.key: one.grams for one in look.portions}) | {
            "ghosts": outlined(portions, self.record.vessel_ml)
        }


def _limited(part: Part, star: bool) -> Portion:
    row = part.row
    food = part.foods[0].food if row.food else None
    served = servable(food, role_of(part.name, part.foods, part.profile, row.role))
    return replace(
        part.portion, limits=limits_around(served, row.grams, row.least_g, row.most_g, star)
    )


def _plate(school: School, bowl: Reckoned) -> tuple[PlateShare, ...]:
    """The school's plate: a part belongs where most of its grams do."""
    out = []
    for share in school.plate:
        ids = set()
        for part in bowl.parts:
            inside = sum(
                one.grams
                for one in part.foods
                if not classes_of(one.food).isdisjoint(share.classes)
            )
            if inside * 2 > sum(one.grams for one in part.foods):
                ids.add(str(part.pk))
        if ids:
            out.append(PlateShare(share.part, frozenset(ids), share.share))
    return tuple(out)
