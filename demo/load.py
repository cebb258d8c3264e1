"""Fill an empty database with the demo practice: made-up people in a made-up harbor town."""

from __future__ import annotations

import math
import tomllib
from datetime import datetime, time, timedelta
from pathlib import Path
from typing import Any

from django.conf import settings
from django.utils import timezone
from django_scopes import scope

from bowls.models import Bowl, BowlPart
from clients.models import (
    BloodValue,
    CautionDismissal,
    Client,
    ClientLook,
    ClientSupplement,
    Intake,
    TargetOverride,
    WeighIn,
)
from clients.plan.looks import bring_up_to_date
from clients.plan.versions import make_version, version_on
from demo.at_work import at_work
from demo.follow_up import follow, stretches
from demo.follow_up import rows as followed
from demo.handing_over import load_handing_over
from demo.kitchen import load_kitchen
from demo.pantry import load_pantry
from demo.weeks import load_weeks
from demo.weeks import rows as weeks_of
from nutrition.composition.foods import food_table
from nutrition.targets.schools import school_data
from nutrition.written.guess import read_guess
from pantry.in_force import foods_of_practice
from pantry.models import OwnFood
from planner.models import MEALS, Day, DayEntry
from planner.planned_copies import plan_dish, plan_out
from plates.models import OldDish
from practice.models import Practice, User
from practice.roles import ASSISTANT, OWNER, PRACTITIONER, READER
from recipes.facts import facts_of
from recipes.models import Recipe
from recipes.shelf.dishes import as_recipe, read_dishes, shelf_of
from recipes.versions import keep
from schools.models import OwnSchool

HERE = Path(__file__).resolve().parent
NAME, OTHER_NAME = "marin", "solveig"
PASSWORD, OTHER_PASSWORD = settings.DEMO_PASSWORDS
# who else works at Tern Point, by sign-in, and as what
COLLEAGUES = (
    ("ansel", "Ansel", "Virtanen", PRACTITIONER),
    ("joss", "Joss", "Pell", ASSISTANT),
    ("wilma", "Wilma", "Strand", READER),
)


def _recipes(practice: Practice) -> dict[str, Recipe]:
    """The first of the shelf's dishes, those of the rest that somebody eats in a week, and one that
    is still to be settled."""
    own = read_dishes((HERE / "recipes.txt").read_text(encoding="utf-8"))
    liked = {
        name for row in weeks_of().values() for names in row["kept"].values() for name in names
    }
    more = [dish for dish in shelf_of("more") if dish.title in liked]
    out = {}
    for dish in (*shelf_of("harbor"), *more, *own):
        recipe = as_recipe(dish, practice)
        recipe.save()
        out[dish.title] = recipe
    return out


# A recipe as it was first cooked: the line now, the line then, and why it was changed.
CHANGED = (
    (
        "Miso and ginger dressing",
        "2 tbsp white miso",
        "3 tbsp white miso",
        "a third less miso: sodium",
    ),
    (
        "Dill barley with white beans",
        "1/4 tsp salt",
        "1/2 tsp salt\n1 tbsp olive oil",
        "no finishing oil, half the salt",
    ),
)


def _versions(recipes: dict[str, Recipe], user: User) -> None:
    """What was changed in a recipe, kept with its reason."""
    for title, now, then, why in CHANGED:
        recipe = recipes[title]
        if now not in recipe.text:
            raise ValueError(f"{title} has no line “{now}”")
        text = recipe.text
        recipe.text = text.replace(now, then)
        keep(recipe, user, "as it was first cooked")
        recipe.text = text
        keep(recipe, user, why)


def _weigh_ins(client: Client, plan: dict[str, float]) -> None:
    """Every other day, along a line with a wobble that is the same at every load."""
    today = timezone.localdate()
    for ago in range(int(plan["days"]), int(plan["last_days_ago"]) - 1, -2):
        done = plan["days"] - ago
        wobble = plan["wobble_kg"] * math.sin(done * 1.7) * math.cos(done * 0.31)
        kg = round(plan["first_kg"] + plan["kg_per_week"] * done / 7 + wobble, 1)
        WeighIn.objects.create(client=client, date=today - timedelta(days=ago), kg=kg)


def _practices() -> tuple[Practice, User, Practice]:
    """The practice with all the work in it, its owner, and one that reaches nothing of it."""
    practice = Practice.objects.create(
        name="Tern Point Wellness",
        town="Harrow Sound",
        contact="Ask at the desk above the chandlery",
    )
    user = User.objects.create_user(
        NAME,
        password=PASSWORD,
        first_name="Marin",
        last_name="Oakes",
        practice=practice,
        role=OWNER,
    )
    for name, first, last, role in COLLEAGUES:
        User.objects.create_user(
            name, password=PASSWORD, first_name=first, last_name=last, practice=practice, role=role
        )
    other = Practice.objects.create(name="Gull Rock Kitchen Practice", town="Gull Rock")
    User.objects.create_user(
        OTHER_NAME,
        password=OTHER_PASSWORD,
        first_name="Solveig",
        last_name="Marr",
        practice=other,
        role=OWNER,
    )
    return practice, user, other


def load() -> None:
    """Two practices, so that one can be seen not to reach the other; the first has all the work in
    it."""
    scenario, more, care = (
        tomllib.loads((HERE / name).read_text(encoding="utf-8"))
        for name in ("scenario.toml", "more_clients.toml", "care_clients.toml")
    )
    practice, user, other = _practices()
    with scope(practice=other):
        Recipe.objects.create(
            practice=other,
            title="Somebody else's barley",
            text="1 cup pearl barley, dry",
            servings=2,
        )
    with scope(practice=practice):
        load_pantry(practice, user)
    with scope(practice=practice), foods_of_practice(practice):
        recipes = _recipes(practice)
        _versions(recipes, user)
        clients = {
            row["key"]: _client(practice, user, row)
            for row in scenario["clients"] + more["clients"] + care["clients"]
        }
        bowls = {
            row["name"]: _bowl(practice, clients, recipes, row)
            for row in scenario["bowls"] + care["bowls"]
        }
        for row in scenario["days"] + more["days"] + care["days"]:
            _day(practice, clients, recipes, bowls, row)
        load_weeks(practice, user, clients)
        load_kitchen(practice, user, clients)
        follow(practice, user, clients)
        load_handing_over(practice, user, clients)
        at_work(practice, user, clients)
        for row in scenario["old_dishes"]:
            _old_dish(practice, clients, row)
        Intake.objects.create(
            practice=practice,
            by=user,
            data={name: [value] for name, value in scenario["first_visit"].items()},
        )
        OwnSchool.objects.create(
            practice=practice,
            base="balanced_plate",
            name="Harbor plate",
            by=user,
            data=school_data()["balanced_plate"] | scenario["own_school"],
        )
        _looked_at(clients)


# Whose pages nobody has opened yet since something came in.
NOT_LOOKED_AT = ("bells", "winch", "stay")


def _looked_at(clients: dict[str, Client]) -> None:
    """The practice has worked with its clients: what stands on their pages was seen, but for what
    came in this week and for three who are new."""
    today = timezone.localdate()
    bring_up_to_date(Client.objects.all(), today, most=len(clients))
    lately = {
        row.client_id for row in BloodValue.objects.filter(date__gt=today - timedelta(days=7))
    }
    new = {clients[key].pk for key in NOT_LOOKED_AT}
    for row in ClientLook.objects.exclude(client__in=lately | new):
        row.seen, row.stale = list(row.known), True
        row.save()


def _client(practice: Practice, user: User, row: dict[str, Any]) -> Client:
    apart = ("key", "weigh_ins", "targets", "supplements", "put_aside", "follow_up", "factor_off")
    own = followed().get(row["key"], {}).get("weigh")
    weighed = own or row["weigh_ins"]
    if own:
        # the weight of the first visit
        row = row | {"weight_kg": own["first_kg"], "follow_up": own.get("remade", True)}
    client = Client.objects.create(
        practice=practice, **{key: value for key, value in row.items() if key not in apart}
    )
    for taken in row.get("supplements", ()):
        ClientSupplement.objects.create(client=client, **taken)
    start = timezone.localdate() - timedelta(days=int(weighed["days"]))
    if row.get("factor_off"):
        # as it was before an update switched the factor on for everybody
        client.vegan_iron = False
        make_version(client, user, "First visit", start)
        client.vegan_iron = True
    make_version(client, user, "First visit", start)
    for target in row.get("targets", ()):
        TargetOverride.objects.create(client=client, by=user, **target)
    if row.get("targets"):
        make_version(client, user, "Numbers from the letter set by hand", start + timedelta(days=7))
    if own:
        stretches(client, own)
    else:
        _weigh_ins(client, weighed)
    if row.get("follow_up", True):
        make_version(
            client,
            user,
            "Follow-up: targets for the weight now",
            timezone.localdate() - timedelta(days=7),
        )
    # made when they took effect, not all while the demo was loaded
    for version in client.target_versions.all():
        moment = timezone.make_aware(datetime.combine(version.takes_effect, time(10, 30)))
        client.target_versions.filter(pk=version.pk).update(made=moment)
    client.overrides.update(made=timezone.now() - timedelta(days=int(weighed["days"]) - 7))
    for caution in row.get("put_aside", ()):
        CautionDismissal.objects.create(client=client, by=user, **caution)
    return client


def _bowl(
    practice: Practice, clients: dict[str, Client], recipes: dict[str, Recipe], row: dict[str, Any]
) -> Bowl:
    client = clients.get(row.get("client", ""))
    bowl = Bowl.objects.create(
        practice=practice, name=row["name"], client=client, vessel_ml=row["vessel_ml"]
    )
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


def _old_dish(practice: Practice, clients: dict[str, Client], row: dict[str, Any]) -> None:
    parts = [
        {"food": food_table()[slug].slug, "grams": grams, "low": grams * 0.8, "high": grams * 1.2}
        for slug, grams in row["parts"]
    ]
    OldDish.objects.create(
        practice=practice, client=clients[row["client"]], name=row["name"], parts=parts
    )


def _day(
    practice: Practice,
    clients: dict[str, Client],
    recipes: dict[str, Recipe],
    bowls: dict[str, Bowl],
    row: dict[str, Any],
) -> None:
    date = timezone.localdate() + timedelta(days=row["in_days"])
    client = clients[row["client"]]
    day = Day.objects.create(
        practice=practice,
        client=client,
        date=date,
        note=row["note"],
        made_for=version_on(client, date),
    )
    for meal, _name in MEALS:
        for kind, what, amount in row.get(meal, ()):
            entry = DayEntry(day=day, meal=meal, amount=amount)
            if kind == "recipe":
                entry.recipe = recipes[what]
            elif kind == "bowl":
                entry.bowl = bowls[what]
            elif kind == "out":
                plan_out(entry, practice, read_guess(what))
                entry.save()
                continue
            elif kind == "package":
                entry.food = OwnFood.objects.get(name=what).slug
            else:
                entry.food = what
            plan_dish(entry, practice)
            entry.save()


def unsettled() -> list[str]:
    """Titles of demo recipes with lines that cannot be counted."""
    return [recipe.title for recipe in Recipe.objects.all() if facts_of(recipe).unresolved]
