"""Following a client: the page that a follow-up begins with."""

from __future__ import annotations

from datetime import timedelta

from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.context import PageRequest
from clients.person.forms import WeighInForm
from clients.plan.attention import reasons
from clients.plan.cautions import of_the_client
from clients.plan.in_force import plan_of
from journal.blood.values import latest_rows
from journal.client_pages import for_a_client
from journal.eaten.strips import days_back
from journal.forms import HappeningForm
from journal.models import Happening
from journal.record.reading import Reading, read
from journal.weight.chart import line_of
from nutrition.follow_up.attention import pace_of
from nutrition.follow_up.stall import span
from practice.removal import offered_back

SHOWN_DAYS = 14


@for_a_client
def page(request: PageRequest, client: Client) -> HttpResponse:
    return follow_up(request, client)


def follow_up(
    request: PageRequest, client: Client, status: int = 200, **forms: object
) -> HttpResponse:
    """The page, with forms that were refused in place of empty ones."""
    today = timezone.localdate()
    plan = plan_of(client)
    known: Reading = read(client, today, plan)
    judged, trend = known.judged, known.judged.trend
    pace = pace_of(judged)
    fortnight = trend.pace(14) if trend else None
    visits = list(client.visits.all()[:4])
    context = {
        "client": client,
        "plan": plan,
        "today": today,
        "judged": judged,
        "cause": known.causes[0] if known.causes else None,
        "causes": known.causes,
        "line": line_of(client, known.record.person, plan, trend, today),
        "paces": [(one.days, span(one)) for one in (fortnight, pace) if one is not None],
        "needs": reasons(client, today, judged),
        "told": of_the_client(plan, client, pace.kg_per_week if pace else None),
        "weigh_in_form": WeighInForm(initial={"date": today}, client=client),
        "happening_form": HappeningForm(initial={"start": today}),
        "happenings": client.happenings.order_by("-start")[:12],
        "removed_happenings": offered_back(client.happenings(manager="with_removed")),
        "days": days_back(client, today, SHOWN_DAYS, known.record.logged),
        "whole": known.whole_in(SHOWN_DAYS),
        "average": known.average_kcal(SHOWN_DAYS),
        "blood": latest_rows(client, today),
        "visits": visits,
        "asked_before": next((one for one in visits if one.signed), None),
        "change": client.changes_taken.filter(ended=None).first(),
        "yesterday": today - timedelta(days=1),
    }
    return render(request, "journal/page.html", context | forms, status=status)


@require_POST
@for_a_client
def happening(request: PageRequest, client: Client) -> HttpResponse:
    """Something that happened is put on the line, taken off, or brought back."""
    back = request.POST.get("back", "")
    if back.isdigit():
        for row in Happening.with_removed.filter(client=client, pk=back):
            row.bring_back()
        return redirect("journal:page")
    gone = request.POST.get("remove", "")
    if gone.isdigit():
        for row in client.happenings.filter(pk=gone):
            row.remove(request.user)
        return redirect("journal:page")
    form = HappeningForm(request.POST)
    if not form.is_valid():
        return follow_up(request, client, 400, happening_form=form)
    row = form.save(commit=False)
    row.client, row.by = client, request.user
    row.save()
    return redirect("journal:page")
