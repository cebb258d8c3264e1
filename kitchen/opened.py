"""A session opened by its number, for the client whose it is."""

from __future__ import annotations

from django.http import HttpResponse
from django.shortcuts import get_object_or_404

from clients.pages.context import PageRequest, settle_on
from kitchen.models import CookingSession


def opened(request: PageRequest, pk: int) -> tuple[CookingSession, HttpResponse | None]:
    """A session, and where to go instead of to its page. Raises Http404."""
    row: CookingSession = get_object_or_404(
        CookingSession.with_removed.select_related("client", "week"), pk=pk
    )
    row.practice = request.practice
    return row, settle_on(request, row.client)
