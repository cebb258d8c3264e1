"""The client's calendar: what is in it, and the file."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone
from django.utils.text import slugify

from clients.models import Client
from clients.pages.context import PageRequest
from handouts.agenda import Planned, agenda, moment, wish_of, zone_of
from handouts.calendar_file import calendar_for
from handouts.forms import CalendarForm
from handouts.models import CalendarWish
from journal.client_pages import for_a_client

# So many are shown of what is to come.
SHOWN = 12


def _initial(client: Client) -> dict[str, Any]:
    wish = wish_of(client)
    times = {f"at_{key}": f"{at // 60:02}:{at % 60:02}" for key, at in wish.times.items()}
    return times | {
        "kinds": list(wish.kinds),
        "alarm_minutes": wish.alarm_minutes,
        "weigh_day": "" if wish.weigh_day is None else wish.weigh_day,
    }


def _to_come(client: Client) -> list[tuple[Planned, Any]]:
    today = timezone.localdate()
    there = [one for one in agenda(client, wish_of(client)) if one.on >= today or one.weekly]
    return [(one, moment(client, one)) for one in there[:SHOWN]]


@for_a_client
def settings(request: PageRequest, client: Client) -> HttpResponse:
    posted = request.method == "POST"
    form = CalendarForm(request.POST if posted else None, initial=_initial(client))
    if posted and form.is_valid():
        data = form.cleaned_data
        kept = {name: data[name] for name in ("kinds", "alarm_minutes", "weigh_day")}
        CalendarWish.objects.update_or_create(
            client=client, defaults=kept | {"times": form.times()}
        )
        messages.success(request, "Saved. The next file, or look of their calendar, has it.")
        return redirect("handouts:calendar")
    context = {
        "client": client,
        "form": form,
        "to_come": _to_come(client),
        "zone": zone_of(client).key.replace("_", " "),
    }
    return render(request, "handouts/calendar.html", context, status=400 if posted else 200)


@for_a_client
def file(_request: PageRequest, client: Client) -> HttpResponse:
    """The calendar as a file that every calendar takes in."""
    answered = HttpResponse(
        calendar_for(client, timezone.now()), content_type="text/calendar; charset=utf-8"
    )
    name = slugify(client.name)[:60] or "client"
    answered["Content-Disposition"] = f'attachment; filename="{name}.ics"'
    return answered
