"""A form that is sent twice is worked off once: the second sending is answered as the first was.

What is sent carries a key: the page's scripts give each sending one (`Form-Key`); without script it
is the token that a page gives its forms, with all that stands in the form.
"""

from __future__ import annotations

import hashlib
import time
from collections.abc import Callable

from django.core.cache import cache
from django.http import HttpRequest, HttpResponse, HttpResponseRedirect

from practice.middleware import by_script

# So long a second sending is taken for the same; so long it waits for the first to be done. [s]
KEPT, WAITS, LOOKS = 30, 20.0, 0.05
UNDER_WAY = "under way"


def _key(request: HttpRequest) -> str:
    """What tells two sendings of one form; empty where nothing does."""
    who = request.COOKIES.get("sessionid", "")
    said = request.headers.get("Form-Key", "")
    if not said and not by_script(request):
        said = request.POST.get("csrfmiddlewaretoken", "")
    if not said:
        return ""
    sent = sorted((name, values) for name, values in request.POST.lists())
    text = repr((who, request.path, said[:200], sent))
    return f"sent-{hashlib.sha256(text.encode()).hexdigest()}"


class OnceMiddleware:
    """Stands where the form can be read already, before anything is done with it."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        # what comes with a file is refused twice by what it holds
        key = "" if request.method != "POST" or request.FILES else _key(request)
        if not key or cache.add(key, UNDER_WAY, KEPT):
            return self._first(request, key)
        return self._answered(key) or self.get_response(request)

    def _first(self, request: HttpRequest, key: str) -> HttpResponse:
        try:
            response = self.get_response(request)
        except BaseException:
            if key:
                cache.delete(key)
            raise
        if not key:
            return response
        if response.status_code in (301, 302, 303):
            cache.set(key, response["Location"], KEPT)
        elif response.status_code < 300 and by_script(request):
            cache.set(key, "", KEPT)
        else:
            # what was refused may be sent again
            cache.delete(key)
        return response

    def _answered(self, key: str) -> HttpResponse | None:
        """As the first sending was answered; None where it was refused, or takes too long."""
        until = time.monotonic() + WAITS
        while (there := cache.get(key)) == UNDER_WAY and time.monotonic() < until:
            time.sleep(LOOKS)
        if there is None or there == UNDER_WAY:
            return None
        # a page that was answered once already has what it needs
        return HttpResponseRedirect(there) if there else HttpResponse(status=204)
