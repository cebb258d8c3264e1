"""What a client agreed to, who was warned of, and who is no longer here."""

from __future__ import annotations

from django.db import models

from clients.models import Client
from practice.models import Practice, User
from record.recorded import Recorded, ScopedManager


class Consent(Recorded):
    """What a client agreed to, in the words that they were given, until they take it back."""

    record_of = "client"

    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="consents")
    text = models.TextField("what was agreed to", max_length=4000)
    on = models.DateField("agreed on")
    how = models.CharField("how it was given", max_length=120, blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    made = models.DateTimeField(auto_now_add=True)
    withdrawn = models.DateField("taken back on", null=True, blank=True)

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["-on", "-pk"]


class Warned(Recorded):
    """That what is known of a client has been kept as long as the practice's rule says: since when
    that is said, and whether somebody keeps it for longer."""

    record_of = "client"

    client = models.OneToOneField(Client, on_delete=models.CASCADE, related_name="warned")
    since = models.DateField()
    keep_until = models.DateField(null=True, blank=True)
    why = models.CharField("why it is kept", max_length=200, blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT, null=True, blank=True, related_name="+")

    objects = ScopedManager(practice="client__practice")


class Erased(models.Model):
    """That somebody was erased: a receipt, with nothing of who it was."""

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    # the number that the client had, and nothing else has
    client = models.BigIntegerField()
    at = models.DateTimeField()
    by = models.ForeignKey(User, on_delete=models.PROTECT, null=True, related_name="+")
    rows = models.PositiveIntegerField()
    # until then a backup may still hold them
    in_backups_until = models.DateField()

    objects = ScopedManager(practice="practice")

    class Meta:
        ordering = ["-at"]
