"""A practice and the people who work in it."""

from django.contrib.auth.models import AbstractUser
from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models

from nutrition.written.units import SYSTEM_WORDS
from practice.roles import READER, ROLES
from practice.versioned import Versioned
from record.recorded import Recorded, RecordedManager, ScopedManager

# What is printed on.
PAPERS = [("letter", "US letter"), ("a4", "A4")]
# A session at rest ends after no less and no more. [minutes]
REST = (5, 720)
# What is known of a client is kept for no less and no more. [years]
KEEP_YEARS = (1, 50)


class Practice(Versioned):
    """The tenant: everything a practitioner keeps belongs to one practice and is seen by no
    other."""

    objects = RecordedManager()

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

    paper_size = models.CharField("paper", max_length=6, default="letter", choices=PAPERS)

    # how people come in, set on the page of the people
    second_step = models.BooleanField("everybody signs in with a second step", default=False)
    rest_minutes = models.PositiveSmallIntegerField(
        "signed out after so long at rest [minutes]",
        default=60,
        validators=[MinValueValidator(REST[0]), MaxValueValidator(REST[1])],
    )
    # what clients are asked and how long what is known of them is kept, set on the page of rights
    consent_text = models.TextField("what clients agree to", max_length=4000, blank=True)
    keep_years = models.PositiveSmallIntegerField(
        "kept after the last visit, weight or plan [years]",
        null=True,
        blank=True,
        validators=[MinValueValidator(KEEP_YEARS[0]), MaxValueValidator(KEEP_YEARS[1])],
    )
    erase_when_due = models.BooleanField("erased by itself when it is due", default=False)

    def __str__(self) -> str:
        return self.name


class Mark(Recorded):
    """The practice's mark, on everything that is printed: small, within the address of an image."""

    record_of = "practice"
    record_leaves_out = frozenset({"picture"})

    practice = models.OneToOneField(Practice, on_delete=models.CASCADE, related_name="mark")
    picture = models.TextField()
    changed = models.DateTimeField(auto_now=True)

    objects = ScopedManager(practice="practice")


class User(AbstractUser, Recorded):
    """Somebody who works in a practice. One without a practice can sign in but reaches nothing;
    one who left is no longer active, and stays as the one who did what they did."""

    record_leaves_out = frozenset({"password", "last_login"})

    practice = models.ForeignKey(
        Practice, on_delete=models.PROTECT, null=True, blank=True, related_name="users"
    )
    # nobody may do more than look by an oversight
    role = models.CharField(
        max_length=12, choices=[(role, one.name) for role, one in ROLES.items()], default=READER
    )
    ended = models.DateTimeField(null=True, blank=True, editable=False)
    # somebody of another practice, named in what came from there; nobody signs in as them
    only_a_name = models.BooleanField(default=False, editable=False)

    # single letters as commands: who uses a screen reader, or dictates, may not want them
    letter_keys = models.BooleanField("single-letter keys", default=True)

    @property
    def shown_name(self) -> str:
        return self.get_full_name() or self.username
