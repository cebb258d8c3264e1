"""For whoever watches the installation, and the page of its owners."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import render
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe

from practice.requests import SignedInRequest
from running import state


@require_safe
@never_cache
def health(request: HttpRequest) -> HttpResponse:
    """That it answers at all."""
    return HttpResponse("ok\n", content_type="text/plain")


@require_safe
@never_cache
def ready(request: HttpRequest) -> HttpResponse:
    """Whether it can be given work."""
    told = state.ready()
    return JsonResponse(told, status=200 if all(told.values()) else 503)


@require_safe
def page(request: SignedInRequest) -> HttpResponse:
    """How the installation stands."""
    found = state.now()
    context = {"state": found, "days": state.by_day(found.errors), "newest": found.errors[:10]}
    return render(request, "running/page.html", context)
