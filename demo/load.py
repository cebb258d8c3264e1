"""Fill an empty database with the demo practice: made-up people in a made-up harbor town."""

from __future__ import annotations

import math
import tomllib
from datetime import timedelta
from pathlib import Path
from typing import Any

from django.utils import timezone
from django_scopes import scope

from bowls.models import Bowl, BowlPart
from clients.models import Client, TargetOverride, WeighIn
from planner.models import MEALS, Day, DayEntry
from practice.models import Practice, User
from recipes.facts import facts_of
from recipes.models import Recipe

HERE = Path(__file__).resolve().parent
NAME, PASSWORD = "marin", "tern-point-kettle"
OTHER_NAME, OTHER_PASSWORD = "solveig", "gull-rock-ladle"


def _recipes(practice: Practice) -> dict[str, Recipe]:
    out = {}
    for block in (HERE / "recipes.txt").read_text(encoding="utf-8").strip().split("\n\n"):
        head, *rest = block.splitlines()
        title, role, servings, *batch = (part.strip() for part in head.removeprefix("# ").split("|"))
        lines = [line for line in rest if not line.startswith("--")]
        method = " ".join(line.removeprefix("--").strip() for line in rest if line.startswith("--"))
        out[title] = Recipe.objects.create(
            practice=practice, title=title, role=role, servings=float(servings), batch_g=float(batch[0]) if batch else None,
            text="\n".join(lines), method=method,
        )  # fmt: skip
    return out


def _weigh_ins(client: Client, plan: dict[str, float]) -> None:
    """Every other day, along a line with a wobble that is the same at every load."""
    today = timezone.localdate()
    for ago in range(int(plan["days"]), int(plan["last_days_ago"]) - 1, -2):
        done = plan["days"] - ago
        wobble = plan["wobble_kg"] * math.sin(done * 1.7) * math.cos(done * 0.31)
        kg = round(plan["first_kg"] + plan["kg_per_week"] * done / 7 + wobble, 1)
        WeighIn.objects.create(client=client, date=today - timedelta(days=ago), kg=kg)


def load() -> None:
    """Two practices, so that one can be seen not to reach the other; the first has all the work in it."""
    scenario = tomllib.loads((HERE / "scenario.toml").read_text(encoding="utf-8"))
    practice = Practice.objects.create(name="Tern Point Wellness", town="Harrow Sound", contact="Ask at the desk above the chandlery")
    user = User.objects.create_user(NAME, password=PASSWORD, first_name="Marin", last_name="Oakes", practice=practice)
    other = Practice.objects.create(name="Gull Rock Kitchen Practice", town="Gull Rock")
    User.objects.create_user(OTHER_NAME, password=OTHER_PASSWORD, first_name="Solveig", last_name="Marr", practice=other)
    with scope(practice=other):
        Recipe.objects.create(practice=other, title="Somebody else's barley", text="1 cup pearl barley, dry", servings=2)
    with scope(practice=practice):
        recipes = _recipes(practice)
        clients = {row["key"]: _client(practice, user, row) for row in scenario["clients"]}
        bowls = {row["name"]: _bowl(practice, clients, recipes, row) for row in scenario["bowls"]}
        for row in scenario["days"]:
            _day(practice, clients, recipes, bowls, row)


def _client(practice: Practice, user: User, row: dict[str, Any]) -> Client:
    fields = {key: value for key, value in row.items() if key not in ("key", "weigh_ins", "targets")}
    client = Client.objects.create(practice=practice, **fields)
    _weigh_ins(client, row["weigh_ins"])
    for target in row.get("targets", ()):
        TargetOverride.objects.create(client=client, by=user, **target)
    return client


def _bowl(practice: Practice, clients: dict[str, Client], recipes: dict[str, Recipe], row: dict[str, Any]) -> Bowl:
    client = clients.get(row.get("client", ""))
    bowl = Bowl.objects.create(practice=practice, name=row["name"], client=client, vessel_ml=row["vessel_ml"])
    for place, (role, what, grams) in enumerate(row["parts"]):
        recipe = recipes.get(what)
        BowlPart.objects.create(
            bowl=bowl,
            role=role,
            recipe=recipe,
            food="" if recipe else what,
            grams=grams,
            low_g=grams * 0.92,
            high_g=grams * 1.08,
            basis="leveled measure",
            place=place,
        )
    return bowl


def _day(practice: Practice, clients: dict[str, Client], recipes: dict[str, Recipe], bowls: dict[str, Bowl], row: dict[str, Any]) -> None:
    date = timezone.localdate() + timedelta(days=row["in_days"])
    day = Day.objects.create(practice=practice, client=clients[row["client"]], date=date, note=row["note"])
    for meal, _name in MEALS:
        for kind, what, amount in row.get(meal, ()):
            entry = DayEntry(day=day, meal=meal, amount=amount)
            if kind == "recipe":
                entry.recipe = recipes[what]
            elif kind == "bowl":
                entry.bowl = bowls[what]
            else:
                entry.food = what
            entry.save()


def unsettled() -> list[str]:
    """Titles of demo recipes with lines that cannot be counted."""
    return [recipe.title for recipe in Recipe.objects.all() if facts_of(recipe).unresolved]
