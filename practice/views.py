"""The practice's own settings, and the pages for what is refused or went wrong."""

import sys

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render

from practice.forms import PracticeForm
from practice.middleware import by_script
from practice.models import Practice
from practice.requests import SignedInRequest
from practice.storage import words_of
from practice.versioned import StaleSave, version_in


def settings(request: SignedInRequest) -> HttpResponse:
    practice = Practice.objects.get(pk=request.user.practice_id)  # type: ignore[misc]
    form = PracticeForm(request.POST or None, instance=practice)
    version, stale = practice.version, None
    if request.method == "POST" and form.is_valid():
        asked = version_in(request.POST.get("version"))
        try:
            form.instance.save_over(practice.version if asked is None else asked)
            messages.success(request, "Saved.")
            return redirect("practice")
        except StaleSave as error:
            stale, version = error.current, error.current.version
    changed = [
        (form.fields[name].label, getattr(stale, name), form.cleaned_data[name])
        for name in (form.fields if stale else ())
    ]
    context = {
        "form": form,
        "version": version,
        "stale": [row for row in changed if row[1] != row[2]],
    }
    return render(
        request,
        "practice/settings.html",
        context,
        status=409 if stale else 400 if request.method == "POST" else 200,
    )


def _page(request: SignedInRequest, status: int, title: str, text: str) -> HttpResponse:
    if by_script(request):
        return HttpResponse(text, status=status, content_type="text/plain")
    return render(request, "practice/wrong.html", {"title": title, "text": text}, status=status)


def form_refused(request: SignedInRequest, reason: str = "") -> HttpResponse:
    """A form whose token no longer holds: mostly after signing in anew elsewhere."""
    text = (
        "The page was opened before you last signed in. Nothing was saved. Go back, load "
        "the page again, and send it once more."
    )
    return _page(request, 403, "Not saved", text)


def forbidden(request: SignedInRequest, exception: Exception | None = None) -> HttpResponse:
    return _page(request, 403, "Not for you", str(exception) or "This is not yours to see.")


def not_found(request: SignedInRequest, exception: Exception | None = None) -> HttpResponse:
    text = (
        "There is nothing at this address, or it is not this practice's. What was taken away can "
        "be brought back from its list for thirty days."
    )
    return _page(request, 404, "Not there", text)


def failed(request: SignedInRequest) -> HttpResponse:
    if words := words_of(sys.exc_info()[1]):
        return _page(request, 503, "It could not be kept", words)
    text = (
        "Something went wrong here, and nothing was saved. Go back: what you typed is "
        "mostly still in the form."
    )
    return _page(request, 500, "That did not work", text)
