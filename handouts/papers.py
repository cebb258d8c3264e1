"""The papers that there are for a client just now, and those that belong together."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import date, timedelta
from functools import partial

from django.http import QueryDict
from django.urls import reverse
from django.utils import timezone
from django.utils.dateformat import format as dated

from bowls.models import Bowl
from clients.models import Client
from clients.pages.context import PageRequest
from handouts.asking import asked_by
from handouts.views import asked_of_bowl, asked_of_day, bowl_paper, day_paper
from journal.models import Visit
from journal.visits.views import paper_of as visit_paper
from kitchen.cook_views import sheet_paper
from kitchen.models import CookingSession
from nutrition.insight.comparison import CALORIES
from paper.sheets import Paper
from planner.models import Day
from plates.pairs import pairs
from plates.views import lesson_paper
from practice.models import User
from shopping.views import list_paper
from week.cautions import asked_of
from week.models import Week
from week.print_views import cooking_paper, door_paper, labels_of_week
from week.reckoning import reckon_week

# So many of each kind are offered.
MOST = 4
# The bundles: their key, their name, and what kinds of paper are in them.
BUNDLES = {
    "first": ("First visit", ("day", "bowl", "lesson", "shopping")),
    "weekly": ("Weekly", ("door", "cooking", "shopping", "labels")),
}


@dataclass(frozen=True, kw_only=True)
class Offer:
    """A paper that there could be: its key, of which kind, what it is called, where it is looked
    at, and how it is made. `asks`: something on it is to be asked about before it is eaten."""

    key: str
    kind: str
    name: str
    address: str
    make: Callable[[PageRequest], Paper]
    asks: bool = False


def offers(client: Client) -> list[Offer]:
    """All of them, each kind's nearest first."""
    today = timezone.localdate()
    return [
        *_of_weeks(client, today),
        *_of_days(client, today),
        *_of_bowls(client),
        *_of_sessions(client, today),
        *_lessons(client),
        *_visits(client),
    ]


def bundled(offered: Iterable[Offer], bundle: str) -> list[Offer]:
    """The papers of a bundle: the nearest of each of its kinds, in its order, but rather one that
    nothing is to be asked about. Empty for a bundle that there is not, or of which nothing is there
    yet."""
    _name, kinds = BUNDLES.get(bundle, ("", ()))
    there = sorted(offered, key=lambda one: one.asks)
    nearest = (next((one for one in there if one.kind == kind), None) for kind in kinds)
    return [one for one in nearest if one is not None]


def _nearest(weeks: Iterable[Week], today: date) -> list[Week]:
    """The week that is on or comes next, then those after it, then those that are over."""
    return sorted(weeks, key=lambda one: (one.last < today, abs((one.start - today).days)))


def _of_weeks(client: Client, today: date) -> list[Offer]:
    out = []
    for week in _nearest(Week.objects.filter(client=client), today)[:2]:
        asks = bool(asked_of(reckon_week(week)))
        of = f"week of {dated(week.start, 'M j')}"
        for kind, name, address, make in (
            ("door", f"The {of}, on one page", "week:door", _door),
            ("cooking", f"What is cooked, {of}", "week:cooking", _cooking),
            ("shopping", f"Shopping list, {of}", "shopping:paper", _shopping),
            ("labels", f"Labels, {of}", "week:labels", _labels),
        ):
            out.append(
                Offer(
                    key=f"{kind}-{week.pk}",
                    kind=kind,
                    name=name,
                    address=reverse(address, args=[week.pk]),
                    make=partial(make, week),
                    asks=asks,
                )
            )
    return out


def _door(week: Week, request: PageRequest) -> Paper:
    return door_paper(request, reckon_week(week))


def _cooking(week: Week, request: PageRequest) -> Paper:
    return cooking_paper(request, reckon_week(week))


def _labels(week: Week, request: PageRequest) -> Paper:
    return labels_of_week(request, reckon_week(week))


def _shopping(week: Week, request: PageRequest) -> Paper:
    return list_paper(request, week)


def _of_days(client: Client, today: date) -> list[Offer]:
    near = (today, today + timedelta(days=14))
    coming = list(Day.objects.filter(client=client, date__range=near).order_by("date")[:MOST])
    rows = coming or list(Day.objects.filter(client=client).order_by("-date")[:1])
    return [
        Offer(
            key=f"day-{row.pk}",
            kind="day",
            name=dated(row.date, "l, F j"),
            address=reverse("handouts:day", args=[row.pk]),
            make=partial(day_paper, row=row),
            asks=bool(asked_of_day(row)),
        )
        for row in rows
    ]


def _of_bowls(client: Client) -> list[Offer]:
    rows = Bowl.objects.filter(client=client).order_by("-updated")[:MOST]
    return [
        Offer(
            key=f"bowl-{row.pk}",
            kind="bowl",
            name=row.name,
            address=reverse("handouts:bowl", args=[row.pk]),
            make=partial(bowl_paper, row=row),
            asks=bool(asked_of_bowl(row, client)),
        )
        for row in rows
    ]


def _of_sessions(client: Client, today: date) -> list[Offer]:
    rows = CookingSession.objects.filter(client=client, day__gte=today).order_by("day")[:MOST]
    return [
        Offer(
            key=f"sheet-{row.pk}",
            kind="sheet",
            name=f"Cooking on {dated(row.day, 'l, F j')}",
            address=reverse("kitchen:sheet", args=[row.pk]),
            make=partial(sheet_paper, row=row),
        )
        for row in rows
    ]


def _lessons(client: Client) -> list[Offer]:
    """What they used to eat beside what takes its place, where somebody wrote it down."""
    found = [one for one in pairs(client) if any(key.startswith("was-") for key in one[1])]
    if not found:
        return []
    words, keys = found[0]
    query = QueryDict(mutable=True)
    query.setlist("with", list(keys))
    query["basis"] = CALORIES
    address = f"{reverse('plates:lesson')}?{query.urlencode()}"
    make = partial(_lesson, query)
    return [Offer(key="lesson", kind="lesson", name=f"Lesson: {words}", address=address, make=make)]


def lesson_of(client: Client, by: User) -> Paper | None:
    """The lesson that there is for a client; None where nobody wrote down what they ate before."""
    found = _lessons(client)
    return found[0].make(asked_by(client.practice, by, client, {})) if found else None


def _lesson(query: QueryDict, request: PageRequest) -> Paper:
    request.GET = query  # type: ignore[assignment]
    return lesson_paper(request)


def _visits(client: Client) -> list[Offer]:
    rows = Visit.objects.filter(client=client).exclude(signed=None)[:2]
    return [
        Offer(
            key=f"visit-{row.pk}",
            kind="visit",
            name=f"Note of {dated(row.date, 'F j')}",
            address=reverse("journal:visit-paper", args=[row.pk]),
            make=partial(_visit, row),
        )
        for row in rows
    ]


def _visit(row: Visit, _request: PageRequest) -> Paper:
    return visit_paper(row)
