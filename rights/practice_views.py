"""How a practice keeps what it knows: for how long, what it asks, everything as one file, a client
who comes from elsewhere."""

from __future__ import annotations

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils import timezone
from django.utils.text import slugify
from django.views.decorators.http import require_GET, require_POST

from clients.models import Client
from clients.pages.context import PageRequest
from practice.models import Practice
from rights.archive.layout import UnreadableArchive
from rights.archive.reading import opened, read_client
from rights.archive.writing import archive_of_practice
from rights.forms import KeepForm, KeepingForm, TakeInForm
from rights.models import Erased, Warned
from rights.retention import due_soon


def practice(request: PageRequest) -> HttpResponse:
    """How long is kept, who is due, who was erased."""
    stored = Practice.objects.get(pk=request.practice.pk)
    form = KeepingForm(request.POST or None, instance=stored)
    if request.method == "POST" and form.is_valid():
        form.save()
        messages.success(request, "Saved.")
        return redirect("rights:practice")
    return _page(request, form, 400 if request.method == "POST" else 200)


def _page(
    request: PageRequest, form: KeepingForm, status: int, take_in: TakeInForm | None = None
) -> HttpResponse:
    context = {
        "form": form,
        "due": due_soon(request.practice),
        "keep_form": KeepForm(),
        "take_in": take_in or TakeInForm(),
        "erased": Erased.objects.select_related("by"),
    }
    return render(request, "rights/practice.html", context, status=status)


@require_POST
def keep(request: PageRequest, pk: int) -> HttpResponse:
    """Somebody who is due is kept for longer, with the reason."""
    client: Client = get_object_or_404(Client.with_removed, pk=pk)
    form = KeepForm(request.POST)
    if form.is_valid():
        Warned.objects.update_or_create(
            client=client,
            defaults={
                "keep_until": form.cleaned_data["until"],
                "why": form.cleaned_data["why"],
                "by": request.user,
            },
            create_defaults={
                "since": timezone.localdate(),
                "keep_until": form.cleaned_data["until"],
                "why": form.cleaned_data["why"],
                "by": request.user,
            },
        )
        messages.success(request, f"{client.name} is kept until {form.cleaned_data['until']}.")
    else:
        said = " ".join(str(words) for errors in form.errors.values() for words in errors)
        messages.error(request, f"{client.name}: {said} Give a day that is to come, and a reason.")
    return redirect("rights:practice")


@require_GET
def archive(request: PageRequest) -> HttpResponse:
    """Everything of the practice as one file."""
    response = HttpResponse(archive_of_practice(request.practice), content_type="application/zip")
    name = f"{slugify(request.practice.name) or 'practice'}-{timezone.localdate()}.zip"
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    return response


@require_POST
def take_in(request: PageRequest) -> HttpResponse:
    """A client who comes with an archive from another practice."""
    form = TakeInForm(request.POST, request.FILES)
    if form.is_valid():
        try:
            read = opened(form.cleaned_data["file"].read())
            client = read_client(read, request.practice, request.user)
            made = f"{read.made:%B} {read.made.day}"
            messages.success(
                request,
                f"{client.name} is here, as {read.practice} had them on {made}. Their targets and "
                "cautions are reckoned anew with what is known here.",
            )
            return redirect("clients:page", client.pk)
        except UnreadableArchive as error:
            form.add_error("file", f"{error} Nothing was taken in.")
    return _page(request, KeepingForm(instance=request.practice), 400, form)
