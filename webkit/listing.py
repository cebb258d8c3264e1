"""A list as it is asked for: words searched for, a filter, an order, a page; from the database, so
that a long list answers as fast as a short one."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import reduce
from typing import Any

from django.core.paginator import Page, Paginator
from django.db.models import Q, QuerySet
from django.http import HttpRequest

ON_A_PAGE = 20
MOST_WORDS, MOST_LENGTH = 8, 80


@dataclass(frozen=True, kw_only=True)
class Lists:
    """What a list can be asked for: where words are searched in, its orders and filters by key,
    each with what it is called. The first of each is the usual one."""

    search: tuple[str, ...]
    sorts: Mapping[str, tuple[str, tuple[Any, ...]]]
    filters: Mapping[str, tuple[str, Q]] = field(default_factory=dict)


@dataclass(frozen=True, kw_only=True)
class Listed:
    """What was asked of a list, for its form, and the page of rows."""

    q: str
    sort: str
    chosen: str
    sorts: list[tuple[str, str]]
    filters: list[tuple[str, str]]
    page: Page

    @property
    def asked(self) -> bool:
        return bool(self.q or self.chosen)


def _chosen(asked: str, known: Mapping[str, Any]) -> str:
    return asked if asked in known else next(iter(known), "")


def listed(request: HttpRequest, rows: QuerySet, lists: Lists) -> Listed:
    """The page of a list that is asked for, the nearest there is to it."""
    q = request.GET.get("q", "").strip()[:MOST_LENGTH]
    sort = _chosen(request.GET.get("sort", ""), lists.sorts)
    chosen = _chosen(request.GET.get("show", ""), lists.filters)
    for word in q.split()[:MOST_WORDS]:
        rows = rows.filter(
            reduce(Q.__or__, (Q(**{f"{name}__icontains": word}) for name in lists.search))
        )
    if chosen:
        rows = rows.filter(lists.filters[chosen][1])
    page = Paginator(rows.order_by(*lists.sorts[sort][1]), ON_A_PAGE)
    return Listed(
        q=q,
        sort=sort,
        chosen="" if chosen == next(iter(lists.filters), "") else chosen,
        sorts=[(key, one[0]) for key, one in lists.sorts.items()],
        filters=[(key, one[0]) for key, one in lists.filters.items()],
        page=page.get_page(request.GET.get("page")),
    )
