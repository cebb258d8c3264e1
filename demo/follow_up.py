"""How the demo practice follows its clients: weights in stretches, logged days, blood values,
visits."""

from __future__ import annotations

import math
import tomllib
from collections.abc import Mapping
from datetime import date, datetime, time, timedelta
from pathlib import Path
from typing import Any

from django.utils import timezone

from clients.models import BloodValue, Client, WeighIn
from clients.plan.versions import make_version, version_on
from journal.models import Felt, Happening, LoggedDay, LoggedEntry, TakenChange, Visit
from journal.visits.notes import figures_of
from nutrition.follow_up.weigh_in import LATER, MORNING
from nutrition.written.typed_amounts import leveled_range
from planner.models import Day, DayEntry
from planner.planned_copies import plan_dish
from practice.models import Practice, User
from recipes.models import Recipe

HERE = Path(__file__).resolve().parent
VISIT_WORDS = (
    *("assessment", "problem", "etiology", "signs", "intervention", "monitoring"),
    *("questions", "measure", "promised"),
)
FELT = ("hunger", "fullness", "energy", "stool", "sleep")


def rows() -> dict[str, Any]:
    return tomllib.loads((HERE / "follow_up.toml").read_text(encoding="utf-8"))


def _ago(days: int) -> date:
    return timezone.localdate() - timedelta(days=days)


def stretches(client: Client, plan: Mapping[str, Any]) -> None:
    """Weigh-ins along lines that turn, with a wobble that is the same at every load."""
    turns = dict(plan["stretches"])
    kg, pace = float(plan["first_kg"]), 0.0
    for ago in range(int(plan["days"]), int(plan.get("last", 1)) - 1, -1):
        pace = float(turns.get(ago, pace))
        done = plan["days"] - ago
        if done % int(plan.get("every", 2)) == 0:
            wobble = plan["wobble_kg"] * (
                0.7 * math.sin(done * 1.7) * math.cos(done * 0.31) + 0.5 * math.sin(done * 2.9 + 1)
            )
            later = plan.get("later", -1)
            WeighIn.objects.create(
                client=client,
                date=_ago(ago),
                kg=round(kg + wobble, 1),
                time=LATER if ago <= later else MORNING,
            )
        kg += pace / 7.0


def _varied(grams: float, on: date, place: int) -> float:
    """Nobody eats the same twice: a twelfth more or less, the same at every load."""
    return round(grams * (1.0 + 0.08 * math.sin(on.toordinal() * 1.3 + place * 2.1)))


def _log(
    practice: Practice, client: Client, bases: Mapping[str, Any], row: Mapping[str, Any]
) -> None:
    for ago in range(int(row["from"]), int(row["to"]) - 1, -1):
        on = _ago(ago)
        if on.weekday() in row["without"]:
            continue
        log, _made = LoggedDay.objects.get_or_create(
            client=client, date=on, defaults={"practice": practice, "whole": True}
        )
        eaten = [
            (meal, slug, grams) for meal, some in bases[row["base"]].items() for slug, grams in some
        ]
        eaten += [tuple(one) for one in row.get("more", ())]
        eaten += [tuple(one) for one in row.get("weekend", ())] if on.weekday() >= 5 else []
        for meal, title, amount in row.get("dishes", ()):
            dish = LoggedEntry(day=log, meal=meal, amount=amount, low=amount * 0.9)
            dish.high, dish.recipe = amount * 1.1, Recipe.objects.get(title=title)
            dish.how = "left out" if on.day % 5 == 0 and meal == "snack" else "besides"
            plan_dish(dish, practice)
            dish.save()
        for place, (meal, slug, grams) in enumerate(eaten):
            amount = _varied(grams, on, place)
            low, high = leveled_range(amount)
            LoggedEntry.objects.create(
                day=log,
                meal=meal,
                food=slug,
                amount=amount,
                low_g=low,
                high_g=high,
                basis="leveled measure",
            )


def _plans(practice: Practice, client: Client, base: Mapping[str, Any], days: int) -> None:
    """The base day as it was planned on the last days, and the log of it as eaten of that."""
    for ago in range(days, 0, -1):
        on = _ago(ago)
        day, made = Day.objects.get_or_create(
            client=client,
            date=on,
            defaults={"practice": practice, "made_for": version_on(client, on)},
        )
        if not made:
            continue
        for meal, some in base.items():
            for slug, grams in some:
                low, high = leveled_range(grams)
                entry = DayEntry.objects.create(
                    day=day, meal=meal, food=slug, amount=grams, low_g=low, high_g=high
                )
                eaten = LoggedEntry.objects.filter(
                    day__client=client, day__date=on, meal=meal, food=slug, of_entry=None
                ).first()
                if eaten:
                    eaten.of_entry, eaten.how = entry, "as planned"
                    eaten.save()


def _visit(practice: Practice, client: Client, user: User, row: Mapping[str, Any]) -> None:
    moment = timezone.make_aware(datetime.combine(_ago(row["ago"]), time(11, 15)))
    visit = Visit.objects.create(
        practice=practice,
        client=client,
        date=_ago(row["ago"]),
        form=row.get("form", "full"),
        words={name: row.get(name, "") for name in VISIT_WORDS},
        by=user,
    )
    visit.figures = [[one.section, one.name, one.said] for one in figures_of(visit)]
    visit.signed, visit.signed_as = moment, row["signed_as"]
    visit.save()


def follow(practice: Practice, user: User, clients: Mapping[str, Client]) -> None:
    """What is known of those who are followed."""
    data = rows()
    bases = data.pop("days")
    for key, row in data.items():
        client = clients[key]
        for entry in row.get("logs", ()):
            _log(practice, client, bases, entry)
        if row.get("planned"):
            _plans(practice, client, bases[row["logs"][0]["base"]], int(row["planned"]))
        for kind, start, end, words in row.get("happened", ()):
            Happening.objects.create(
                client=client, kind=kind, start=_ago(start), end=_ago(end), words=words, by=user
            )
        for value in row.get("blood", ()):
            what, number, unit, ago, *edges = value
            low, high = edges or (None, None)
            BloodValue.objects.create(
                client=client,
                key=what,
                value=number,
                unit=unit,
                date=_ago(ago),
                low=low,
                high=high,
                laboratory="Harrow Sound laboratory",
                by=user,
            )
        if client.found_in_blood():
            make_version(client, user, "Blood values came in", _ago(7))
        for ago, *felt in row.get("felt", ()):
            Felt.objects.create(client=client, date=_ago(ago), **dict(zip(FELT, felt, strict=True)))
        for change in row.get("changes", ()):
            TakenChange.objects.create(
                client=client,
                words=change["words"],
                reason=change["reason"],
                cause=change["cause"],
                start=_ago(change["ago"]),
                ended=_ago(change["ago"] - 38),
                outcome=change["outcome"],
                outcome_words=change["outcome_words"],
                by=user,
            )
        for visit in row.get("visits", ()):
            _visit(practice, client, user, visit)
        _lighter_on_hungry_days(client, row.get("hungry", ()))


def _lighter_on_hungry_days(client: Client, days: list[int]) -> None:
    """On the days that ended hungry half the starch was left out."""
    starches = ("barley-pearled-cooked", "potato-boiled", "rolled-oats-dry")
    for ago in days:
        for row in LoggedEntry.objects.filter(
            day__client=client, day__date=_ago(ago), food__in=starches
        ):
            row.amount, row.how = round(row.amount / 2), "less"
            row.low_g, row.high_g = leveled_range(row.amount)
            row.save()
