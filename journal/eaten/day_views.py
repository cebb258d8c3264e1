"""The log of a day: quick from a phone, or as a recall in its passes."""

from __future__ import annotations

from datetime import date, timedelta

from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.context import PageRequest
from clients.plan.in_force import plan_of
from journal.client_pages import for_a_client
from journal.eaten.log_day import (
    SHARES,
    DayLog,
    decide,
    log_of,
    open_log,
    planned_rows,
    undecided_of,
)
from journal.eaten.spoken_log import EYED, Names, hear
from journal.forms import DAYS_BACK, FeltForm
from journal.models import Felt, LoggedDay, LoggedEntry
from nutrition.composition.foods import food_table
from nutrition.follow_up.recall import FORGOTTEN, PASSES
from nutrition.follow_up.told_amounts import NAMED
from nutrition.targets.meals import meal_at
from nutrition.written.basis import basis_range
from nutrition.written.guess import UnreadableGuess
from planner.models import MEALS
from planner.planned_copies import plan_dish
from practice.models import User
from practice.undo import asked_by
from practice.versioned import StaleSave
from webkit.request_values import TooLong, key_in, number_in, short, whole
from week.dishes import thing_of

# Which version a change was asked for, by whom, from which open page.
Asked = tuple[int | None, User, str]
# What a line and a note hold. [characters]
MOST_SAID, MOST_NOTE = 4000, 300
NOTHING_LOGGED = (
    "Nothing is logged for this day, and a day without a record is unknown, never zero. Say first "
    "what was eaten."
)
MEAL_NAMES = dict(MEALS)


def _date(text: str) -> date:
    try:
        on = date.fromisoformat(text)
    except ValueError:
        raise Http404("no such day") from None
    today = timezone.localdate()
    if not today - DAYS_BACK <= on <= today:
        raise Http404("no log of that day")
    return on


def _meal_now() -> str:
    hour = timezone.localtime().hour
    return meal_at(hour)


def _context(request: PageRequest, client: Client, on: date) -> dict[str, object]:
    log, today = log_of(client, on), timezone.localdate()
    plan = plan_of(client, on=on)
    felt = client.felt.filter(date=on).first()
    return {
        "client": client,
        "log": log,
        "date": on,
        "day": log.day,
        "shares": SHARES,
        "before": on - timedelta(days=1),
        "after": on + timedelta(days=1) if on < today else None,
        "today": today,
        "meal_now": _meal_now() if on == today else "breakfast",
        "meal_choices": MEALS,
        "targets": plan.watched[:4],
        "felt_form": FeltForm(instance=felt),
        "felt": felt,
        "last_change": log.log.last_change if log.log else None,
        "counting_harms": client.counting_harms,
    }


def _answer(request: PageRequest, client: Client, on: date, status: int = 200) -> HttpResponse:
    context = _context(request, client, on)
    if status != 200:
        # what was not made is kept where it was typed
        context["typed"] = request.POST.get("text", "")
    if request.htmx:
        shown = status if status == 409 else 200
        return render(request, "journal/_log.html", context, status=shown)
    if status != 200:
        return render(request, "journal/day.html", context, status=status)
    back = short(request.POST, "back", 10)
    return redirect("journal:recall" if back == "recall" else "journal:day", on.isoformat())


@for_a_client
def day(request: PageRequest, client: Client, on: str) -> HttpResponse:
    return render(request, "journal/day.html", _context(request, client, _date(on)))


@for_a_client
def days(request: PageRequest, client: Client) -> HttpResponse:
    """The day that is to be logged now."""
    return redirect("journal:day", timezone.localdate().isoformat())


@require_POST
@for_a_client
def change(request: PageRequest, client: Client, on: str) -> HttpResponse:
    """One change of a day's log: as planned, a share, something said, settled, taken out, whole."""
    when = _date(on)
    log = open_log(client, request.practice, when)
    version, by, page = asked_by(request)
    try:
        # a page that was opened before there was a log shows none
        said = _change(request, client, log, (version or None, by, page))
    except (TooLong, UnreadableGuess) as error:
        messages.error(request, str(error))
        return _answer(request, client, when, 400)
    except StaleSave as error:
        who = error.current.last_change[0] if error.current.last_change else "Somebody else"
        messages.error(
            request,
            f"{who} changed this day after you opened it, and it is shown as it is now. "
            f"Yours was not made: make it again if it still fits.",
        )
        return _answer(request, client, when, 409)
    if said:
        messages.info(request, said)
    return _answer(request, client, when)


def _change(request: PageRequest, client: Client, log: LoggedDay, asked: Asked) -> str:
    data = request.POST
    if "undo" in data:
        whose_change = log.step_back(asked[0], asked[2])
        # what was taken back may have been all there was
        LoggedDay.objects.filter(pk=log.pk).update(whole=False)
        return "" if whose_change else "There is nothing to undo."
    if "whole" in data:
        if data["whole"] == "1" and not any(row.eaten for row in log.entries.all()):
            return NOTHING_LOGGED
        with log.changing(*asked, remember=False) as stored:
            stored.whole = data["whole"] == "1"
            stored.save()
        return ""
    if "note" in data:
        with log.changing(*asked, remember=False) as stored:
            stored.note = whole(data, "note", MOST_NOTE)
            stored.save()
        return ""
    if "settle" in data:
        return _settle(request, client, log, asked)
    if "when" in data:
        return _when(request, log, asked)
    planned = planned_rows(client.days.filter(date=log.date).first())
    if "as-planned" in data:
        meal = short(data, "as-planned", 10)
        rows = [row for row in planned if meal in ("all", row.meal)]
        with log.changing(*asked) as stored:
            decide(stored, undecided_of(stored, rows), 1.0)
            if meal == "all":
                stored.whole = True
                stored.save()
        return ""
    if "part" in data:
        key, share = key_in(data.get("part", "")), number_in(data.get("share", ""), (0.0, 10.0))
        rows = [row for row in planned if row.pk == key]
        if not rows or share is None:
            return "That is no longer in the plan of this day."
        with log.changing(*asked) as stored:
            decide(stored, rows, share)
        return ""
    if "remove" in data:
        with log.changing(*asked) as stored:
            stored.entries.filter(pk=key_in(data.get("remove", "")) or 0).delete()
            stored.whole = False
            stored.save()
        return ""
    return _say(request, client, log, asked, planned)


def _say(request: PageRequest, client: Client, log: LoggedDay, asked: Asked, planned) -> str:
    """Something said in kitchen language."""
    text, meal = whole(request.POST, "text", MOST_SAID), short(request.POST, "meal", 10)
    if "out" in request.POST and text:
        text = f"eaten out: {text}"
    if not text:
        return "Write what was eaten: half the stew, an apple, 2 handfuls walnuts."
    heard = hear(
        text,
        log,
        meal if meal in MEAL_NAMES else "snack",
        Names(client, planned),
        request.practice.measures,
    )
    with log.changing(*asked) as stored:
        for row in heard.rows:
            row.day = stored
            if row.of_entry_id:
                stored.entries.filter(of_entry=row.of_entry_id).delete()
            row.save()
        if heard.as_planned:
            mine = [row for row in planned if row.meal in heard.as_planned]
            decide(stored, undecided_of(stored, mine), 1.0)
    return ""


def _settle(request: PageRequest, client: Client, log: LoggedDay, asked: Asked) -> str:
    """What a row that asks was: one of the choices, or said again."""
    data = request.POST
    row = log.entries.filter(pk=key_in(data.get("settle", "")) or 0).first()
    if row is None:
        return "That is no longer in the day."
    with log.changing(*asked) as stored:
        again = whole(data, "text", MOST_SAID) if "again" in data else ""
        if again:
            planned = planned_rows(client.days.filter(date=log.date).first())
            heard = hear(
                again,
                stored,
                row.meal,
                Names(client, planned),
                request.practice.measures,
            )
            row.delete()
            for one in heard.rows:
                one.day = stored
                one.time, one.place = row.time, row.place
                one.save()
            return ""
        food = food_table().usable(data.get("food", ""))
        grams = number_in(data.get("grams", ""), (0.1, 5000.0))
        if food is not None and grams is not None:
            row.food, row.amount = food.slug, grams
            # somebody chose a usual helping: by eye
            row.basis = EYED
            row.low_g, row.high_g = basis_range(grams, EYED)
            row.save()
            return ""
        thing = thing_of(data.get("dish", "")[:100], client)
        if thing is None or thing.food is not None:
            return "Choose what it was, or write it again with an amount."
        row.bowl, row.recipe, row.amount = thing.bowl, thing.recipe, 1.0
        (row.low, row.high), row.basis = NAMED, EYED
        plan_dish(row, request.practice)
        row.save()
    return ""


def _when(request: PageRequest, log: LoggedDay, asked: Asked) -> str:
    """Time, place and meal of the rows of a recall."""
    data = request.POST
    with log.changing(*asked) as stored:
        for row in stored.entries.all():
            meal = short(data, f"meal-{row.pk}", 10)
            row.time = whole(data, f"time-{row.pk}", 8)
            row.place = whole(data, f"place-{row.pk}", 40)
            row.meal = meal if meal in MEAL_NAMES else row.meal
            row.save()
    return ""


@require_POST
@for_a_client
def felt(request: PageRequest, client: Client, on: str) -> HttpResponse:
    """How the client felt on a day."""
    when = _date(on)
    row = client.felt.filter(date=when).first() or Felt(client=client, date=when)
    form = FeltForm(request.POST, instance=row)
    if not form.is_valid():
        context = _context(request, client, when) | {"felt_form": form}
        return render(request, "journal/day.html", context, status=400)
    form.save()
    messages.info(request, "Saved.")
    return redirect(f"{reverse('journal:day', args=[when.isoformat()])}#felt")


@for_a_client
def recall(request: PageRequest, client: Client, on: str) -> HttpResponse:
    """The passes of a recall, one after the other."""
    when = _date(on)
    names = [key for key, _name, _ask in PASSES]
    asked = request.GET.get("pass", names[0])
    at = names.index(asked) if asked in names else 0
    context = _context(request, client, when)
    log: DayLog = context["log"]  # type: ignore[assignment]
    rows: list[LoggedEntry] = (
        list(log.log.entries.select_related("bowl", "recipe", "planned")) if log.log else []
    )
    context |= {
        "passes": PASSES,
        "at": PASSES[at],
        "next": PASSES[at + 1] if at + 1 < len(PASSES) else None,
        "forgotten": FORGOTTEN,
        "rows": rows,
    }
    return render(request, "journal/recall.html", context)
