"""Whose journal: every page of it belongs to the client in its address."""

from __future__ import annotations

from collections.abc import Callable
from functools import wraps
from typing import Concatenate, ParamSpec

from django.http import HttpResponse
from django.shortcuts import redirect, render

from clients.models import Client
from clients.pages.context import PageRequest
from webkit.listing import Lists, listed

WHOSE = Lists(search=("name",), sorts={"name": ("name", ("name",))})
More = ParamSpec("More")


def for_a_client(
    view: Callable[Concatenate[PageRequest, Client, More], HttpResponse],
) -> Callable[Concatenate[PageRequest, More], HttpResponse]:
    """The view with the client in the address; where there is none, a list to choose from."""

    @wraps(view)
    def asked(request: PageRequest, *args: More.args, **more: More.kwargs) -> HttpResponse:
        if request.for_client is not None:
            return view(request, request.for_client, *args, **more)
        if request.method == "POST":
            return redirect("journal:page")
        rows = listed(request, Client.objects.all(), WHOSE)
        context = {"whose": rows, "nobody": not Client.objects.exists()}
        return render(request, "journal/whose.html", context)

    return asked
