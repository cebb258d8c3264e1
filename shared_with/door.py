"""The door of a link: whether it opens, for what, and in which world a page of it stands. Nothing
of another client is within it."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import ExitStack
from datetime import timedelta
from functools import wraps
from typing import Concatenate, ParamSpec

from django.contrib.auth.decorators import login_not_required
from django.contrib.auth.hashers import check_password
from django.core.signing import BadSignature, TimestampSigner
from django.db.models import F
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils import timezone
from django_scopes import scope

from jobs.work import AROUND
from practice.requests import rendered
from record.acting import acting
from shared_with.addresses import link_of, token_of
from shared_with.models import MOST_TRIES, REST_MINUTES, Link, Use

# A code that was given holds so long on the phone. [s]
CODE_HOLDS = 90 * 86_400
_signer = TimestampSigner(salt="shared_with.code")
More = ParamSpec("More")
Page = Callable[Concatenate[HttpRequest, Link, More], HttpResponse]


def opens(link: Link | None) -> bool:
    """Whether a link shows anything today."""
    return (
        link is not None
        and link.taken_back is None
        and link.client.removed is None
        and timezone.localdate() <= link.until
    )


def for_the_link(
    page: str, shows: str = ""
) -> Callable[[Page[More]], Callable[Concatenate[HttpRequest, str, More], HttpResponse]]:
    """A page of a link: in the world of its practice and the time of its client, for who has the
    address, and the code where one is asked for. `shows` is what the link must show for it."""

    def around(view: Page[More]) -> Callable[Concatenate[HttpRequest, str, More], HttpResponse]:
        @login_not_required
        @wraps(view)
        def asked(
            request: HttpRequest, token: str, *args: More.args, **more: More.kwargs
        ) -> HttpResponse:
            link = link_of(token)
            if link is None:
                return _closed(request, 404)
            with ExitStack() as world:
                zone = link.client.time_zone or link.practice.time_zone
                world.enter_context(timezone.override(zone))
                world.enter_context(scope(practice=link.practice))
                world.enter_context(acting(link.practice_id, None))
                for one in AROUND.ask(link.practice):
                    world.enter_context(one)

                def shown() -> HttpResponse:
                    return view(request, link, *args, **more)

                return _within(request, link, page, shows, shown)

        return asked

    return around


def _within(
    request: HttpRequest, link: Link, page: str, shows: str, view: Callable[[], HttpResponse]
) -> HttpResponse:
    if not opens(link):
        return _closed(request, 410)
    if shows and shows not in link.shows:
        return _closed(request, 404)
    if link.code and not knows_the_code(request, link):
        return private(_code_asked(request, link))
    if request.method == "GET":
        _counted(link, page)
    try:
        return private(rendered(view()))
    except Http404:
        return _closed(request, 404)


def private(answered: HttpResponse) -> HttpResponse:
    """Nothing of it is found by searching, kept by what stands between, or told to other sites."""
    answered["X-Robots-Tag"] = "noindex, nofollow, noarchive"
    answered["Referrer-Policy"] = "no-referrer"
    if not answered.has_header("Cache-Control"):
        answered["Cache-Control"] = "private, no-store"
    return answered


def _closed(request: HttpRequest, status: int) -> HttpResponse:
    """Nothing is said of whose it was."""
    return private(render(request, "shared_with/closed.html", status=status))


def _counted(link: Link, page: str) -> None:
    now = timezone.now()
    Link.objects.filter(pk=link.pk).update(uses=F("uses") + 1, used=now)
    row, made = Use.objects.get_or_create(
        link=link, on=timezone.localdate(), page=page, defaults={"count": 1, "last": now}
    )
    if not made:
        Use.objects.filter(pk=row.pk).update(count=F("count") + 1, last=now)


def _cookie(link: Link) -> str:
    return f"with-{link.pk}"


def knows_the_code(request: HttpRequest, link: Link) -> bool:
    """Whether the code of the link was given on this phone; another code, and it is asked anew."""
    try:
        said = _signer.unsign(request.COOKIES.get(_cookie(link), ""), max_age=CODE_HOLDS)
    except BadSignature:
        return False
    return said == f"{link.nonce}{link.code[-16:]}"


def _code_asked(request: HttpRequest, link: Link) -> HttpResponse:
    """The code is asked for; given wrongly too often, it rests."""
    now = timezone.now()
    rests = link.tried is not None and now - link.tried < timedelta(minutes=REST_MINUTES)
    if link.tries >= MOST_TRIES and rests:
        context = {"problem": f"Too many tries. Wait {REST_MINUTES} minutes, or call us."}
        return render(request, "shared_with/code.html", context, status=429)
    given = request.POST.get("code", "").strip()
    if request.method != "POST" or "code" not in request.POST:
        return render(
            request, "shared_with/code.html", status=200 if request.method == "GET" else 403
        )
    if not check_password(given, link.code):
        tries = link.tries + 1 if rests else 1
        Link.objects.filter(pk=link.pk).update(tries=tries, tried=now)
        context = {"problem": "That is not the code that we gave you."}
        return render(request, "shared_with/code.html", context, status=403)
    Link.objects.filter(pk=link.pk).update(tries=0)
    answered = HttpResponse(status=303, headers={"Location": request.path})
    answered.set_cookie(
        _cookie(link),
        _signer.sign(f"{link.nonce}{link.code[-16:]}"),
        max_age=CODE_HOLDS,
        path=f"/with/{token_of(link)}/",
        httponly=True,
        samesite="Lax",
        secure=request.is_secure(),
    )
    return answered
