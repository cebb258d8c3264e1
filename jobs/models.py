"""Work that takes longer than a page waits: what was asked, how far it is, how it ended."""

from __future__ import annotations

from django.db import models
from django_scopes import ScopedManager

from practice.models import Practice, User

WAITING, RUNNING, DONE, FAILED = "waiting", "running", "done", "failed"


class Job(models.Model):
    """One piece of work. `kind` names what does it, `about` what it is of: there is one at a time
    of a kind about a thing. It is worked on under a lease, which whoever works on it renews: one
    whose lease ran out was interrupted."""

    STATES = [(state, state) for state in (WAITING, RUNNING, DONE, FAILED)]
    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    kind = models.CharField(max_length=20)
    about = models.CharField(max_length=60)
    asked = models.JSONField(default=dict)
    state = models.CharField(max_length=8, choices=STATES, default=WAITING)
    # how far it is [0 to 1], and what is done just now, in words
    share = models.FloatField(default=0.0)
    words = models.CharField(max_length=200, blank=True)
    # it is to stop, and to keep what it has
    stop = models.BooleanField(default=False)
    # what came of it, or why nothing did, for a person to read
    told = models.JSONField(default=list)
    lease_until = models.DateTimeField(null=True)
    tries = models.PositiveSmallIntegerField(default=0)
    made = models.DateTimeField(auto_now_add=True)
    # when somebody last looked how far it is
    looked = models.DateTimeField(auto_now_add=True)

    objects = ScopedManager(practice="practice")

    class Meta:
        ordering = ["pk"]
        indexes = [models.Index(fields=["state", "id"], name="jobs_next")]

    @property
    def over(self) -> bool:
        return self.state in (DONE, FAILED)


class Chore(models.Model):
    """Something that is done again and again: when it was done last, and what came of it."""

    name = models.CharField(max_length=40, unique=True)
    last = models.DateTimeField()
    well = models.BooleanField(default=True)
    said = models.CharField(max_length=300, blank=True)
