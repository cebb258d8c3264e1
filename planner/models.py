"""Days: what a client is to eat, meal by meal."""

from django.db import models

from bowls.models import Bowl
from clients.models import Client, TargetVersion
from nutrition.composition.foods import food_table
from practice.models import Practice
from practice.removal import Archivable, PresentManager, Removable
from practice.undo import Undoable, row_of
from recipes.models import Recipe
from record.recorded import Recorded, ScopedManager

MEALS = [
    ("breakfast", "Breakfast"),
    ("lunch", "Lunch"),
    ("dinner", "Dinner"),
    ("snack", "Between meals"),
]


# What makes a row of something eaten what it is.
EATEN = ("bowl_id", "recipe_id", "food", "amount", "low_g", "high_g", "locked", "planned_id")


class PlannedDish(models.Model):
    """A recipe or a bowl as it was when it was planned, with everything that it is made of: later
    changes do not reach back.

    Equal ones are kept once, told by the digest of `data`.
    """

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    digest = models.CharField(max_length=64)
    data = models.JSONField()

    objects = ScopedManager(practice="practice")

    class Meta:
        constraints = [
            models.UniqueConstraint(
                fields=["practice", "digest"], name="one_planned_dish_of_a_kind"
            )
        ]


class Day(Undoable, Removable, Archivable):
    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="days")
    date = models.DateField()
    note = models.CharField(max_length=200, blank=True)
    # the targets it was planned for: later ones do not reach back
    made_for = models.ForeignKey(
        TargetVersion, on_delete=models.SET_NULL, null=True, blank=True, related_name="days"
    )

    undo_rows = "entries"
    undo_fields = ("meal", *EATEN)

    objects = ScopedManager(_manager_class=PresentManager, practice="practice")
    with_removed = ScopedManager(practice="practice")

    class Meta:
        ordering = ["-date", "-pk"]
        constraints = [
            models.UniqueConstraint(
                fields=["client", "date"],
                condition=models.Q(removed=None),
                name="one_day_plan_a_date_that_counts",
            )
        ]

    def __str__(self) -> str:
        return f"{self.client}, {self.date:%A %d %B %Y}"

    def undo_words(self, row: dict) -> str:
        return f"{eaten_words(row)} ({row['meal']})"


class Eaten(Recorded):
    """A recipe, a bowl or a food that somebody is to eat: `amount` counts servings or bowls, or is
    grams of a single food. [g]"""

    bowl = models.ForeignKey(Bowl, on_delete=models.PROTECT, null=True, blank=True)
    recipe = models.ForeignKey(Recipe, on_delete=models.PROTECT, null=True, blank=True)
    food = models.CharField(max_length=80, blank=True)
    amount = models.FloatField()
    low_g = models.FloatField(null=True, blank=True)
    high_g = models.FloatField(null=True, blank=True)
    # a proposal leaves it as it is
    locked = models.BooleanField(default=False)
    # the bowl or recipe as it was when it was planned
    planned = models.ForeignKey(PlannedDish, on_delete=models.PROTECT, null=True, blank=True)

    class Meta:
        abstract = True

    def record_name(self) -> str:
        return eaten_words(row_of(self, EATEN))


def eaten_words(row: dict) -> str:
    """A row as it was kept, in words, without its meal."""
    planned = (
        PlannedDish.objects.filter(pk=row.get("planned_id")).first()  # type: ignore[misc]
        if row.get("planned_id")
        else None
    )
    if planned is not None:
        return f"{planned.data['title']} × {row['amount']:g}"
    name = food_table()[row["food"]].name if row["food"] in food_table() else row["food"]
    return f"{name or 'a dish'} {row['amount']:g}{' g' if row['food'] else ''}"


class DayEntry(Eaten):
    """One thing in a meal of a day."""

    record_of = "day"

    day = models.ForeignKey(Day, on_delete=models.CASCADE, related_name="entries")
    meal = models.CharField(max_length=10, choices=MEALS)

    objects = ScopedManager(practice="day__practice")

    class Meta:
        ordering = ["pk"]
