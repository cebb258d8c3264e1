"""A place offered by link, and taken by whoever has the link."""

from __future__ import annotations

import secrets
from datetime import timedelta
from hashlib import sha256

from django.db import transaction
from django.utils import timezone

from people.models import Invitation
from practice.models import Practice, User

OPEN_FOR = timedelta(days=7)


def _digest(token: str) -> str:
    return sha256(token.encode()).hexdigest()


def invite(practice: Practice, by: User, name: str, email: str, role: str) -> str:
    """Offer a place; the token of its link, which is kept nowhere."""
    token = secrets.token_urlsafe(32)
    Invitation.objects.create(
        practice=practice,
        by=by,
        name=name,
        email=email,
        role=role,
        digest=_digest(token),
        until=timezone.now() + OPEN_FOR,
    )
    return token


def invited_by(token: str) -> Invitation | None:
    """The invitation of a link if it can still be taken."""
    row = Invitation.objects.filter(digest=_digest(token)).select_related("practice", "by").first()
    return row if row is not None and row.open else None


def take(token: str, person: User) -> Invitation | None:
    """Let a person, not stored yet, take the place of a link: once, whoever else has it open. None
    where somebody was faster."""
    with transaction.atomic():
        row = invited_by(token)
        if row is None:
            return None
        person.practice, person.role = row.practice, row.role
        person.email = person.email or row.email
        person.save()
        row.taken_by = person
        row.save(update_fields=["taken_by"])
        return row
