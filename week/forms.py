"""What is typed of a week: its first day, its length; a skeleton, cell by cell."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import timedelta
from typing import Any

from django import forms
from django.utils import timezone

from nutrition.composition.dish_names import KINDS
from nutrition.planning.skeleton import (
    WEEKDAYS,
    BadSkeleton,
    Eater,
    Place,
    Skeleton,
    Weekday,
    checked,
    read_meal,
    say_places,
)
from nutrition.planning.skeleton_words import AWAY
from nutrition.planning.week import OVER_ALL, TURNS, Turns, Wishes
from nutrition.targets.meals import MEAL_NAMES
from week.models import LENGTHS, Week

# The meals whose rotation is typed, and that over all of them.
OVER_ALL_MEALS = "over_all"
ROTATED = {
    "breakfast": "Breakfast",
    "lunch": "Lunch, a pot or a batch",
    "dinner": "Dinner",
    OVER_ALL_MEALS: "Over all meals",
}
DAYS_BACK, DAYS_AHEAD = timedelta(days=366), timedelta(days=366)


class WeekForm(forms.Form):
    start = forms.DateField(label="First day", widget=forms.DateInput(attrs={"type": "date"}))
    days = forms.TypedChoiceField(label="How long", choices=LENGTHS, coerce=int, initial=7)

    def clean_start(self):
        start, today = self.cleaned_data["start"], timezone.localdate()
        if not today - DAYS_BACK <= start <= today + DAYS_AHEAD:
            raise forms.ValidationError("A week begins within a year of today.")
        return start


class SettingsForm(forms.Form):
    note = forms.CharField(max_length=200, required=False)
    container_ml = forms.FloatField(label="A container holds [mL]", min_value=50, max_value=10_000)


def next_monday():
    """The Monday that comes."""
    today = timezone.localdate()
    return today + timedelta(days=(7 - today.weekday()) % 7 or 7)


@dataclass(kw_only=True)
class TypedSkeleton:
    """A skeleton as it was typed, with what is wrong by field."""

    cells: dict[tuple[int, str], str] = field(default_factory=dict)
    packed: set[tuple[int, str]] = field(default_factory=set)
    away: set[tuple[int, str]] = field(default_factory=set)
    cooking: set[int] = field(default_factory=set)
    shopping: set[int] = field(default_factory=set)
    eaters: str = ""
    flask: bool = False
    turns: dict[str, str] = field(default_factory=dict)
    plants: str = ""
    colors: str = ""
    proteins: str = ""
    limits: dict[str, str] = field(default_factory=dict)
    # what words mean that were asked about, and those that are still to be asked about with where
    # they stand
    means: dict[str, str] = field(default_factory=dict)
    asked: dict[str, list[str]] = field(default_factory=dict)
    likely: dict[str, str] = field(default_factory=dict)
    errors: dict[str, str] = field(default_factory=dict)

    # what is wrong with all of it stands above it
    of_all = ("stale", "days", "limits", "cooking")

    @property
    def rows(self) -> list[dict[str, Any]]:
        """The grid: a row for each meal, a cell for each weekday."""
        return [
            {
                "meal": meal,
                "name": name,
                "cells": [
                    {
                        "day": day,
                        "weekday": WEEKDAYS[day],
                        "name": f"cell-{day}-{meal}",
                        "value": self.cells.get((day, meal), ""),
                        "packed": (day, meal) in self.packed,
                        "away": (day, meal) in self.away,
                        "error": self.errors.get(f"cell-{day}-{meal}", ""),
                    }
                    for day in range(7)
                ],
            }
            for meal, name in MEAL_NAMES.items()
        ]

    @property
    def questions(self) -> list[dict[str, str]]:
        """The words that are asked about, each once, with the first place where it stands."""
        return [
            {
                "word": word,
                "where": where[0],
                "more": str(len(where) - 1) if len(where) > 1 else "",
                "likely": self.likely.get(word, ""),
                "name": f"means-{at}",
                "word_name": f"word-{at}",
            }
            for at, (word, where) in enumerate(self.asked.items())
        ]

    @property
    def week(self) -> list[dict[str, Any]]:
        """The weekdays with whether one cooks and shops on them."""
        return [
            {"at": at, "name": name, "cooks": at in self.cooking, "shops": at in self.shopping}
            for at, name in enumerate(WEEKDAYS)
        ]

    @property
    def rotation(self) -> list[dict[str, str]]:
        """How often the same dish comes at each meal, and over all."""
        return [
            {
                "name": name,
                "row": f"turns-{key}-row",
                "row_value": self.turns.get(f"turns-{key}-row", ""),
                "week": f"turns-{key}-week",
                "week_value": self.turns.get(f"turns-{key}-week", ""),
                "error": self.errors.get(f"turns-{key}-row", "")
                or self.errors.get(f"turns-{key}-week", "")
                or self.errors.get(f"turns.{key}", ""),
            }
            for key, name in ROTATED.items()
        ]

    @property
    def kinds(self) -> list[dict[str, str]]:
        """Every kind that is typed somewhere, with its limit."""
        words = ", ".join(self.cells.values())
        return [
            {"kind": kind, "value": self.limits.get(kind, ""), "name": f"limit-{kind}"}
            for kind in KINDS
            if kind in words
        ]


def as_typed(skeleton: Skeleton) -> TypedSkeleton:
    """A skeleton as its form shows it."""
    typed = TypedSkeleton(
        cooking=set(skeleton.cooking),
        shopping=set(skeleton.shopping),
        eaters="\n".join(_eater_words(one) for one in skeleton.eaters),
        flask=skeleton.flask,
        turns={
            name: str(value)
            for key in ROTATED
            for name, value in _turns_typed(key, _turns_of(skeleton.wishes, key)).items()
        },
        plants=str(skeleton.wishes.plants),
        colors=str(skeleton.wishes.colors),
        proteins=str(skeleton.wishes.proteins),
        limits={kind: str(most) for kind, most in skeleton.limits.items()},
        means=dict(skeleton.means),
    )
    for day, weekday in enumerate(skeleton.days):
        for meal, places in weekday.meals.items():
            typed.cells[day, meal] = say_places(places)
        typed.packed |= {(day, meal) for meal in weekday.packed}
        typed.away |= {(day, meal) for meal in weekday.away}
    return typed


def typed_in(data: Mapping[str, Any]) -> TypedSkeleton:
    """A skeleton as it was sent."""
    typed = TypedSkeleton(
        eaters=str(data.get("eaters", "")),
        flask=bool(data.get("flask")),
        turns={
            name: str(data.get(name, ""))
            for key in ROTATED
            for name in (f"turns-{key}-row", f"turns-{key}-week")
        },
        plants=str(data.get("plants", "")),
        colors=str(data.get("colors", "")),
        proteins=str(data.get("proteins", "")),
    )
    for day in range(7):
        if data.get(f"cooks-{day}"):
            typed.cooking.add(day)
        if data.get(f"shops-{day}"):
            typed.shopping.add(day)
        for meal in MEAL_NAMES:
            typed.cells[day, meal] = str(data.get(f"cell-{day}-{meal}", ""))
            if data.get(f"packed-{day}-{meal}"):
                typed.packed.add((day, meal))
            if data.get(f"away-{day}-{meal}"):
                typed.away.add((day, meal))
    for at in range(MOST_ASKED):
        word, kind = str(data.get(f"word-{at}", "")), str(data.get(f"means-{at}", ""))
        if word and kind in (*KINDS, AWAY):
            typed.means[word] = kind
    for kind in KINDS:
        value = str(data.get(f"limit-{kind}", "")).strip()
        if value:
            typed.limits[kind] = value
    return typed


def read_skeleton(typed: TypedSkeleton) -> Skeleton | None:
    """The skeleton that was typed; None where something is wrong, which then stands beside it."""
    days = _days(typed)
    if not typed.errors and not any(day.meals for day in days):
        typed.errors["days"] = "Write at least one meal, such as “soup, salad”."
    eaters = _eaters(typed)
    turns = {key: _turns(typed, key) for key in ROTATED}
    wishes = Wishes(
        over_all=turns.pop(OVER_ALL_MEALS),
        turns={**TURNS, **turns},
        plants=_whole(typed, "plants", typed.plants, 0),
        colors=_whole(typed, "colors", typed.colors, 0),
        proteins=_whole(typed, "proteins", typed.proteins, 0),
    )
    limits = {
        kind: _whole(typed, f"limit-{kind}", value, 4) for kind, value in typed.limits.items()
    }
    if typed.errors:
        return None
    try:
        return checked(
            Skeleton(
                days=tuple(days),
                eaters=tuple(eaters),
                cooking=frozenset(typed.cooking),
                shopping=frozenset(typed.shopping),
                limits=limits,
                wishes=wishes,
                flask=typed.flask,
                means=typed.means,
            )
        )
    except BadSkeleton as error:
        typed.errors[str(error.field)] = str(error)
        return None


def _days(typed: TypedSkeleton) -> list[Weekday]:
    """The meals of each weekday; what cannot be read stands beside its cell, in the same words only
    once, and a word that nobody knows is asked about."""
    days = []
    told: dict[str, str] = {}
    for day in range(7):
        meals = {}
        for meal in MEAL_NAMES:
            try:
                places, not_planned = _meal(typed, day, meal)
            except BadSkeleton as error:
                said, where = str(error), f"{WEEKDAYS[day]}, {MEAL_NAMES[meal].lower()}"
                if error.word:
                    typed.asked.setdefault(error.word, []).append(where)
                    typed.likely[error.word] = error.likely
                    typed.errors[f"cell-{day}-{meal}"] = f"“{error.word}”: see above."
                    continue
                typed.errors[f"cell-{day}-{meal}"] = (
                    f"As on {told[said]}." if said in told else said
                )
                told.setdefault(said, where)
                continue
            if not_planned:
                typed.away.add((day, meal))
            if places or not_planned:
                meals[meal] = places
        days.append(
            Weekday(
                meals,
                frozenset(meal for at, meal in typed.packed if at == day and meal in meals),
                frozenset(meal for at, meal in typed.away if at == day and meal in meals),
            )
        )
    return days


def _meal(typed: TypedSkeleton, day: int, meal: str) -> tuple[tuple[Place, ...], bool]:
    """The places of a meal, and whether it is not planned at all. Raises BadSkeleton."""
    text = typed.cells.get((day, meal), "")
    if len(text) > MOST_IN_CELL:
        raise BadSkeleton(meal, f"That is {len(text)} characters, and {MOST_IN_CELL} can be kept.")
    return read_meal(text, meal, typed.means)


def _turns_of(wishes: Wishes, key: str) -> Turns:
    return wishes.over_all if key == OVER_ALL_MEALS else wishes.turns[key]


def _turns_typed(key: str, turns: Turns) -> dict[str, int]:
    return {f"turns-{key}-row": turns.in_a_row, f"turns-{key}-week": turns.a_week}


def _turns(typed: TypedSkeleton, key: str) -> Turns:
    """How often the same dish comes at a meal, as it was typed; as usual where nothing was."""
    usual = OVER_ALL if key == OVER_ALL_MEALS else TURNS[key]
    row, week = f"turns-{key}-row", f"turns-{key}-week"
    return Turns(
        _whole(typed, row, typed.turns.get(row, ""), usual.in_a_row),
        _whole(typed, week, typed.turns.get(week, ""), usual.a_week),
    )


def _whole(typed: TypedSkeleton, name: str, text: str, usual: int) -> int:
    text = text.strip()
    if not text:
        return usual
    if not text.isascii() or not text.isdigit() or len(text) > 3:
        typed.errors[name] = f"“{text}” is no whole number."
        return usual
    return int(text)


# What is kept of each. [characters]
MOST_IN_CELL, MOST_OF_EATERS, MOST_NAME, MOST_ASKED = 200, 1000, 60, 40
EATER = re.compile(
    r"^(?P<name>.*?\D)\s+(?P<share>\d+(?:[.,]\d+)?|\d+/\d+)\s*(?:,\s*(?P<meals>.*))?$"
)


def _eaters(typed: TypedSkeleton) -> list[Eater]:
    """A line for each: "Jory 0.6", "the twins 1.5, dinner, breakfast"."""
    out = []
    if len(typed.eaters) > MOST_OF_EATERS:
        typed.errors["eaters"] = (
            f"That is {len(typed.eaters):,} characters, and {MOST_OF_EATERS:,} can be kept."
        )
        return []
    for line in typed.eaters.splitlines():
        if not line.strip():
            continue
        match = EATER.match(line.strip())
        if match is None:
            typed.errors["eaters"] = (
                f"“{line.strip()[:60]}”: write a name and a portion beside the client's, such as "
                "“Jory 0.6” or “Jory 0.6, dinner”."
            )
            continue
        words = [word.strip().lower() for word in (match["meals"] or "").split(",") if word.strip()]
        names = {name.lower(): key for key, name in MEAL_NAMES.items()} | {
            key: key for key in MEAL_NAMES
        }
        unknown = [word for word in words if word not in names]
        if unknown:
            typed.errors["eaters"] = f"“{unknown[0]}” is no meal ({', '.join(MEAL_NAMES)})."
            continue
        share = match["share"].replace(",", ".")
        top, _slash, under = share.partition("/")
        portion = float(top) / float(under) if under and float(under) else float(top)
        meals = frozenset(names[word] for word in words)
        if len(match["name"].strip()) > MOST_NAME:
            typed.errors["eaters"] = f"“{line[:60]}…”: a name has {MOST_NAME} characters at most."
            continue
        out.append(Eater(match["name"].strip(), portion, meals))
    return out


def _eater_words(one: Eater) -> str:
    meals = [name.lower() for key, name in MEAL_NAMES.items() if key in one.meals]
    return ", ".join([f"{one.name} {one.share:g}", *meals])


def form_of(week: Week) -> SettingsForm:
    return SettingsForm(initial={"note": week.note, "container_ml": f"{week.container_ml:g}"})
