"""The pages of a link, as a client sees them on their phone."""

from __future__ import annotations

import json
from datetime import date, timedelta
from pathlib import Path
from typing import Any

from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import redirect, render
from django.utils import timezone
from django.views.decorators.csrf import csrf_exempt
from django.views.decorators.http import require_POST

from handouts.calendar_file import calendar_for
from handouts.papers import lesson_of
from journal.models import FELT
from kitchen.cook_page import cook_context, events_of
from kitchen.models import CookingSession
from shared_with.addresses import address_of
from shared_with.door import for_the_link
from shared_with.models import Link, Told
from shared_with.telling import NotTold, take
from shared_with.today import today_of, week_on
from shopping.kitchen import tick
from shopping.lists import WeekList, list_of
from webkit.request_values import short
from week.cautions import asked_of
from week.models import Week

STATIC = Path(__file__).resolve().parent / "worker"
# So far ahead and back a client looks at days. [days]
AHEAD, BACK = 7, 7
# So much is told at once, and no more bytes of it.
MOST_AT_ONCE, MOST_BYTES = 100, 100_000
# A touch tells one of these.
HOWS = (("planned", "As planned"), ("less", "Less"), ("instead", "Instead"))


def _context(link: Link, here: str) -> dict[str, Any]:
    """What the frame of every page needs."""
    pages = [
        (name, words, address_of(link, name))
        for name, words in (
            ("today", "Today"),
            ("cooking", "Cook"),
            ("shopping", "Shop"),
            ("tell", "Tell"),
            ("lesson", "Lesson"),
        )
        if _shown(link, name)
    ]
    return {
        "link": link,
        "client": link.client,
        "practice": link.practice,
        "pages": pages,
        "here": here,
        "told_address": address_of(link, "told"),
        "worker_address": address_of(link, "worker"),
        "outer": "shared_with/base.html",
    }


def _shown(link: Link, name: str) -> bool:
    return bool({"weigh", "felt"} & set(link.shows)) if name == "tell" else name in link.shows


@for_the_link("today")
def today(request: HttpRequest, link: Link) -> HttpResponse:
    """Today's meals as plates, and how they went; another day by its date. A link that shows
    something else begins with that."""
    if "today" not in link.shows:
        return redirect(_first(link))
    on = _date(request.GET.get("on", ""))
    day = today_of(link.client, on)
    told = Told.objects.filter(client=link.client, on=on, kind="ate").order_by("pk")
    said = {row.data.get("dish", ""): row.data.get("how") or "instead" for row in told}
    now = timezone.localdate()
    context = _context(link, "today") | {
        "day": day,
        "on": on,
        "is_today": on == now,
        "earlier": on - timedelta(days=1) if on > now - timedelta(days=BACK) else None,
        "later": on + timedelta(days=1) if on < now + timedelta(days=AHEAD) else None,
        "hows": HOWS,
        "said": said,
        "to_come": on > now,
        "calendar": address_of(link, "calendar") if "calendar" in link.shows else "",
    }
    return render(request, "shared_with/today.html", context)


def _first(link: Link) -> str:
    """Where a link begins that does not show the day."""
    pages = ("cooking", "shopping", "tell", "lesson", "calendar")
    return address_of(link, next((name for name in pages if _shown(link, name)), "nothing"))


def _date(text: str) -> date:
    now = timezone.localdate()
    try:
        on = date.fromisoformat(text) if text else now
    except ValueError as error:
        raise Http404("no date") from error
    if not now - timedelta(days=BACK) <= on <= now + timedelta(days=AHEAD):
        raise Http404("a day that is not shown")
    return on


@for_the_link("nothing")
def nothing(request: HttpRequest, link: Link) -> HttpResponse:
    return render(request, "shared_with/nothing.html", _context(link, ""))


@for_the_link("cooking", "cooking")
def cooking(request: HttpRequest, link: Link) -> HttpResponse:
    """What is cooked these days."""
    since = timezone.localdate() - timedelta(days=1)
    rows = CookingSession.objects.filter(client=link.client, day__gte=since).order_by("day")[:10]
    sessions = [(row, address_of_session(link, row.pk)) for row in rows]
    return render(
        request, "shared_with/cooking.html", _context(link, "cooking") | {"sessions": sessions}
    )


def address_of_session(link: Link, pk: int) -> str:
    return f"{address_of(link, 'cooking')}{pk}/"


def _session(link: Link, pk: int) -> CookingSession:
    """A session of this client, and of no other."""
    row = CookingSession.objects.filter(client=link.client, pk=pk).first()
    if row is None:
        raise Http404("no such session")
    row.practice = link.practice
    return row


@for_the_link("cook", "cooking")
def cook(request: HttpRequest, link: Link, pk: int) -> HttpResponse:
    """The cook page of a session, at the client's own stove."""
    row = _session(link, pk)
    context = cook_context(link.practice, row)
    addresses = {
        "events_address": f"{address_of_session(link, pk)}told/",
        "weigh_address": "",
        "back": (address_of(link, "cooking"), "Back"),
    }
    if context["ask_household"]:
        context = {"ask": context["ask_household"]}
        return render(request, "shared_with/withheld.html", _context(link, "cooking") | context)
    return render(request, "kitchen/cook.html", _context(link, "cooking") | context | addresses)


@csrf_exempt
@for_the_link("cook", "cooking")
def cook_told(request: HttpRequest, link: Link, pk: int) -> HttpResponse:
    """What was done at the stove; the address itself says who tells it."""
    if request.method != "POST":
        return HttpResponse(status=405)
    return events_of(request, _session(link, pk)) or redirect(address_of_session(link, pk))


def _week(link: Link) -> Week | None:
    """The week that is bought for: the one that comes next, or that is on."""
    today_ = timezone.localdate()
    coming = Week.objects.filter(client=link.client, start__gt=today_).order_by("start").first()
    on = week_on(link.client, today_)
    soon = coming is not None and coming.start - today_ <= timedelta(days=3)
    return coming if soon or on is None else on


@for_the_link("shopping", "shopping")
def shopping(request: HttpRequest, link: Link) -> HttpResponse:
    """The list to tick."""
    week = _week(link)
    found = list_of(week) if week is not None else None
    asks = found is not None and bool(asked_of(found.reckoned))
    context = _context(link, "shopping") | {
        "week": week,
        "found": None if asks else found,
        "asks": asks,
        "tick_address": f"{address_of(link, 'shopping')}{week.pk}/tick/" if week else "",
    }
    return render(request, "shared_with/shopping.html", context)


@csrf_exempt
@for_the_link("shopping", "shopping")
def ticked(request: HttpRequest, link: Link, pk: int) -> HttpResponse:
    """A line ticked off, or the tick taken back; sent later by a phone that was out of reach."""
    if request.method != "POST":
        return HttpResponse(status=405)
    key, on = short(request.POST, "key", 100), request.POST.get("on") == "1"
    week = Week.objects.filter(client=link.client, pk=pk).first()
    if week is None:
        return JsonResponse({"refused": "That list is over."}, status=410)
    line = _line(list_of(week), key)
    tick(week, line, key, on, link.by)
    if request.headers.get("Accept") == "application/json":
        return JsonResponse({"key": key, "on": on, "known": line is not None})
    return redirect(address_of(link, "shopping"))


def _line(found: WeekList, key: str) -> Any:
    lines = [line for trip in found.trips for _name, lines in trip.sections for line in lines]
    return next((line for line in lines if line.key == key), None)


@for_the_link("tell")
def tell(request: HttpRequest, link: Link) -> HttpResponse:
    """A weight, and how it felt."""
    if not _shown(link, "tell"):
        raise Http404("not shown")
    now = timezone.localdate()
    context = _context(link, "tell") | {
        "weighs": "weigh" in link.shows and not link.client.numbers_hidden,
        "feels": "felt" in link.shows,
        "felt": FELT,
        "on": now,
        "told": Told.objects.filter(client=link.client, on=now).exclude(kind="ate"),
    }
    return render(request, "shared_with/tell.html", context)


@for_the_link("lesson", "lesson")
def lesson(request: HttpRequest, link: Link) -> HttpResponse:
    """Two plates side by side, as on paper."""
    paper = lesson_of(link.client, link.by)
    context = _context(link, "lesson") | {"paper": paper}
    if paper is not None:
        context = {**paper.context, **context}
    return render(request, "shared_with/lesson.html", context)


@for_the_link("calendar", "calendar")
def calendar(_request: HttpRequest, link: Link) -> HttpResponse:
    """The calendar, for a calendar that looks for itself."""
    written = calendar_for(link.client, timezone.now())
    answered = HttpResponse(written, content_type="text/calendar; charset=utf-8")
    answered["Content-Disposition"] = 'inline; filename="meals.ics"'
    return answered


@for_the_link("worker")
def worker(_request: HttpRequest, _link: Link) -> HttpResponse:
    """The script that keeps the pages of this link on the phone."""
    answered = HttpResponse(content_type="text/javascript; charset=utf-8")
    answered["Cache-Control"] = "no-cache"
    answered.write((STATIC / "link-worker.js").read_text(encoding="utf-8"))
    return answered


@csrf_exempt
@require_POST
@for_the_link("told")
def told(request: HttpRequest, link: Link) -> HttpResponse:
    """What the client tells: by script, as a list, each thing with a name of its own; or a form."""
    now = timezone.now()
    if request.content_type != "application/json":
        return _told_by_form(request, link)
    if len(request.body) > MOST_BYTES:
        return JsonResponse({"error": "more than can be told at once"}, status=400)
    try:
        given = json.loads(request.body)
    except (ValueError, RecursionError):
        return JsonResponse({"error": "no JSON"}, status=400)
    rows = given[:MOST_AT_ONCE] if isinstance(given, list) else []
    taken, refused = [], {}
    for one in rows:
        if not isinstance(one, dict):
            continue
        try:
            row, _new = take(link, one, now)
            taken.append(row.name)
        except NotTold as error:
            refused[str(one.get("name", ""))[:40]] = str(error)
    return JsonResponse({"taken": taken, "refused": refused})


def _told_by_form(request: HttpRequest, link: Link) -> HttpResponse:
    """One thing from a page without script; what is refused says why, and keeps what was typed."""
    back = "today" if request.POST.get("kind") == "ate" else "tell"
    try:
        take(link, request.POST.dict(), timezone.now())
    except NotTold as error:
        context = _context(link, back) | {
            "problem": str(error),
            "typed": request.POST.get("text") or request.POST.get("kg") or "",
            "back": address_of(link, back),
        }
        return render(request, "shared_with/refused.html", context, status=400)
    return redirect(address_of(link, back))
