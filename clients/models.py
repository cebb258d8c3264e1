"""Clients, what they weigh, and the targets a practitioner set by hand."""

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.utils import timezone
from django_scopes import ScopedManager

from nutrition import targets
from nutrition.allergens import ALLERGENS
from practice.models import Practice, User
from practice.versioned import Versioned

ACTIVITY_CHOICES = list(targets.ACTIVITY_WORDS.items())
GOAL_CHOICES = list(targets.GOAL_WORDS.items())


class Client(Versioned):
    """A person the practice plans for."""

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    name = models.CharField(max_length=120)
    about = models.CharField("who they are", max_length=200, blank=True)
    sex = models.CharField("sex used in equations", max_length=6, choices=[("female", "female"), ("male", "male")])
    birth_year = models.PositiveSmallIntegerField(validators=[MinValueValidator(1900), MaxValueValidator(2100)])
    height_cm = models.FloatField("height [cm]")
    weight_kg = models.FloatField("weight [kg]")
    activity = models.CharField(max_length=12, choices=ACTIVITY_CHOICES, default="low_active")
    goal = models.CharField(max_length=8, choices=GOAL_CHOICES, default="hold")
    life_stage = models.CharField(max_length=16, choices=list(targets.LIFE_STAGE_WORDS.items()), default="adult")
    formula = models.CharField("energy computed by", max_length=10, choices=list(targets.FORMULA_WORDS.items()), default="mifflin")
    conditions = models.TextField("conditions and medicines", blank=True)
    allergies = models.JSONField(default=list, blank=True)
    notes = models.TextField("how they eat and cook", blank=True)

    objects = ScopedManager(practice="practice")

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name

    @property
    def age_years(self) -> int:
        return timezone.localdate().year - self.birth_year

    def person(self) -> targets.Person:
        return targets.Person(
            self.sex,
            self.age_years,
            self.height_cm,
            self.last_weight_kg or self.weight_kg,
            self.activity,
            self.goal,
            self.life_stage,
            self.formula,
        )

    @property
    def last_weight_kg(self) -> float | None:
        if self.pk is None:
            return None
        last = self.weigh_ins.order_by("-date").first()
        return last.kg if last else None

    @property
    def allergy_words(self) -> str:
        return ", ".join(name for name in ALLERGENS if name in self.allergies)


class WeighIn(models.Model):
    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="weigh_ins")
    date = models.DateField()
    kg = models.FloatField()

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["date"]
        constraints = [models.UniqueConstraint(fields=["client", "date"], name="one_weigh_in_a_day")]


class TargetOverride(models.Model):
    """A number set by a clinician's order or the practitioner's choice; the computed one stays visible beside it."""

    KINDS = [("choice", "my choice"), ("order", "a clinician's order")]
    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="overrides")
    key = models.CharField(max_length=40)
    low = models.FloatField(null=True, blank=True)
    aim = models.FloatField()
    high = models.FloatField(null=True, blank=True)
    kind = models.CharField(max_length=6, choices=KINDS, default="choice")
    reason = models.CharField(max_length=300)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    made = models.DateTimeField(auto_now_add=True)
    ended = models.DateTimeField(null=True, blank=True)

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["-made"]
