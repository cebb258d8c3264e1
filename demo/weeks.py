"""The demo practice's weeks: skeletons, favorites, and what stands in a week as it was planned."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from datetime import timedelta
from pathlib import Path
from typing import Any

from bowls.models import Bowl
from clients.models import Client
from clients.plan.versions import version_on
from nutrition.planning.skeleton import (
    WEEKDAYS,
    Eater,
    Skeleton,
    Weekday,
    as_data,
    checked,
    read_places,
    turns_with,
)
from nutrition.planning.week import Wishes
from nutrition.targets.meals import MEAL_NAMES
from practice.models import Practice, User
from recipes.models import Recipe
from shopping.models import Package, Stock
from week.changes import put
from week.dishes import thing_of
from week.favorites import decide
from week.forms import next_monday
from week.models import ClientSkeleton, Week
from week.planner_days import make_days
from week.problem import pose

HERE = Path(__file__).resolve().parent
# What the practice knows of its shops, and what one kitchen has.
PACKAGES = (
    ("rolled-oats-dry", "bag", 500.0, "2.40"),
    ("split-peas-dry", "bag", 500.0, "1.90"),
    ("rye-bread", "loaf", 750.0, "4.60"),
)
IN_THE_KITCHEN = {
    "family": (("rolled-oats-dry", 300.0), ("barley-pearled-dry", 250.0), ("walnuts", 120.0))
}
# Days of the planner are made from this one's week.
WITH_DAYS = "family"


def rows() -> dict[str, dict[str, Any]]:
    """The clients that have a skeleton of their own, by their keys."""
    return tomllib.loads((HERE / "weeks.toml").read_text(encoding="utf-8"))


def planned_rows() -> dict[str, dict[str, list[Any]]]:
    """What stands in each slot of each client's week: the dish, and how many of it."""
    return tomllib.loads((HERE / "planned.toml").read_text(encoding="utf-8"))


def skeleton_in(row: Mapping[str, Any]) -> Skeleton:
    """A skeleton from its row; a meal with several texts has them in turn."""
    days = []
    for at, name in enumerate(WEEKDAYS):
        meals = {}
        for meal in MEAL_NAMES:
            texts = row.get(meal, [])
            texts = [texts] if isinstance(texts, str) else texts
            if texts:
                meals[meal] = read_places(texts[at % len(texts)])
        packed = frozenset(row.get("packed", ())) if at < 5 else frozenset()
        away = frozenset(row.get("away", {}).get(name, ()))
        days.append(Weekday(meals, packed & set(meals), away))
    eaters = tuple(
        Eater(name, share, frozenset(meals)) for name, share, meals in row.get("eaters", ())
    )
    return checked(
        Skeleton(
            days=tuple(days),
            eaters=eaters,
            cooking=frozenset(WEEKDAYS.index(name) for name in row["cooking"]),
            shopping=frozenset(WEEKDAYS.index(name) for name in row.get("shopping", ())),
            limits={"fruit": 4},
            flask=row.get("flask", False),
            wishes=Wishes(
                turns=turns_with({}, row["in_a_row"]), plants=row["plants"], colors=row["colors"]
            ),
        )
    )


def key_named(name: str) -> str:
    """What the planning knows a dish of the demo by: a recipe's title, a bowl's name, or a
    food."""
    recipe = Recipe.objects.filter(title=name).first()
    if recipe is not None:
        return f"recipe-{recipe.pk}"
    bowl = Bowl.objects.filter(name=name).first()
    return f"bowl-{bowl.pk}" if bowl else f"food-{name}"


def name_of(key: str) -> str:
    """The name of a dish in the demo's data."""
    kind, _dash, rest = key.partition("-")
    if kind == "recipe":
        return Recipe.objects.get(pk=int(rest)).title
    return Bowl.objects.get(pk=int(rest)).name if kind == "bowl" else rest


def load_weeks(practice: Practice, user: User, clients: Mapping[str, Client]) -> None:
    """The skeletons, favorites and weeks of those who have them; a price and a stock."""
    begin_weeks(practice, user, clients)
    planned = planned_rows()
    for key in rows():
        week = Week.objects.get(client=clients[key])
        for slot, (name, count) in planned.get(key, {}).items():
            thing = thing_of(key_named(name), clients[key])
            if thing is not None:
                put(week, slot, thing, count, pinned=slot == "2-dinner-0")
        if key == WITH_DAYS:
            make_days(week, user)
    for food, unit, grams, price in PACKAGES:
        Package.objects.create(practice=practice, food=food, unit=unit, grams=grams, price=price)
    for key, stock in IN_THE_KITCHEN.items():
        for food, grams in stock:
            Stock.objects.create(client=clients[key], food=food, grams=grams)


def begin_weeks(practice: Practice, user: User, clients: Mapping[str, Client]) -> None:
    """The skeletons, favorites and weeks with nothing in them yet."""
    start = next_monday()
    for key, row in rows().items():
        client, data = clients[key], as_data(skeleton_in(row))
        ClientSkeleton.objects.create(practice=practice, client=client, data=data)
        for verdict, word in (("kept", "kept"), ("refused", "refused")):
            for kind, names in row.get(word, {}).items():
                for name in names:
                    if decide(client, kind, key_named(name), verdict, user) is None:
                        raise ValueError(f"weeks.toml, {key}: there is no {name}")
        Week.objects.create(
            practice=practice,
            client=client,
            start=start - timedelta(days=7) if key == WITH_DAYS else start,
            note=row["note"],
            made_for=version_on(client, start),
            skeleton=data,
        )


def posed_of(client: Client):
    """A client's week as the planning sees it."""
    return pose(Week.objects.get(client=client))
