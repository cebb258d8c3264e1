"""The client in focus, for every template."""

from django.http import HttpRequest

from clients.models import Client

SESSION_KEY = "client_in_focus"


def focused(request: HttpRequest) -> Client | None:
    """The client in focus, None if there is none (any more)."""
    pk = request.session.get(SESSION_KEY)
    return Client.objects.filter(pk=pk).first() if pk else None


def client_in_focus(request: HttpRequest) -> dict[str, object]:
    if not request.user.is_authenticated or request.user.practice is None:
        return {}
    return {"focus": focused(request)}
