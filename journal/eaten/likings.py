"""After a week: which few of the dishes were liked."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta

from django.db.models import QuerySet
from django.utils import timezone

from clients.models import Client
from journal.eaten.spoken_log import dish_name
from journal.models import LoggedEntry
from nutrition.follow_up.gladly import is_liked
from nutrition.planning.skeleton import Skeleton
from week.dishes import Thing, things_of
from week.models import Favorite
from week.skeletons import skeleton_of

LATELY = timedelta(days=14)
MOST = 30


@dataclass(frozen=True, kw_only=True)
class Eaten:
    """A dish of the last weeks: how often it was eaten and how often left, what was decided of it,
    and the kind it would be kept as."""

    key: str
    name: str
    eaten: int
    left: int
    kind: str
    verdict: str
    full: bool


@dataclass(frozen=True)
class Filled:
    """A kind with how many favorites it has, of how many at most."""

    kind: str
    kept: int
    most: int


def _key(row: LoggedEntry) -> str:
    return f"recipe-{row.recipe_id}" if row.recipe_id else f"bowl-{row.bowl_id}"


def _kind_of(thing: Thing, skeleton: Skeleton) -> str:
    """The kind that a dish would be kept as: the first of the skeleton's that it can stand in."""
    return next((kind for kind in skeleton.kinds if kind in thing.kinds), "")


def eaten_lately(client: Client, today: date) -> tuple[list[Eaten], list[Filled]]:
    """The dishes of the last two weeks, those not decided first, and how full each kind is."""
    skeleton = skeleton_of(client)
    rows = list(_dishes(client, today).select_related("recipe", "bowl", "planned"))
    counts, names = _counts(rows), {_key(row): dish_name(row) for row in rows}
    favorites = list(Favorite.objects.filter(client=client))
    verdicts = {row.key: row.verdict for row in favorites}
    kept = dict.fromkeys(skeleton.kinds, 0)
    for favorite in favorites:
        if favorite.verdict == "kept" and favorite.kind in kept:
            kept[favorite.kind] += 1
    out = []
    things = things_of(counts, client)
    for key, (eaten, left) in counts.items():
        thing = things.get(key)
        kind = _kind_of(thing, skeleton) if thing else ""
        full = bool(kind) and kept.get(kind, 0) >= skeleton.limit(kind)
        out.append(
            Eaten(
                key=key,
                name=names[key],
                eaten=eaten,
                left=left,
                kind=kind,
                verdict=verdicts.get(key, ""),
                full=full,
            )
        )
    out.sort(key=lambda one: (bool(one.verdict), -one.eaten, one.name))
    return out[:MOST], [Filled(kind, kept[kind], skeleton.limit(kind)) for kind in skeleton.kinds]


def eaten_gladly(client: Client) -> list[str]:
    """The dishes that were eaten again and never left in the last two weeks, most often first, by
    what the planning knows them by."""
    counts = _counts(_dishes(client, timezone.localdate()))
    some = [(key, eaten) for key, (eaten, left) in counts.items() if is_liked(eaten, left)]
    return [key for key, _eaten in sorted(some, key=lambda one: (-one[1], one[0]))]


def _dishes(client: Client, today: date) -> QuerySet[LoggedEntry]:
    """What of recipes and bowls was logged in the last two weeks."""
    rows = LoggedEntry.objects.filter(day__client=client, day__date__gt=today - LATELY, food="")
    return rows.exclude(recipe=None, bowl=None)


def _counts(rows: Iterable[LoggedEntry]) -> dict[str, list[int]]:
    """Of each dish how often it was eaten and how often left."""
    counts: dict[str, list[int]] = {}
    for row in rows:
        counts.setdefault(_key(row), [0, 0])[0 if row.eaten else 1] += 1
    return counts
