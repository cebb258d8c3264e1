"""What somebody's role may not send is shown as it is, and cannot be sent: the rules that refuse
it are asked beforehand, so that no page needs to know them."""

from __future__ import annotations

import re
from html import unescape

from django.http import HttpRequest, HttpResponse
from django.urls import Resolver404, resolve

from practice.access import may
from practice.models import User
from practice.roles import PRACTITIONER, reach_of
from webkit.client_address import without_client

_FORM = re.compile(r"<form\b[^>]*>|</form>", re.I)
_ATTRIBUTE = re.compile(r"""\b(action|method|hx-post)\s*=\s*("[^"]*"|'[^']*')""", re.I)
CLOSED = '<fieldset class="not-yours" disabled>'


def greyed(request: HttpRequest, response: HttpResponse) -> HttpResponse:
    """The page with every form closed that its reader may not send."""
    user = getattr(request, "user", None)
    if (
        not isinstance(user, User)
        or reach_of(user.role) > reach_of(PRACTITIONER)
        or response.streaming
        or not response.get("Content-Type", "").startswith("text/html")
    ):
        return response
    text = response.content.decode()
    out, at, closing = [], 0, False
    for found in _FORM.finditer(text):
        tag = found[0]
        if tag.lower() == "</form>":
            if closing:
                out.append(text[at : found.start()] + "</fieldset>")
                at, closing = found.start(), False
        elif _sends(tag) and not _may_send(request, user, tag):
            out.append(text[at : found.end()] + CLOSED)
            at, closing = found.end(), True
    if out:
        response.content = "".join([*out, text[at:]]).encode()
    return response


def _attributes(tag: str) -> dict[str, str]:
    return {name.lower(): unescape(value[1:-1]) for name, value in _ATTRIBUTE.findall(tag)}


def _sends(tag: str) -> bool:
    said = _attributes(tag)
    return said.get("method", "").lower() == "post" or "hx-post" in said


def _may_send(request: HttpRequest, user: User, tag: str) -> bool:
    said = _attributes(tag)
    to = said.get("action") or said.get("hx-post") or request.get_full_path()
    path = without_client(to.split("?")[0].split("#")[0])
    try:
        name = resolve(path).view_name if path.startswith("/") else ""
    except Resolver404:
        name = ""
    # a form whose address is not ours is refused where it leads, if at all
    return not name or may(user, name, "POST")
