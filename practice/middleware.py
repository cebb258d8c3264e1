"""Opens the scope of the signed-in practitioner's practice for the length of a request."""

from collections.abc import Callable

from django.core.exceptions import PermissionDenied
from django.http import HttpRequest, HttpResponse
from django_scopes import scope


class PracticeScopeMiddleware:
    """Scoped models raise when queried outside this: a forgotten filter fails loudly instead of leaking."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        user = request.user
        if not user.is_authenticated:
            return self.get_response(request)
        if user.practice is None and not request.path.startswith("/sign-"):
            raise PermissionDenied("Your sign-in belongs to no practice yet.")
        with scope(practice=user.practice):
            response = self.get_response(request)
            if hasattr(response, "render") and not getattr(response, "is_rendered", True):
                response.render()
            return response
