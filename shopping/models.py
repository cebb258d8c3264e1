"""What a kitchen has, how the practice's shop sells it, and what of a week's list is bought."""

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models

from clients.models import Client
from practice.models import Practice, User
from record.recorded import Recorded, ScopedManager
from week.models import Week

MOST_G = 100_000.0


class Package(Recorded):
    """How a food is sold where this practice's clients shop: the unit, what one weighs [g], and
    what it costs, where that was entered."""

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    food = models.CharField(max_length=80)
    unit = models.CharField(max_length=20)
    grams = models.FloatField(
        "what one weighs [g]", validators=[MinValueValidator(1), MaxValueValidator(MOST_G)]
    )
    price = models.DecimalField(
        "price of one",
        max_digits=8,
        decimal_places=2,
        null=True,
        blank=True,
        validators=[MinValueValidator(0)],
    )

    objects = ScopedManager(practice="practice")

    class Meta:
        ordering = ["food"]
        constraints = [
            models.UniqueConstraint(fields=["practice", "food"], name="one_package_of_a_food")
        ]


class Stock(Recorded):
    """How much of a food a client's kitchen has [g], where it stands, whether it is opened, and
    until when it is good, where that is known."""

    record_of = "client"

    PLACES = [("shelf", "shelf"), ("refrigerator", "refrigerator"), ("freezer", "freezer")]

    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="stock")
    food = models.CharField(max_length=80)
    grams = models.FloatField(validators=[MinValueValidator(0), MaxValueValidator(MOST_G)])
    place = models.CharField(max_length=12, choices=PLACES, default="shelf")
    opened = models.DateField(null=True, blank=True)
    use_by = models.DateField(null=True, blank=True)
    updated = models.DateTimeField(auto_now=True)

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["food"]
        constraints = [
            models.UniqueConstraint(
                fields=["client", "food", "place"], name="one_stock_of_a_food_in_a_place"
            )
        ]


class Bought(Recorded):
    """A line of a week's list that was ticked off, and what came into the kitchen with it. [g]"""

    record_of = "week"

    week = models.ForeignKey(Week, on_delete=models.CASCADE, related_name="bought")
    key = models.CharField(max_length=100)
    food = models.CharField(max_length=80)
    grams = models.FloatField()
    words = models.CharField(max_length=80)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    made = models.DateTimeField(auto_now_add=True)

    objects = ScopedManager(practice="week__practice")

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["week", "key"], name="one_tick_of_a_line")]


class CookedPot(Recorded):
    """A pot of a week that was cooked, and what it took out of the kitchen. [g] by food"""

    record_of = "week"

    week = models.ForeignKey(Week, on_delete=models.CASCADE, related_name="cooked_pots")
    key = models.CharField(max_length=60)
    took = models.JSONField(default=dict)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    made = models.DateTimeField(auto_now_add=True)

    objects = ScopedManager(practice="week__practice")

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["week", "key"], name="one_cooking_of_a_pot")]
