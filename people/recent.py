"""What makes a sign-in somebody's own is changed only a short while after the password was given:
not by whoever finds a page open."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime, timedelta
from functools import wraps
from typing import Any

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils import timezone

from people.forms import AgainForm
from practice.middleware import by_script

# So long the password that was given stands.
STANDS = timedelta(minutes=15)
NAME = "password-given"


def note(request: HttpRequest) -> None:
    """The password was given just now, or a passkey, which is as much."""
    request.session[NAME] = timezone.now().isoformat()


def given(request: HttpRequest) -> bool:
    """Whether it was given a short while ago."""
    said = request.session.get(NAME)
    if not said:
        return False
    return timedelta() <= timezone.now() - datetime.fromisoformat(said) <= STANDS


def asked_first(view: Callable[..., Any]) -> Callable[..., Any]:
    """The view, after the password where it was given too long ago."""

    @wraps(view)
    def asked(request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
        if given(request):
            response: HttpResponse = view(request, *args, **kwargs)
            return response
        if by_script(request) or request.content_type == "application/json":
            return HttpResponse(
                "Give your password first: open the page anew.",
                status=403,
                content_type="text/plain",
            )
        context = {"form": AgainForm(), "to": request.get_full_path(), "first": True}
        return render(request, "people/again.html", context, status=401)

    return asked
