"""Every address has a rule for looking and one for changing; one that has none is for nobody."""

from __future__ import annotations

from dataclasses import dataclass

from django.contrib.auth.models import AnonymousUser

from practice.models import User
from record.models import READ


@dataclass(frozen=True)
class Route:
    """The names of addresses, with spaces between them, that have the same rules: the permission to
    look, and the one to change; None where there is nothing to change. `kept_as` is what looking at
    one is in the record."""

    names: str
    look: str
    change: str | None
    kept_as: str = READ


# What looking at all clients at once is: a read, for whomever the page is.
OF_ALL = "of all"
# Everybody who is signed in, in a practice or not: their own sign-in.
ONESELF = "oneself"
# Nobody needs to be signed in.
ANYBODY = "anybody"
_ROUTES: dict[str, Route] = {}


def allow(app: str, *routes: Route) -> None:
    """The rules of the addresses of an app. Raises ValueError for an address that has one."""
    for route in routes:
        for name in route.names.split():
            full = f"{app}:{name}" if app else name
            if _ROUTES.get(full, route) != route:
                raise ValueError(f"{full} has two rules")
            _ROUTES[full] = route


def route_of(name: str) -> Route | None:
    """The rules of an address by its full name; None for one without, which is for nobody."""
    return _ROUTES.get(name)


def may(user: User | AnonymousUser, name: str, method: str) -> bool:
    """Whether somebody may send this to an address."""
    route = _ROUTES.get(name)
    if route is None:
        return False
    asked = route.look if method in ("GET", "HEAD", "OPTIONS") else route.change
    if asked == ANYBODY:
        return True
    if asked is None or not user.is_authenticated:
        return False
    return asked == ONESELF or user.has_perm(asked)
