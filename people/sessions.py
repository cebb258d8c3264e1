"""Where somebody is signed in: written down at the sign-in, looked at with each request, ended."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.contrib.auth.signals import user_logged_in, user_logged_out
from django.contrib.sessions.models import Session
from django.db import transaction
from django.db.models import QuerySet
from django.http import HttpRequest
from django.utils import timezone

from people import recent
from people.models import SignedIn
from people.slowing import address_of
from practice.models import User
from practice.passing_notes import note_in_passing
from record import chain
from record.models import SIGNED_IN

# That a session is used is written down no more often.
NOTED_EVERY = timedelta(minutes=1)
# Systems and browsers by what a browser says of itself, the more particular first.
SYSTEMS = (
    ("iPhone", "iPhone"),
    ("iPad", "iPad"),
    ("Android", "Android"),
    ("Windows", "Windows"),
    ("Mac OS", "Mac"),
    ("Linux", "Linux"),
)


def words_of(browser: str) -> str:
    """The machine in a word, of what a browser says of itself."""
    return next((name for said, name in SYSTEMS if said in browser), "another machine")


def _began(sender: object, request: HttpRequest, user: User, **more: Any) -> None:
    if sender is not None:
        recent.note(request)
    key = request.session.session_key
    if key is None:
        request.session.save()
        key = request.session.session_key
    SignedIn.objects.update_or_create(
        session_key=key,
        defaults={
            "user": user,
            "address": address_of(request) or None,
            "browser": request.META.get("HTTP_USER_AGENT", "")[:200],
            "started": timezone.now(),
            "used": timezone.now(),
            "rests": False,
        },
    )
    if sender is not None and user.practice_id is not None:
        chain.write(SIGNED_IN, "people", practice=user.practice_id, who=user.pk)


def _over(sender: object, request: HttpRequest, **more: Any) -> None:
    SignedIn.objects.filter(session_key=request.session.session_key or "").delete()


def listen() -> None:
    """From now on sign-ins and sign-outs are written down."""
    user_logged_in.connect(_began, dispatch_uid="people.began")
    user_logged_out.connect(_over, dispatch_uid="people.over")


def at_rest(row: SignedIn, user: User) -> bool:
    """Whether a session was not used for longer than the practice lets one rest. A clock that was
    set back ends none."""
    if row.rests:
        return True
    minutes = user.practice.rest_minutes if user.practice else 60
    return timezone.now() - row.used > timedelta(minutes=minutes)


def of_request(request: HttpRequest) -> SignedIn:
    """The place of the session that a request is of; one from before they were written down is
    written down now."""
    key = request.session.session_key
    row = SignedIn.objects.filter(session_key=key).first()
    if row is None:
        _began(None, request, request.user)  # type: ignore[arg-type]
        row = SignedIn.objects.get(session_key=key)
    return row


def note_use(row: SignedIn) -> None:
    now = timezone.now()
    if abs(now - row.used) > NOTED_EVERY:
        note_in_passing(lambda: SignedIn.objects.filter(pk=row.pk).update(used=now))


def end(rows: QuerySet[SignedIn]) -> int:
    """Sign out at these places; how many they were."""
    with transaction.atomic():
        keys = list(rows.values_list("session_key", flat=True))
        Session.objects.filter(session_key__in=keys).delete()
        rows.delete()
    return len(keys)


def end_elsewhere(user: User, request: HttpRequest) -> int:
    """Sign somebody out everywhere but here."""
    return end(user.signed_in.exclude(session_key=request.session.session_key or ""))
