"""A request as a view gets it."""

from django.http import HttpRequest
from django_htmx.middleware import HtmxDetails

from practice.models import Practice, User


class SignedInRequest(HttpRequest):
    """A request of somebody who is signed in: what stands before a view has seen to that."""

    user: User
    practice: Practice
    htmx: HtmxDetails
