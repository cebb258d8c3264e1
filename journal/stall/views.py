"""Why it stalls, what would change it, and the one change that is taken."""

from __future__ import annotations

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils import timezone
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.context import PageRequest
from clients.plan.in_force import plan_of
from journal.client_pages import for_a_client
from journal.forms import OutcomeForm, TakeForm
from journal.record.reading import read
from journal.stall.agreement import edits_in, plans_touched, signed_edits, write_into_plans
from journal.stall.outcome import since_then
from nutrition.follow_up.attention import pace_of
from nutrition.follow_up.causes import ACTIVITY, LIGHTER, PACE, SCALE, UNLOGGED, WATER

LATELY = 28
# Where the change of a cause is made, and what that is called.
WHERE = {
    LIGHTER: ("clients:page", "#retarget", "Make new targets"),
    ACTIVITY: ("clients:edit", "", "Set the activity"),
    PACE: ("clients:edit", "", "Set the pace"),
    UNLOGGED: ("journal:days", "", "Log a day"),
    WATER: ("journal:page", "#weigh", "Weigh on"),
    SCALE: ("journal:weights", "", "Look at the weigh-ins"),
}


@for_a_client
def stall(request: PageRequest, client: Client) -> HttpResponse:
    return _page(request, client)


def _page(request: PageRequest, client: Client, status: int = 200, **forms: object) -> HttpResponse:
    """How the weight stands, the explanations with their evidence, and the changes that were
    tried."""
    today = timezone.localdate()
    plan = plan_of(client)
    known = read(client, today, plan)
    levers = known.levers
    context = {
        "client": client,
        "judged": known.judged,
        "causes": [(one, WHERE.get(one.key)) for one in known.causes],
        "levers": [(one, signed_edits(one.edits)) for one in levers],
        "need": known.need,
        "whole": known.whole_in(LATELY),
        "lately": LATELY,
        "reported": known.reported(LATELY),
        "held_back": client.counting_harms or plan.day is None,
        "take_form": TakeForm(initial={"start": today}),
        "changes": [
            (
                row,
                since_then(row, known.judged),
                OutcomeForm(prefix=str(row.pk)),
                plans_touched(row) if row.edits and not row.ended else None,
            )
            for row in client.changes_taken.all()[:12]
        ],
    } | forms
    return render(request, "journal/stall.html", context, status=status)


@require_POST
@for_a_client
def take(request: PageRequest, client: Client) -> HttpResponse:
    """One change is agreed on; it stands in the plan with its reason until the next visit looks."""
    form = TakeForm(request.POST)
    if not form.is_valid():
        return _page(request, client, 400, take_form=form)
    row = form.save(commit=False)
    standing = client.changes_taken.filter(ended=None).first()
    if standing is not None and "besides" not in request.POST:
        form.add_error(
            None,
            f"One change at a time: “{standing.words}” stands since {standing.start:%b} "
            f"{standing.start.day}. Say first how it went, or take this one besides.",
        )
        return _page(request, client, 400, take_form=form, ask_besides=True)
    pace = pace_of(read(client, timezone.localdate(), plan_of(client)).judged)
    row.client, row.by = client, request.user
    row.pace_kg = pace.kg_per_week if pace else None
    row.edits = edits_in(request.POST.get("edits", ""))
    row.save()
    messages.success(request, f"Agreed from {row.start:%b} {row.start.day}: {row.words}.")
    return redirect("journal:stall")


@require_POST
@for_a_client
def write(request: PageRequest, client: Client, pk: int) -> HttpResponse:
    """A change is written into what is planned from its day on; each plan can be undone by
    itself."""
    row = get_object_or_404(client.changes_taken, pk=pk)
    days, weeks = write_into_plans(row, request.user)
    if days or weeks:
        messages.success(
            request,
            f"Written into {days} planned day{'s' if days != 1 else ''} and {weeks} "
            f"week{'s' if weeks != 1 else ''}; each can be undone there.",
        )
    else:
        messages.info(
            request,
            "It changed nothing: no planned day or week from then on holds that food, by itself or "
            "inside a dish. Put it into the plan by hand.",
        )
    return redirect("journal:stall")


@require_POST
@for_a_client
def outcome(request: PageRequest, client: Client, pk: int) -> HttpResponse:
    """How a change went."""
    row = get_object_or_404(client.changes_taken, pk=pk)
    form = OutcomeForm(request.POST, instance=row, prefix=str(row.pk))
    if not form.is_valid():
        return _page(request, client, 400)
    row = form.save(commit=False)
    row.ended = timezone.localdate()
    row.save()
    messages.info(request, f"Kept: {row.words}: {row.get_outcome_display()}.")
    return redirect("journal:stall")
