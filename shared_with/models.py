"""Links that clients have, how they were used, and what came back by them."""

from __future__ import annotations

import secrets

from django.db import models

from clients.models import Client
from practice.models import Practice, User
from record.recorded import Recorded, ScopedManager

# What a link can show, by key, as it is ticked.
SHOWS = {
    "today": "today's meals, and how they went",
    "cooking": "what to cook",
    "shopping": "the shopping list",
    "weigh": "weighing in",
    "felt": "how it felt",
    "lesson": "the lesson of two plates",
    "calendar": "their calendar",
}
# Nobody guesses a code: so many tries, then a rest. [minutes]
MOST_TRIES, REST_MINUTES = 5, 15


def _nonce() -> str:
    return secrets.token_urlsafe(16)


class Link(Recorded):
    """An address that a practice gives to one client. The address is signed; what stands here says
    whether it still opens, and what it shows."""

    record_of = "client"
    record_leaves_out = frozenset({"nonce", "code", "tries", "tried", "used", "uses"})

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="links")
    nonce = models.CharField(max_length=40, unique=True, default=_nonce, editable=False)
    shows = models.JSONField(default=list)
    until = models.DateField("opens until")
    # hashed; empty where none is asked for
    code = models.CharField(max_length=128, blank=True)
    tries = models.PositiveSmallIntegerField(default=0)
    tried = models.DateTimeField(null=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    made = models.DateTimeField(auto_now_add=True)
    taken_back = models.DateTimeField(null=True, blank=True)
    used = models.DateTimeField(null=True)
    uses = models.PositiveIntegerField(default=0)

    objects = ScopedManager(practice="practice")

    class Meta:
        ordering = ["-made"]

    def __str__(self) -> str:
        return f"link of {self.client}"


class Use(models.Model):
    """How often a page of a link was opened on a day."""

    link = models.ForeignKey(Link, on_delete=models.CASCADE, related_name="days_used")
    on = models.DateField()
    page = models.CharField(max_length=12)
    count = models.PositiveIntegerField(default=0)
    last = models.DateTimeField()

    objects = ScopedManager(practice="link__practice")

    class Meta:
        ordering = ["-on", "page"]
        constraints = [
            models.UniqueConstraint(fields=["link", "on", "page"], name="one_use_of_a_day")
        ]


class Told(Recorded):
    """Something that a client told by their link: theirs until somebody of the practice has seen
    it. `name` is what the phone called it, so that it is told once however often it is sent;
    `held` says why it was not put into the record, empty where it was."""

    record_of = "client"
    record_leaves_out = frozenset({"name", "made_of"})

    KINDS = [("weight", "weight"), ("ate", "eaten"), ("felt", "felt")]
    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="told")
    name = models.CharField(max_length=40)
    kind = models.CharField(max_length=6, choices=KINDS)
    # the day that it is of
    on = models.DateField()
    said = models.CharField(max_length=400)
    data = models.JSONField(default=dict)
    held = models.CharField(max_length=200, blank=True)
    # the rows of the record that were made of it
    made_of = models.JSONField(default=list)
    at = models.DateTimeField()
    seen = models.DateTimeField(null=True, blank=True)
    seen_by = models.ForeignKey(
        User, on_delete=models.PROTECT, null=True, blank=True, related_name="+"
    )

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["-at", "-pk"]
        constraints = [
            models.UniqueConstraint(fields=["client", "name"], name="one_telling_of_a_name")
        ]
