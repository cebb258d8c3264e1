"""The first visit of a new client, on one page, kept as it is typed."""

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from clients.forms import ClientForm, SupplementFormSet
from clients.intake import MOST_KEPT, finish, keep, kept, so_far
from clients.models import Client, Intake


@require_POST
def begin(request: HttpRequest) -> HttpResponse:
    intake = Intake.objects.create(practice=request.user.practice, by=request.user)
    return redirect("clients:intake", intake.pk)


def intake(request: HttpRequest, pk: int) -> HttpResponse:
    row = get_object_or_404(Intake, pk=pk)
    if row.client_id:
        return redirect("clients:page", row.client_id)
    if request.method == "POST":
        if not keep(row, request.POST):
            messages.error(request, f"That is more than {MOST_KEPT:,} characters: shorten the notes.")
        elif "later" in request.POST:
            messages.success(request, "Kept. It waits on this page until you go on.")
            return redirect("clients:list")
        form, supplements = ClientForm(request.POST), SupplementFormSet(request.POST, instance=Client())
        if form.is_valid() and supplements.is_valid() and "finish" in request.POST:
            return redirect("clients:page", finish(row, form, supplements, request.user).pk)
    elif row.data:
        form, supplements = ClientForm(kept(row)), SupplementFormSet(kept(row), instance=Client())
        # back after a while: what is still missing is not shouted at
        form.errors.clear()
        for one in supplements:
            one.errors.clear()
    else:
        form, supplements = ClientForm(), SupplementFormSet(instance=Client())
    look = so_far(ClientForm(kept(row))) if row.data else None
    context = {"intake": row, "form": form, "supplements": supplements, "so_far": look}
    return render(request, "clients/intake.html", context, status=400 if request.method == "POST" else 200)


@require_POST
def keep_intake(request: HttpRequest, pk: int) -> HttpResponse:
    """Called as fields are left: keep everything, answer with targets and cautions so far."""
    row = get_object_or_404(Intake, pk=pk, client=None)
    if not keep(row, request.POST):
        return HttpResponse("Too much to keep: shorten the notes.", status=413)
    if not request.htmx:
        return redirect("clients:intake", pk)
    return render(request, "clients/_so_far.html", {"intake": row, "so_far": so_far(ClientForm(request.POST)), "saved": True})


@require_POST
def drop_intake(request: HttpRequest, pk: int) -> HttpResponse:
    get_object_or_404(Intake, pk=pk, client=None).delete()
    messages.info(request, "The unfinished first visit is gone.")
    return redirect("clients:list")
