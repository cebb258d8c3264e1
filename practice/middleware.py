"""Signed in, and within the scope of the own practice, for the length of a request."""

from collections.abc import Callable
from typing import Any

from django.contrib.auth.middleware import LoginRequiredMiddleware
from django.core.exceptions import PermissionDenied
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from django_scopes import scope

from practice.requests import SignedInRequest, rendered
from record.acting import acting

# Sent with everything that the page sends by script, so that it is told what became of it and need
# not leave the page.
SENT_BY_SCRIPT = "Sent-By"


# The letters that a form may come in.
LETTERS = ("utf-8", "utf8", "us-ascii", "ascii", '"utf-8"')


def by_script(request: HttpRequest) -> bool:
    return bool(request.headers.get("HX-Request") or request.headers.get(SENT_BY_SCRIPT))


class SignedInMiddleware(LoginRequiredMiddleware):
    """A page that is opened leads to the sign-in; what a page sends of itself is told that the
    session has ended, and keeps what was typed."""

    def handle_no_permission(self, request: HttpRequest, view_func: Callable) -> Any:
        if by_script(request):
            return HttpResponse("You are signed out.", status=401, content_type="text/plain")
        return super().handle_no_permission(request, view_func)


class PracticeScopeMiddleware:
    """Scoped models raise when queried outside this: a forgotten filter fails loudly instead of
    leaking."""

    def __init__(self, get_response: Callable[[Any], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: SignedInRequest) -> HttpResponse:
        user = request.user
        if not user.is_authenticated:
            return self.get_response(request)
        if user.practice is None and not request.path.startswith("/sign-"):
            raise PermissionDenied("Your sign-in belongs to no practice yet.")
        if user.practice is None:
            return rendered(self.get_response(request))
        request.practice = user.practice
        # today, and every date that is shown, is the practice's own
        with (
            timezone.override(user.practice.time_zone),
            scope(practice=user.practice),
            acting(user.practice_id, user.pk),
        ):
            return rendered(self.get_response(request))


class NoStoreMiddleware:
    """What is somebody's is kept by no browser and no proxy: a page is there for as long as it is
    looked at."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        if request.user.is_authenticated and not response.has_header("Cache-Control"):
            response["Cache-Control"] = "no-store"
        return response


class WellFormedMiddleware:
    """Refuses a form in letters that it cannot be read in, and answers a question for the heads
    alone with the heads alone: what comes after it on the same connection is read right."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        letters = (request.content_params or {}).get("charset", "utf-8")
        if letters.strip().lower() not in LETTERS:
            return HttpResponse(
                "Send it in UTF-8: nothing was read.", status=400, content_type="text/plain"
            )
        response = self.get_response(request)
        if request.method == "HEAD" and not response.streaming:
            response.content = b""
            response["Content-Length"] = "0"
        return response


class GoToMiddleware:
    """Tells a form that was sent by script where to go next, in place of a redirect that it could
    not see."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        if request.headers.get(SENT_BY_SCRIPT) and response.status_code in (301, 302, 303):
            told = HttpResponse(status=204, headers={"Go-To": response["Location"]})
            told.cookies = response.cookies
            return told
        return response
