"""A session that rested too long: the password again, and what was typed goes on its way."""

from __future__ import annotations

import json

from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import CsrfViewMiddleware
from django.shortcuts import redirect, render
from django.utils import timezone
from django.utils.http import url_has_allowed_host_and_scheme

from people import recent
from people.forms import AgainForm, wrong_password
from people.models import SignedIn
from people.sessions import of_request
from practice.middleware import by_script
from practice.models import User

# What a form carries for itself is not what somebody typed.
OWN_FIELDS = ("csrfmiddlewaretoken",)
SIGNED_OUT = "You were signed out after a rest."


def ask_again(request: HttpRequest, row: SignedIn) -> HttpResponse:
    """In place of any page: that it rests, and the password. What a form held goes along."""
    if not row.rests:
        # the clock alone does not open it again
        SignedIn.objects.filter(pk=row.pk).update(rests=True)
    if by_script(request):
        return HttpResponse(SIGNED_OUT, status=401, content_type="text/plain")
    posted = request.method == "POST"
    context = {
        "form": AgainForm(),
        "to": request.get_full_path() if not posted else request.path,
        "kept": json.dumps(_kept(request) if posted and _from_here(request) else []),
        "posted": posted,
        "files": bool(posted and request.FILES),
    }
    return render(request, "people/again.html", context, status=401)


def _from_here(request: HttpRequest) -> bool:
    """Whether a form came from a page of ours: what another site sends is not kept for them."""
    check = CsrfViewMiddleware(lambda asked: HttpResponse())
    check.process_request(request)
    return check.process_view(request, _nothing, (), {}) is None


def _nothing(request: HttpRequest) -> HttpResponse:
    return HttpResponse()


def _kept(request: HttpRequest) -> list[tuple[str, str]]:
    return [
        (name, value)
        for name, values in request.POST.lists()
        if name not in OWN_FIELDS
        for value in values
    ]


def _read(text: str) -> list[tuple[str, str]]:
    """What was kept, as it went out; nothing of what has another shape."""
    try:
        rows = json.loads(text)
    except ValueError:
        return []
    if not isinstance(rows, list):
        return []
    return [
        (row[0], row[1])
        for row in rows
        if isinstance(row, list) and len(row) == 2 and all(isinstance(one, str) for one in row)
    ]


def again(request: HttpRequest) -> HttpResponse:
    """The password of whoever rested, and the code where they have one. What was typed is shown
    again as a form that is sent with one click."""
    user = request.user
    if not isinstance(user, User):
        return redirect("sign-in")
    if request.method != "POST":
        return redirect("home")
    to = request.POST.get("to", "")
    if not url_has_allowed_host_and_scheme(to, allowed_hosts=None) or not to.startswith("/"):
        to = "/"
    posted = request.POST.get("posted") == "1"
    kept = _read(request.POST.get("kept", ""))
    form = AgainForm({"password": request.POST.get("again-password", "")})
    if form.is_valid() and (why := wrong_password(request, user, form.cleaned_data["password"])):
        form.add_error("password", why)
    context = {"form": form, "to": to, "kept": json.dumps(kept), "posted": posted}
    if not form.is_valid():
        return render(request, "people/again.html", context, status=400)
    row = of_request(request)
    SignedIn.objects.filter(pk=row.pk).update(rests=False, used=timezone.now())
    recent.note(request)
    if posted:
        return render(request, "people/send_now.html", context | {"fields": kept})
    return redirect(to)
