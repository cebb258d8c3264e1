"""Nobody reaches an address without a rule that lets them; a session at rest ends, and keeps what
was typed; who has to have a second step sets one up first."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from django.contrib.auth.models import AnonymousUser
from django.core.exceptions import PermissionDenied
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect

from people import rest, second_step, sessions
from people.not_yours import greyed
from practice.access import ANYBODY, OF_ALL, ONESELF, READ, may, route_of
from practice.middleware import by_script
from practice.models import User
from practice.roles import ROLES
from record import reads

OPEN_AT_REST = ("/sign-in/", "/sign-out/", "/static/", "/health/", "/ready/")
REFUSED = "Your role here is {role}: it {may}. Ask an owner of the practice."


class AllowedMiddleware:
    """The rules of an address, before its view is called. What a role may not send is shown, and
    cannot be sent."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        _note(request, response)
        return greyed(request, response)

    def process_view(
        self, request: HttpRequest, view: Any, args: Any, kwargs: Any
    ) -> HttpResponse | None:
        match = request.resolver_match
        assert match is not None
        name = match.view_name
        user: User | AnonymousUser = request.user
        route = route_of(name)
        of_oneself = route is not None and {route.look, route.change} <= {ANYBODY, ONESELF, None}
        if isinstance(user, User) and not of_oneself and _wants_second_step(user):
            if by_script(request):
                raise PermissionDenied("Set up your second step first: open any page.")
            return redirect("second-step")
        if may(user, name, request.method or ""):
            return None
        if not isinstance(user, User):
            # who is not signed in is led to the sign-in, and told nothing else
            return None
        if user.role in ROLES:
            one = ROLES[user.role]
            raise PermissionDenied(REFUSED.format(role=one.name, may=one.may))
        raise PermissionDenied("Your sign-in has no role yet.")


def _note(request: HttpRequest, response: HttpResponse) -> None:
    """That somebody looked at what is a client's, printed it or took it out, for the record."""
    match, user = request.resolver_match, request.user
    if match is None or request.method != "GET" or response.status_code != 200:
        return
    route = route_of(match.view_name)
    if route is None or not isinstance(user, User) or user.practice_id is None:
        return
    client = getattr(request, "for_client", None)
    looked = client is not None and not request.headers.get("HX-Request")
    if route.kept_as != READ or looked:
        act = READ if route.kept_as == OF_ALL else route.kept_as
        about = client.pk if client is not None and route.kept_as != OF_ALL else None
        reads.note(user.practice_id, user.pk, act, match.view_name, about)


def _wants_second_step(user: User) -> bool:
    return bool(
        user.practice is not None
        and user.practice.second_step
        and getattr(user, "otp_device", None) is None
        and not second_step.has_one(user)
    )


class RestMiddleware:
    """A session that was not used for as long as its practice lets one rest is no longer open. A
    page leads to the password; what was typed is kept, and sent after it."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        user = request.user
        if not isinstance(user, User):
            return self.get_response(request)
        row = sessions.of_request(request)
        if sessions.at_rest(row, user):
            # the sign-in and its styles are there for whoever comes next; nothing is set up here
            if request.path.startswith(OPEN_AT_REST) and "/registration/" not in request.path:
                return self.get_response(request)
            return rest.ask_again(request, row)
        sessions.note_use(row)
        return self.get_response(request)
