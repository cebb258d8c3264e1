"""Signing in is slowed after wrong passwords: for a name, for an address, and for both.

Whoever signed in with a name before is known by a device cookie and has a count of their own, so
that somebody who guesses passwords, in the office or far from it, keeps nobody out who works there.
Source: OWASP, "Slow Down Online Guessing Attacks with Device Cookies". The figures are our
own.
"""

from __future__ import annotations

import secrets
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import datetime, timedelta
from typing import Any

from django.conf import settings
from django.core import signing
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from django.utils.crypto import salted_hmac

from people.models import FailedTry

# So far back wrong passwords count.
WINDOW = timedelta(minutes=15)
# So many of a name from one address, or from one known device, and it waits out the window.
MOST_OF_BOTH = 8
# So many of a name from devices that never signed in with it, wherever they are, and then of an
# address with whatever names: the next waits, twice as long each time.
FREE_OF_NAME, FREE_OF_ADDRESS = 16, 10
FIRST_WAIT = timedelta(seconds=5)
LONGEST_OF_NAME, LONGEST_OF_ADDRESS = timedelta(minutes=15), timedelta(minutes=1)
COOKIE, KNOWN_FOR = "known-device", timedelta(days=180)


def digest(words: str) -> str:
    """A name as it is kept: the same for the same name, and nothing else to be read from it."""
    return salted_hmac("people.slowing", words.strip().casefold(), algorithm="sha256").hexdigest()


def address_of(request: HttpRequest) -> str:
    """Where a request comes from, as the server knows it: behind a proxy of ours, from the proxy
    (roundpantry/serve.py)."""
    return str(request.META.get("REMOTE_ADDR", ""))[:45]


def _known(request: HttpRequest) -> dict[str, str]:
    try:
        read = signing.loads(request.COOKIES.get(COOKIE, ""), salt=COOKIE, max_age=KNOWN_FOR)
    except signing.BadSignature:
        return {}
    return read if isinstance(read, dict) else {}


def device_of(request: HttpRequest, name: str) -> str:
    """The mark of a device that signed in with this name before; empty for any other."""
    return _known(request).get(digest(name)[:16], "")


def know_again(request: HttpRequest, response: HttpResponse, name: str) -> None:
    """Give the device that just signed in its mark."""
    known = _known(request)
    key = digest(name)[:16]
    # the same device again keeps its mark, and a shared one a mark for each; the newest few
    known = dict([*(row for row in known.items() if row[0] != key)][-7:]) | {
        key: known.get(key) or secrets.token_hex(16)
    }
    response.set_cookie(
        COOKIE,
        signing.dumps(known, salt=COOKIE),
        max_age=int(KNOWN_FOR.total_seconds()),
        httponly=True,
        samesite="Lax",
        secure=settings.SESSION_COOKIE_SECURE,
    )


def _after(times: list[datetime], free: int, longest: timedelta) -> datetime | None:
    """Until when the next try waits: twice as long with each beyond the free ones."""
    beyond = len(times) - free
    if beyond < 0:
        return None
    # beyond that far the longest is reached anyway
    return times[-1] + min(FIRST_WAIT * 2 ** min(beyond, 16), longest)


def begin_try(request: HttpRequest, name: str) -> tuple[FailedTry | None, timedelta]:
    """Count a try before it is judged, so that many at once are counted too: the try and no wait,
    or none and how long the next has to wait. One that may not be made is not counted."""
    now, key = timezone.now(), digest(name)
    address, device = address_of(request), device_of(request, name)
    with transaction.atomic():
        FailedTry.objects.filter(at__lt=now - WINDOW).delete()
        # what lies ahead was written before the clock was set back
        tries = FailedTry.objects.filter(at__lte=now).order_by("at", "pk")
        same = tries.filter(name=key, device=device)
        mine = list((same if device else same.filter(address=address)).values_list("at", flat=True))
        waits: list[datetime | None] = [
            mine[-MOST_OF_BOTH] + WINDOW if len(mine) >= MOST_OF_BOTH else None
        ]
        if not device:
            strangers: Any = tries.filter(device="")
            of_name = list(strangers.filter(name=key).values_list("at", flat=True))
            of_address = list(strangers.filter(address=address).values_list("at", flat=True))
            waits.append(_after(of_name, FREE_OF_NAME, LONGEST_OF_NAME))
            waits.append(_after(of_address, FREE_OF_ADDRESS, LONGEST_OF_ADDRESS))
        until = max((one for one in waits if one is not None), default=now)
        if until > now:
            return None, until - now
        return FailedTry.objects.create(name=key, address=address, device=device, at=now), (
            timedelta()
        )


def waiting_words(wait: timedelta) -> str:
    """How long somebody has to wait, rounded up."""
    seconds = wait.total_seconds()
    if seconds <= 90:
        return f"{max(1, round(seconds + 0.5))} seconds"
    return f"{round(seconds / 60 + 0.5)} minutes"


class TooMany(Exception):
    """A try that may not be made yet; the message says how long to wait."""


@contextmanager
def one_try(request: HttpRequest, name: str) -> Iterator[None]:
    """Within this a try is judged: what is raised leaves it counted as wrong, a good end forgets
    what was wrong before. Raises TooMany where it may not be made yet."""
    tried, wait = begin_try(request, name)
    if tried is None:
        raise TooMany(waiting_words(wait))
    yield
    succeeded(request, name)


def succeeded(request: HttpRequest, name: str) -> None:
    """What was wrong before the right one is forgotten, of this name from here."""
    FailedTry.objects.filter(
        name=digest(name), address=address_of(request), device=device_of(request, name)
    ).delete()
