"""What could stand in one place of a week: the favorites of its kind, and what is searched for."""

from __future__ import annotations

from dataclasses import dataclass

from clients.plan.gate import gate_of
from week.dishes import Thing
from week.favorites import for_planning, found_by_words
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
        found = [
            Option(key=key, name=row.said, said=row.kind, warns=row.one.why)
            for key, row in found_by_words(week.client, gate, q)
        ]
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
