"""A paper asked for where there is no page that asks: by whom, for whom, how."""

from __future__ import annotations

from collections.abc import Mapping

from django.http import QueryDict

from clients.models import Client
from clients.pages.context import PageRequest
from practice.models import Practice, User


def asked_by(
    practice: Practice, by: User, client: Client, options: Mapping[str, str]
) -> PageRequest:
    """What a page would be asked with."""
    request = PageRequest()
    request.method = "GET"
    request.user, request.practice, request.for_client = by, practice, client
    query = QueryDict(mutable=True)
    query.update(dict(options))
    request.GET = query  # type: ignore[assignment]
    return request
