"""Whom a page is for: the client in its address, and nothing else."""

from collections.abc import Callable
from contextlib import nullcontext
from typing import Any

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect
from django.utils.functional import SimpleLazyObject

from clients.models import Client
from clients.plan.standing import stands_anyway
from practice.requests import SignedInRequest, rendered
from webkit.client_address import addresses_for, client_in, lead_on_for, without_client
from webkit.page_cache import reading

# The stages that have a page for nobody in particular.
STAGES = ("pantry", "recipes", "bowls", "days", "weeks", "kitchen", "compare", "schools")


class PageRequest(SignedInRequest):
    """A request with the client whom the page is for; None where the address names none."""

    for_client: Client | None


class ClientInAddressMiddleware:
    """Opens the client that the address names; one that this practice does not have is not
    found."""

    def __init__(self, get_response: Callable[[Any], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: PageRequest) -> HttpResponse:
        request.for_client = None
        pk = client_in(request.path_info)
        request.path_info = without_client(request.path_info)
        with addresses_for(pk):
            if pk is not None and request.user.is_authenticated:
                request.for_client = Client.with_removed.filter(pk=pk).first()
                if request.for_client is None:
                    raise Http404("no such client")
            # what is rendered late needs the same addresses; a page that is only read asks once
            with reading() if request.method in ("GET", "HEAD") else nullcontext():
                return rendered(self.get_response(request))


def settle_on(
    request: PageRequest, client: Client | None, named: bool = False
) -> HttpResponse | None:
    """The page is for `client`, whose record it shows. A page that is opened for nobody, or for
    somebody else than the client whose own page it is, is opened again with the right client in its
    address; a form is simply worked off for them. Where the address has `named` the client
    otherwise, as /clients/3/ does, it is right already.
    """
    if client is None or (request.for_client is not None and request.for_client.pk == client.pk):
        return None
    for_nobody = request.for_client is None
    lead_on_for(client.pk)
    request.for_client = client
    if request.method != "GET" or request.htmx or (named and for_nobody):
        return None
    query = request.META.get("QUERY_STRING", "")
    return redirect(f"/for/{client.pk}{without_client(request.path)}{f'?{query}' if query else ''}")


def _out_of(path: str) -> str:
    """Where somebody goes on for nobody: the list of the same stage of the work. A record that is
    the client's alone would lead back to them."""
    stage = without_client(path).strip("/").partition("/")[0]
    return f"/{stage}/" if stage in STAGES else "/clients/"


def page_client(request: HttpRequest) -> dict[str, object]:
    """For every template: the client whom the page is for, where to go on for nobody, and what
    stands for the client whatever is eaten."""
    client = getattr(request, "for_client", None)
    return {
        "page_client": client,
        "for_nobody": _out_of(request.path) if client else "",
        # asked for by whole pages only, and once: it takes the trend of all weigh-ins
        "stands_anyway": SimpleLazyObject(lambda: stands_anyway(client)),
    }
