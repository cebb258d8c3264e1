"""What one client has a right to: consent, everything as one file, to be erased."""

from __future__ import annotations

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils import timezone
from django.utils.text import slugify
from django.views.decorators.http import require_GET, require_POST

from clients.models import Client
from clients.pages.context import PageRequest
from journal.client_pages import for_a_client
from rights.archive.writing import archive_of_client
from rights.erasing import erase, in_backups_until, mentions
from rights.forms import ConsentForm, EraseForm
from rights.models import Consent
from rights.retention import due_on
from webkit.client_address import lead_on_for


@for_a_client
def rights(request: PageRequest, client: Client) -> HttpResponse:
    return _page(request, client)


def _page(
    request: PageRequest, client: Client, form: ConsentForm | None = None, status: int = 200
) -> HttpResponse:
    first = {"on": timezone.localdate(), "text": request.practice.consent_text}
    years = request.practice.keep_years
    context = {
        "client": client,
        "form": form or ConsentForm(initial=first),
        "consents": Consent.objects.filter(client=client).select_related("by"),
        "due": due_on(client, years) if years is not None else None,
    }
    return render(request, "rights/client.html", context, status=status)


@require_POST
@for_a_client
def consent(request: PageRequest, client: Client) -> HttpResponse:
    form = ConsentForm(request.POST)
    if not form.is_valid():
        return _page(request, client, form, 400)
    form.instance.client, form.instance.by = client, request.user
    form.save()
    messages.success(request, "The consent is on record.")
    return redirect("rights:client")


@require_POST
@for_a_client
def withdraw(request: PageRequest, client: Client, pk: int) -> HttpResponse:
    """A consent taken back: it stays on record, with the day."""
    row = get_object_or_404(Consent, pk=pk, client=client)
    row.withdrawn = None if "back" in request.POST else timezone.localdate()
    row.save(update_fields=["withdrawn"])
    return redirect("rights:client")


@require_GET
@for_a_client
def archive(request: PageRequest, client: Client) -> HttpResponse:
    """Everything about the client as one file."""
    response = HttpResponse(archive_of_client(client), content_type="application/zip")
    name = f"{slugify(client.name) or 'client'}-{timezone.localdate()}.zip"
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    return response


@for_a_client
def erase_client(request: PageRequest, client: Client) -> HttpResponse:
    """What goes with a client, what stays, and then the name typed."""
    form = EraseForm(client, request.POST or None)
    if request.method == "POST" and form.is_valid():
        name = client.name
        receipt = erase(client, request.user)
        # no page is for them any more
        request.for_client = None
        lead_on_for(None)
        context = {"receipt": receipt, "name": name, "practice": request.practice}
        return render(request, "rights/erased.html", context)
    context = {
        "client": client,
        "form": form,
        "mentions": mentions(client),
        "until": in_backups_until(timezone.localdate()),
    }
    status = 400 if request.method == "POST" else 200
    return render(request, "rights/erase.html", context, status=status)
