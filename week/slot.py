"""What could stand in one place of a week: the favorites of its kind, and what is searched for."""

from __future__ import annotations

from dataclasses import dataclass

from bowls.bowl import reckon_bowl
from clients.plan.gate import gate_of
from clients.plan.marks import marked_dish
from recipes import adding
from week.dishes import Thing, bowls_open_to
from week.favorites import for_planning
from week.models import Week
from week.problem import BESIDES, plan_for
from week.reckoning import Place


@dataclass(frozen=True, kw_only=True)
class Option:
    """Something to put there: its key, name, and what is said of it."""

    key: str
    name: str
    said: str
    warns: str = ""


@dataclass(frozen=True)
class Options:
    liked: list[Option]
    found: list[Option]


def options_for(week: Week, place: Place, q: str) -> Options:
    """The favorites that fit the place, and by words anything of the practice's."""
    plan = plan_for(week)
    gate = gate_of(plan)
    kind = place.slot.kind
    liked: list[Option] = []
    if kind != BESIDES:
        things, _order = for_planning(week.client, [kind], plan, gate)
        liked = [_option(one, place) for one in things if one.key != _standing(place)]
    found: list[Option] = []
    if q:
        asked = adding.typed(q)
        rows = bowls_open_to(week.client)
        bowls = [
            ("bowl", marked_dish(gate, bowl, reckon_bowl(bowl).ingredients))
            for bowl in adding.with_words(rows, "name", asked.words)[: adding.MOST_DISHES]
        ]
        recipes = [("recipe", one) for one in adding.found_recipes(week.client, gate, asked)]
        foods = adding.found_foods(week.client, gate, asked, week.practice.measures)
        for row in adding.in_order(week.client, asked, [*bowls, *recipes], foods):
            key = f"{row.field}-{row.value}"
            found.append(Option(key=key, name=row.said, said=row.kind, warns=row.one.why))
    return Options(liked, found)


def _standing(place: Place) -> str:
    return place.row.key if place.row else ""


def _option(one: Thing, place: Place) -> Option:
    profile = one.portion.profile
    words = [
        f"{profile['energy_kcal'].amount:.0f} kcal",
        f"{profile['protein_g'].amount:.0f} g protein",
    ]
    if one.keeping and one.keeping.days:
        days = one.keeping.days
        words.append(f"keeps {days} day{'s' if days > 1 else ''}")
    warns = ""
    keeping = one.keeping
    hot = keeping is not None and not keeping.cold and not place.slot.flask
    if place.slot.packed and (hot or (keeping is not None and not keeping.travels)):
        warns = "not good cold: a flask, or another dish"
    return Option(key=one.key, name=one.name, said=", ".join(words), warns=warns)
