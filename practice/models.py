"""A practice and the people who work in it."""

from django.contrib.auth.models import AbstractUser
from django.db import models

from nutrition.written.units import SYSTEM_WORDS
from practice.versioned import Versioned


class Practice(Versioned):
    """The tenant: everything a practitioner keeps belongs to one practice and is seen by no
    other."""

    name = models.CharField(max_length=120)
    town = models.CharField(max_length=120, blank=True)
    measures = models.CharField(
        "cups and spoons", max_length=10, choices=list(SYSTEM_WORDS.items()), default="us"
    )
    contact = models.CharField(
        max_length=200, blank=True, help_text="Printed at the foot of handouts."
    )

    time_zone = models.CharField(
        "time zone",
        max_length=40,
        default="America/New_York",
        help_text="Its dates are the practice's dates: today, weigh-ins, days, handouts.",
    )

    def __str__(self) -> str:
        return self.name


class User(AbstractUser):
    """A practitioner. One without a practice can sign in but reaches nothing."""

    practice = models.ForeignKey(
        Practice, on_delete=models.PROTECT, null=True, blank=True, related_name="users"
    )

    # single letters as commands: who uses a screen reader, or dictates, may not want them
    letter_keys = models.BooleanField("single-letter keys", default=True)

    @property
    def shown_name(self) -> str:
        return self.get_full_name() or self.username
