"""A client out as FHIR or CSV, and in from FHIR."""

from __future__ import annotations

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.text import slugify
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.context import PageRequest
from exchange.archive_files import fhir_of
from exchange.coming import begin_from, lines_of, take_over
from exchange.forms import ComingForm, TablesForm
from exchange.models import Begun
from exchange.tables import logs_csv, plans_csv
from exchange.tables_in import NotATable, take_in
from journal.client_pages import for_a_client
from nutrition.formats.fhir.reading import UnreadableBundle, read_bundle

KINDS = {
    "fhir.json": (fhir_of, "application/fhir+json"),
    "plans.csv": (plans_csv, "text/csv; charset=utf-8"),
    "logs.csv": (logs_csv, "text/csv; charset=utf-8"),
}


@for_a_client
def out(_request: PageRequest, client: Client, kind: str) -> HttpResponse:
    """One of the files."""
    write, said = KINDS[kind]
    answered = HttpResponse(write(client), content_type=said)
    name = slugify(client.name)[:60] or "client"
    answered["Content-Disposition"] = f'attachment; filename="{name}-{kind}"'
    return answered


def coming(request: PageRequest) -> HttpResponse:
    """A client who comes in a file: looked at first, then a first visit is begun from it."""
    posted = request.method == "POST"
    form = ComingForm(request.POST if posted else None, request.FILES if posted else None)
    context: dict[str, object] = {"form": form}
    if posted and form.is_valid():
        text = str(form.cleaned_data["text"])
        try:
            if "begin" in request.POST:
                intake = begin_from(text, request.practice, request.user)
                messages.success(request, "Look it over, and finish it: it is a first visit.")
                return redirect("clients:intake", intake.pk)
            context |= {"lines": lines_of(read_bundle(text)), "text": text}
            return render(request, "exchange/coming.html", context)
        except UnreadableBundle as error:
            form.add_error("file", str(error))
    return render(request, "exchange/coming.html", context, status=400 if posted else 200)


@for_a_client
def tables(request: PageRequest, client: Client) -> HttpResponse:
    """Plans or logs that come in: days that are there stay as they are."""
    posted = request.method == "POST"
    form = TablesForm(request.POST if posted else None, request.FILES if posted else None)
    taken = None
    if posted and form.is_valid():
        try:
            taken = take_in(client, form.cleaned_data["file"], request.user)
        except NotATable as error:
            form.add_error("file", f"Nothing was taken in. {error}")
    context = {"client": client, "form": form, "taken": taken}
    status = 400 if posted and taken is None else 200
    return render(request, "exchange/tables.html", context, status=status)


@require_POST
@for_a_client
def values(request: PageRequest, client: Client) -> HttpResponse:
    """What the file of the first visit has of weights and values is taken over, or let go."""
    begun = get_object_or_404(Begun, intake__client=client)
    if "drop" in request.POST:
        begun.delete()
        messages.info(request, "What else was in the file is let go.")
        return redirect("clients:page", client.pk)
    weights, count = take_over(client, begun, request.user)
    messages.success(request, f"Taken over: weights {weights}, values {count}.")
    return redirect("clients:page", client.pk)
