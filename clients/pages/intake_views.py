"""The first visit of a new client, on one page, kept as it is typed."""

from django.contrib import messages
from django.db import transaction
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from clients.models import Intake
from clients.pages.context import PageRequest
from clients.pages.intake import MOST_KEPT, differing, finish, is_blank, keep, kept, so_far
from clients.person.forms import ClientForm, SupplementFormSet
from practice.versioned import StaleSave, page_in

TOO_MUCH = (
    f"That is more than {MOST_KEPT:,} characters: shorten the notes. Nothing new is "
    f"kept until then."
)


@require_POST
def begin(request: PageRequest) -> HttpResponse:
    # one that was begun and left blank is gone on with: no change of mind leaves anything behind
    waiting = Intake.objects.filter(client=None, by=request.user)
    blank = next((row for row in waiting if is_blank(row)), None)
    intake = blank or Intake.objects.create(practice=request.practice, by=request.user)
    return redirect("clients:intake", intake.pk)


def intake(request: PageRequest, pk: int) -> HttpResponse:
    row: Intake = get_object_or_404(Intake.with_removed, pk=pk)
    if row.client_id:
        return redirect("clients:page", row.client_id)
    stale, differs = None, []
    if request.method == "POST":
        form, supplements = ClientForm(request.POST), SupplementFormSet(request.POST)
        try:
            if not keep(row, request.POST, page_in(request)):
                messages.error(request, TOO_MUCH)
            elif "later" in request.POST:
                messages.success(request, "Saved. It waits on this page until you go on.")
                return redirect("clients:list")
            elif "finish" in request.POST and form.is_valid() and supplements.is_valid():
                return _finished(request, row, form, supplements)
        except StaleSave as error:
            row = stale = error.current
            differs = differing(row, request.POST)
    elif row.data:
        form, supplements = ClientForm(kept(row)), SupplementFormSet(kept(row))
        # back after a while: what is still missing is not shouted at
        form.errors.clear()
        for one in supplements:
            one.errors.clear()
    else:
        form, supplements = ClientForm(), SupplementFormSet()
    look = so_far(ClientForm(kept(row))) if row.data else None
    context = {
        "intake": row,
        "form": form,
        "supplements": supplements,
        "so_far": look,
        "stale": stale,
        "differs": differs,
    }
    return render(
        request,
        "clients/intake.html",
        context,
        status=409 if stale else 400 if request.method == "POST" else 200,
    )


def _finished(request: PageRequest, row: Intake, form: ClientForm, supplements) -> HttpResponse:
    with transaction.atomic():
        # a second click finds the client that the first one made
        stored = Intake.with_removed.get(pk=row.pk)
        client = stored.client or finish(stored, form, supplements, request.user)
    return redirect("clients:page", client.pk)


@require_POST
def keep_intake(request: PageRequest, pk: int) -> HttpResponse:
    """Called as fields are left: keep everything, answer with targets and cautions so far."""
    row: Intake = get_object_or_404(Intake.with_removed, pk=pk)
    if row.client_id:
        return HttpResponse(
            "This first visit is a client already: nothing more is saved here.",
            status=410,
            content_type="text/plain",
        )
    try:
        if not keep(row, request.POST, page_in(request)):
            return HttpResponse(TOO_MUCH, status=413, content_type="text/plain")
    except StaleSave as error:
        context = {
            "intake": error.current,
            "differs": differing(error.current, request.POST),
            "stale": True,
        }
        return render(request, "clients/_so_far.html", context, status=409)
    if not request.htmx:
        return redirect("clients:intake", pk)
    return render(
        request,
        "clients/_so_far.html",
        {"intake": row, "so_far": so_far(ClientForm(request.POST)), "saved": True},
    )


@require_POST
def drop_intake(request: PageRequest, pk: int) -> HttpResponse:
    """Put an unfinished first visit away; it can be brought back from the list of clients."""
    row: Intake = get_object_or_404(Intake.with_removed, pk=pk, client=None)
    if "back" in request.POST:
        row.bring_back()
        return redirect("clients:intake", pk)
    row.remove(request.user)
    messages.info(request, "The unfinished first visit is archived. It can be brought back below.")
    return redirect("clients:list")
