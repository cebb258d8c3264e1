"""Lists in pages."""

from collections.abc import Sequence
from typing import Any

from django.core.paginator import Page, Paginator
from django.http import HttpRequest

ON_A_PAGE = 50


def paged(request: HttpRequest, rows: Sequence[Any]) -> Page:
    """The page of a list that is asked for, the nearest there is to it; rows or a queryset."""
    return Paginator(rows, ON_A_PAGE).get_page(request.GET.get("page"))
