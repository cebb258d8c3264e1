"""What is typed of a week: its first day, its length; a skeleton, cell by cell."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import timedelta
from typing import Any

from django import forms
from django.utils import timezone

from nutrition.planning.kinds import KINDS
from nutrition.planning.skeleton import (
    WEEKDAYS,
    BadSkeleton,
    Eater,
    Skeleton,
    Weekday,
    checked,
    read_places,
    say_places,
)
from nutrition.planning.week import Wishes
from nutrition.targets.meals import MEAL_NAMES
from week.models import LENGTHS, Week

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
    in_a_row: str = ""
    plants: str = ""
    colors: str = ""
    limits: dict[str, str] = field(default_factory=dict)
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
    def week(self) -> list[dict[str, Any]]:
        """The weekdays with whether one cooks and shops on them."""
        return [
            {"at": at, "name": name, "cooks": at in self.cooking, "shops": at in self.shopping}
            for at, name in enumerate(WEEKDAYS)
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
        in_a_row=str(skeleton.wishes.in_a_row),
        plants=str(skeleton.wishes.plants),
        colors=str(skeleton.wishes.colors),
        limits={kind: str(most) for kind, most in skeleton.limits.items()},
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
        in_a_row=str(data.get("in_a_row", "")),
        plants=str(data.get("plants", "")),
        colors=str(data.get("colors", "")),
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
    for kind in KINDS:
        value = str(data.get(f"limit-{kind}", "")).strip()
        if value:
            typed.limits[kind] = value
    return typed


def read_skeleton(typed: TypedSkeleton) -> Skeleton | None:
    """The skeleton that was typed; None where something is wrong, which then stands beside it."""
    days = []
    # what is wrong in the same way on several days is told once
    told: dict[str, str] = {}
    for day in range(7):
        meals = {}
        for meal in MEAL_NAMES:
            text = typed.cells.get((day, meal), "")
            try:
                if len(text) > MOST_IN_CELL:
                    raise BadSkeleton(
                        meal, f"That is {len(text)} characters, and {MOST_IN_CELL} can be kept."
                    )
                places = read_places(text)
            except BadSkeleton as error:
                said, where = str(error), f"{WEEKDAYS[day]}, {MEAL_NAMES[meal].lower()}"
                typed.errors[f"cell-{day}-{meal}"] = (
                    f"As on {told[said]}." if said in told else said
                )
                told.setdefault(said, where)
                continue
            if places:
                meals[meal] = places
        days.append(
            Weekday(
                meals,
                frozenset(meal for at, meal in typed.packed if at == day and meal in meals),
                frozenset(meal for at, meal in typed.away if at == day and meal in meals),
            )
        )
    if not typed.errors and not any(day.meals for day in days):
        typed.errors["days"] = "Write at least one meal, such as “soup, salad”."
    eaters = _eaters(typed)
    wishes = Wishes(
        in_a_row=_whole(typed, "in_a_row", typed.in_a_row, 3),
        plants=_whole(typed, "plants", typed.plants, 0),
        colors=_whole(typed, "colors", typed.colors, 0),
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
            )
        )
    except BadSkeleton as error:
        typed.errors[str(error.field)] = str(error)
        return None


def _whole(typed: TypedSkeleton, name: str, text: str, usual: int) -> int:
    text = text.strip()
    if not text:
        return usual
    if not text.isascii() or not text.isdigit() or len(text) > 3:
        typed.errors[name] = f"“{text}” is no whole number."
        return usual
    return int(text)


# What is kept of each. [characters]
MOST_IN_CELL, MOST_OF_EATERS, MOST_NAME = 200, 1000, 60
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
