"""Days: what a client is to eat, meal by meal."""

from django.db import models
from django_scopes import ScopedManager

from bowls.models import Bowl
from clients.models import Client, TargetVersion
from practice.models import Practice
from practice.undo import Undoable
from recipes.models import Recipe

MEALS = [("breakfast", "Breakfast"), ("lunch", "Lunch"), ("dinner", "Dinner"), ("snack", "Between meals")]


class Day(Undoable):
    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="days")
    date = models.DateField()
    note = models.CharField(max_length=200, blank=True)
    # the targets it was planned for: later ones do not reach back
    made_for = models.ForeignKey(TargetVersion, on_delete=models.SET_NULL, null=True, blank=True, related_name="days")

    undo_rows = "entries"
    undo_fields = ("meal", "bowl_id", "recipe_id", "food", "amount", "low_g", "high_g", "locked")

    objects = ScopedManager(practice="practice")

    class Meta:
        ordering = ["-date", "-pk"]
        constraints = [models.UniqueConstraint(fields=["client", "date"], name="one_day_plan_a_date")]

    def __str__(self) -> str:
        return f"{self.client}, {self.date:%A %d %B %Y}"


class DayEntry(models.Model):
    """One thing in a meal: `amount` counts bowls or servings, or is grams of a single food. [g]"""

    day = models.ForeignKey(Day, on_delete=models.CASCADE, related_name="entries")
    meal = models.CharField(max_length=10, choices=MEALS)
    bowl = models.ForeignKey(Bowl, on_delete=models.PROTECT, null=True, blank=True)
    recipe = models.ForeignKey(Recipe, on_delete=models.PROTECT, null=True, blank=True)
    food = models.CharField(max_length=80, blank=True)
    amount = models.FloatField()
    low_g = models.FloatField(null=True, blank=True)
    high_g = models.FloatField(null=True, blank=True)
    # a proposal leaves it as it is
    locked = models.BooleanField(default=False)

    objects = ScopedManager(practice="day__practice")

    class Meta:
        ordering = ["pk"]
