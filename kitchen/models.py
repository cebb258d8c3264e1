"""A kitchen, sessions of cooking in it, what was put right and measured of recipes, and what is in
the house of what was cooked."""

from __future__ import annotations

from datetime import date, datetime, time, timedelta

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.utils import timezone

from bowls.models import Bowl
from clients.models import Client
from nutrition.prep.timeline.kitchen import (
    MOST_BLENDERS,
    MOST_BURNERS,
    MOST_COOKS,
    MOST_OVENS,
    MOST_SHELVES,
    Kitchen,
)
from practice.models import Practice, User
from practice.removal import PresentManager, Removable
from practice.versioned import Versioned
from recipes.models import Recipe
from record.recorded import Recorded, ScopedManager
from shopping.models import MOST_G
from week.models import Week


def _up_to(most: int, least: int = 0) -> list:
    return [MinValueValidator(least), MaxValueValidator(most)]


class Stove(Recorded):
    """What a client's kitchen has to cook with."""

    record_of = "client"

    client = models.OneToOneField(Client, on_delete=models.CASCADE, related_name="stove")
    cooks = models.PositiveSmallIntegerField(default=1, validators=_up_to(MOST_COOKS, 1))
    burners = models.PositiveSmallIntegerField(default=4, validators=_up_to(MOST_BURNERS))
    ovens = models.PositiveSmallIntegerField(default=1, validators=_up_to(MOST_OVENS))
    shelves = models.PositiveSmallIntegerField(
        "shelves in an oven", default=2, validators=_up_to(MOST_SHELVES)
    )
    blenders = models.PositiveSmallIntegerField(default=1, validators=_up_to(MOST_BLENDERS))

    objects = ScopedManager(practice="client__practice")

    def core(self) -> Kitchen:
        """What the core plans with."""
        return Kitchen(
            cooks=self.cooks,
            burners=self.burners,
            ovens=self.ovens,
            shelves=self.shelves,
            blenders=self.blenders,
        )


class CookingSession(Versioned, Removable):
    """Dishes that are cooked at one time: `dishes` says which, how much of each and when it is
    wanted, `plan` the steps that were found, `pins` what was moved by hand, `progress` what is done
    of it."""

    record_leaves_out = frozenset({"plan", "progress"})

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="cooking_sessions")
    week = models.ForeignKey(
        Week, on_delete=models.SET_NULL, null=True, blank=True, related_name="cooking_sessions"
    )
    day = models.DateField("on")
    # minutes from the midnight of that day
    ready_at = models.SmallIntegerField("ready at")
    earliest = models.SmallIntegerField("begin no earlier than")
    dishes = models.JSONField(default=list)
    pins = models.JSONField(default=dict, blank=True)
    plan = models.JSONField(default=dict, blank=True)
    progress = models.JSONField(default=dict, blank=True)
    ended = models.DateTimeField(null=True, blank=True)

    objects = ScopedManager(_manager_class=PresentManager, practice="practice")
    with_removed = ScopedManager(practice="practice")

    class Meta:
        ordering = ["-day", "-pk"]

    def __str__(self) -> str:
        return f"{self.client}, cooking on {self.day:%A, %B} {self.day.day}"

    def at(self, minutes: int) -> datetime:
        """The moment of so many minutes from the midnight of its day."""
        midnight = datetime.combine(self.day, time.min)
        return timezone.make_aware(midnight + timedelta(minutes=minutes))

    def minutes_at(self, moment: datetime) -> int:
        """A moment in minutes from the midnight of its day."""
        local = timezone.make_naive(moment)
        return int((local - datetime.combine(self.day, time.min)).total_seconds() // 60)

    def date_at(self, minutes: int) -> date:
        return self.day + timedelta(days=minutes // 1440)


class StepReading(Recorded):
    """What somebody put right of a piece of a recipe's steps, by its words."""

    record_of = "recipe"

    recipe = models.ForeignKey(Recipe, on_delete=models.CASCADE, related_name="step_readings")
    words = models.CharField(max_length=400)
    data = models.JSONField(default=dict)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    made = models.DateTimeField(auto_now=True)

    objects = ScopedManager(practice="recipe__practice")

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["recipe", "words"], name="one_reading_of_a_piece")
        ]


class PotMeasure(Recorded):
    """What a pot came to when it was cooked: its weight [g], how many servings of the recipe it was
    made for, and how many came out by the cook's count."""

    record_of = "recipe"

    recipe = models.ForeignKey(Recipe, on_delete=models.CASCADE, related_name="pots_measured")
    session = models.ForeignKey(
        CookingSession, on_delete=models.CASCADE, related_name="measures", null=True, blank=True
    )
    dish = models.CharField(max_length=60, blank=True)
    made_for = models.FloatField("servings made", validators=[MinValueValidator(0.01)])
    grams = models.FloatField("it weighed [g]", validators=[MaxValueValidator(MOST_G)])
    servings = models.FloatField("servings that came out", null=True, blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    made = models.DateTimeField(auto_now_add=True)

    objects = ScopedManager(practice="recipe__practice")

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["session", "dish"], name="one_measure_of_a_pot")
        ]


class StepTime(Recorded):
    """How long a piece of work took. [min]"""

    record_of = "recipe"

    recipe = models.ForeignKey(Recipe, on_delete=models.CASCADE, related_name="step_times")
    session = models.ForeignKey(CookingSession, on_delete=models.CASCADE, related_name="step_times")
    words = models.CharField(max_length=400)
    minutes = models.FloatField(validators=[MinValueValidator(0)])
    made = models.DateTimeField(auto_now_add=True)

    objects = ScopedManager(practice="recipe__practice")

    class Meta:
        ordering = ["pk"]


class Box(Recorded):
    """A container of something that was cooked: how much is in it, where it stands, until when, and
    what became of it."""

    record_of = "client"

    PLACES = [("refrigerator", "refrigerator"), ("freezer", "freezer")]
    GONE = [("eaten", "eaten"), ("thrown", "thrown away")]

    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="boxes")
    recipe = models.ForeignKey(Recipe, on_delete=models.CASCADE, related_name="boxes")
    session = models.ForeignKey(
        CookingSession, on_delete=models.SET_NULL, null=True, blank=True, related_name="boxes"
    )
    servings = models.FloatField(validators=[MinValueValidator(0)])
    grams = models.FloatField(validators=_up_to(int(MOST_G)))
    cooked = models.DateField()
    place = models.CharField(max_length=12, choices=PLACES, default="refrigerator")
    use_by = models.DateField()
    eaten_on = models.DateField("meant for", null=True, blank=True)
    gone = models.CharField(max_length=8, choices=GONE, blank=True)
    gone_on = models.DateField(null=True, blank=True)

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["use_by", "pk"]


class BowlWeighing(Recorded):
    """A bowl built on the scale: what was planned of each part and what was taken, by the part's
    number [g], and which of them were locked for it."""

    record_of = "bowl"

    bowl = models.ForeignKey(Bowl, on_delete=models.CASCADE, related_name="weighings")
    client = models.ForeignKey(
        Client, on_delete=models.CASCADE, null=True, blank=True, related_name="bowls_weighed"
    )
    planned = models.JSONField(default=dict)
    taken = models.JSONField(default=dict)
    locked = models.JSONField(default=list, blank=True)
    names = models.JSONField(default=dict, blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    made = models.DateTimeField(auto_now_add=True)
    ended = models.DateTimeField(null=True, blank=True)

    objects = ScopedManager(practice="bowl__practice")

    class Meta:
        ordering = ["-pk"]


class Thrown(Recorded):
    """Something that was thrown away: what, how much [g], and what it had cost, where that is
    known."""

    record_of = "client"

    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="thrown_away")
    name = models.CharField(max_length=160)
    grams = models.FloatField(validators=_up_to(int(MOST_G)))
    cost = models.DecimalField(max_digits=8, decimal_places=2, null=True, blank=True)
    on = models.DateField()

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["-on", "-pk"]
