"""Blood values, pressure and waist."""

from __future__ import annotations

from datetime import timedelta

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.context import PageRequest
from clients.plan.cautions import of_the_client
from clients.plan.in_force import plan_of
from clients.plan.versions import make_version
from journal.blood.drawing import spark
from journal.blood.tables import as_table
from journal.blood.values import Table, bearing, keep, latest_rows, read_table
from journal.client_pages import for_a_client
from journal.forms import BloodForm
from journal.record.days import logged_days
from nutrition.targets.blood import BadValue
from practice.removal import offered_back
from webkit.request_values import TooLong, text_or_file

LATELY = timedelta(days=28)


@for_a_client
def blood(request: PageRequest, client: Client) -> HttpResponse:
    return _page(request, client)


def _page(request: PageRequest, client: Client, status: int = 200, **forms: object) -> HttpResponse:
    today = timezone.localdate()
    logged = logged_days(client, today - LATELY, today)
    rows = latest_rows(client, today)
    plan = plan_of(client)
    context = {
        "client": client,
        "plan": plan,
        "rows": [(one, bearing(one, logged), spark(one)) for one in rows],
        "told": of_the_client(plan, client, None),
        "found": sorted(client.found_in_blood().items()),
        "all": client.blood_values.order_by("-date", "key")[:100],
        "removed": offered_back(client.blood_values(manager="with_removed")),
        "form": BloodForm(initial={"date": today}),
        "today": today,
    } | forms
    return render(request, "journal/blood.html", context, status=status)


@require_POST
@for_a_client
def add(request: PageRequest, client: Client) -> HttpResponse:
    form = BloodForm(request.POST)
    if not form.is_valid():
        return _page(request, client, 400, form=form)
    _count, changed = keep(client, [form.save(commit=False)], request.user)
    _said(request, f"{form.instance.measured().words(timezone.localdate())} is saved.", changed)
    return redirect("journal:blood")


def _said(request: PageRequest, said: str, changed: bool) -> None:
    more = " It changes the targets: a new version holds from today." if changed else ""
    messages.success(request, f"{said[:1].upper()}{said[1:]}{more}")


@require_POST
@for_a_client
def paste(request: PageRequest, client: Client) -> HttpResponse:
    """Values from a CSV: all of them, or none where a line cannot be read."""
    try:
        text = text_or_file(request)
    except TooLong as error:
        table = Table(problems=[(1, str(error))])
        return _page(request, client, 400, table=table, text=request.POST.get("text", ""))
    today = timezone.localdate()
    try:
        brought = as_table(text, today)
    except BadValue as error:
        table = Table(problems=[(1, str(error))])
        return _page(request, client, 400, table=table, text=text)
    table = read_table(brought.text, today)
    if table.problems or not table.rows or brought.text != text:
        # brought into another form, it is looked over before it is kept
        more = {"table": table, "text": brought.text, "file_told": brought.told}
        return _page(request, client, 400 if table.problems else 200, **more)
    count, changed = keep(client, table.rows, request.user)
    _said(request, f"{count} value{'s are' if count != 1 else ' is'} saved.", changed)
    return redirect("journal:blood")


@require_POST
@for_a_client
def remove(request: PageRequest, client: Client, pk: int) -> HttpResponse:
    """Take a value away, or bring it back; the targets follow."""
    for row in client.blood_values(manager="with_removed").filter(pk=pk):
        if "back" in request.POST:
            for other in client.blood_values.filter(key=row.key, date=row.date).exclude(pk=pk):
                other.remove(request.user)
            row.bring_back()
        else:
            row.remove(request.user)
        name = row.measured().analyte.name.lower()
        made = make_version(client, request.user, f"Blood values: {name} of {row.date} corrected")
        if made:
            messages.info(request, "The targets follow: a new version holds from today.")
    return redirect("journal:blood")
