"""The client in the address: /for/3/bowls/5/ is the bowl looked at for client 3, and every link and
form on it leads on for them.

Nothing else says whom a page is for: two tabs with two clients do not know of each other. Django's
script prefix carries it: all addresses that are made while a page is for a client begin with it.
"""

import re
from collections.abc import Iterator
from contextlib import contextmanager

from django.urls import get_script_prefix, set_script_prefix

_PREFIX = re.compile(r"^/for/(\d{1,15})(?=/)")


def client_in(path: str) -> int | None:
    """The key of the client in an address's path, None for none."""
    match = _PREFIX.match(path)
    return int(match[1]) if match else None


def without_client(path: str) -> str:
    """The same address without the client in it."""
    return _PREFIX.sub("", path)


def lead_on_for(pk: int | None) -> None:
    """From here on, addresses that are made carry this client."""
    own = without_client(get_script_prefix())
    set_script_prefix(own if pk is None else f"/for/{pk}{own}")


@contextmanager
def addresses_for(pk: int | None) -> Iterator[None]:
    """Within this, addresses that are made carry the client."""
    before = get_script_prefix()
    lead_on_for(pk)
    try:
        yield
    finally:
        set_script_prefix(before)
