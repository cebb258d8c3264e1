"""A request as a view gets it."""

from typing import Any

from django.http import HttpRequest
from django_htmx.middleware import HtmxDetails

from practice.models import Practice, User


class SignedInRequest(HttpRequest):
    """A request of somebody who is signed in: what stands before a view has seen to that."""

    user: User
    practice: Practice
    htmx: HtmxDetails


def rendered(response: Any) -> Any:
    """The response, rendered now where it would be later: what it needs is at hand now only."""
    if hasattr(response, "render") and not getattr(response, "is_rendered", True):
        response.render()
    return response
