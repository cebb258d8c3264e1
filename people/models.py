"""Invitations, the places where somebody is signed in, and the tries to sign in that failed."""

from __future__ import annotations

from django.db import models
from django.utils import timezone

from practice.models import Practice, User
from practice.roles import ROLES
from record.recorded import Recorded, RecordedManager


class Invitation(Recorded):
    """A place that somebody is offered. The link that takes it is shown once: what is kept of it
    cannot be turned back into it."""

    record_leaves_out = frozenset({"digest"})

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE, related_name="invitations")
    name = models.CharField("for whom", max_length=120)
    email = models.EmailField("mail", blank=True)
    role = models.CharField(
        max_length=12, choices=[(role, one.name) for role, one in ROLES.items()]
    )
    digest = models.CharField(max_length=64, unique=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    made = models.DateTimeField(auto_now_add=True)
    until = models.DateTimeField()
    taken_by = models.OneToOneField(
        User, on_delete=models.PROTECT, null=True, blank=True, related_name="invitation"
    )
    withdrawn = models.DateTimeField(null=True, blank=True)

    objects = RecordedManager()

    class Meta:
        ordering = ["-made"]

    @property
    def open(self) -> bool:
        return self.taken_by_id is None and self.withdrawn is None and timezone.now() < self.until


class SignedIn(models.Model):
    """A place where somebody is signed in: since when, from where, and when it was last used."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="signed_in")
    session_key = models.CharField(max_length=40, unique=True)
    started = models.DateTimeField(default=timezone.now)
    used = models.DateTimeField(default=timezone.now)
    address = models.GenericIPAddressField(null=True, blank=True)
    browser = models.CharField(max_length=200, blank=True)
    # what was sent after the rest is waited for with the password
    rests = models.BooleanField(default=False)

    class Meta:
        ordering = ["-used"]


class FailedTry(models.Model):
    """A try to sign in that failed, or is under way. Names are kept as digests: who types a
    password where the name belongs leaves no trace of it."""

    name = models.CharField(max_length=64)
    address = models.CharField(max_length=45)
    # the device that signed in with this name before; empty for one that never did
    device = models.CharField(max_length=32, blank=True)
    at = models.DateTimeField(default=timezone.now, db_index=True)
