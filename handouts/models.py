"""What a client is handed: papers made into one file while it is fetched, and the events of their
calendar."""

import uuid

from django.db import models
from django.utils import timezone
from django_scopes import ScopedManager

from clients.models import Client
from record.recorded import Recorded
from record.recorded import ScopedManager as RecordedScopedManager


class Bundle(models.Model):
    """Papers in one file, made for somebody who waits for it; it is not kept for longer than a
    day, for it can be made anew."""

    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="bundles")
    title = models.CharField(max_length=120)
    file = models.BinaryField()
    sheets = models.PositiveSmallIntegerField(default=0)
    made = models.DateTimeField(auto_now_add=True)

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["-made"]


class CalendarWish(Recorded):
    """What a client wants in their calendar: which kinds of event, when their meals are, and how
    long before an event they are told. Minutes of the day by the key of the meal."""

    record_of = "client"

    client = models.OneToOneField(Client, on_delete=models.CASCADE, related_name="calendar_wish")
    kinds = models.JSONField(default=list)
    times = models.JSONField(default=dict)
    alarm_minutes = models.PositiveSmallIntegerField(default=15)
    # Monday is 0; None where they are not asked to weigh in
    weigh_day = models.PositiveSmallIntegerField(null=True, blank=True)
    since = models.DateField(default=timezone.localdate, editable=False)

    objects = RecordedScopedManager(practice="client__practice")


class CalendarEvent(models.Model):
    """An event that was given out: what it said then, so that it is known whether it changed since,
    and how often it did."""

    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="calendar_events")
    # what it is known by here, and in calendars
    key = models.CharField(max_length=80)
    uid = models.UUIDField(default=uuid.uuid4, editable=False)
    sequence = models.PositiveIntegerField(default=0)
    # what it said, and when that was new
    data = models.JSONField(default=dict)
    changed = models.DateTimeField()
    called_off = models.BooleanField(default=False)

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["key"]
        constraints = [models.UniqueConstraint(fields=["client", "key"], name="one_of_a_key")]
