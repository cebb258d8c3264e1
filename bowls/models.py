"""Bowls: parts by role, each a food or a recipe, in a vessel of a certain size."""

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models

from clients.models import Client
from nutrition.composition.foods import ROLES, food_table
from nutrition.written.typed_amounts import leveled_range
from practice.models import Practice
from practice.removal import Archivable, PresentManager, Removable
from practice.undo import Undoable, row_of
from recipes.models import Recipe
from record.recorded import Recorded, ScopedManager

BOWL_ROLES = [(role, role) for role in ROLES]


class Bowl(Undoable, Removable, Archivable):
    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    name = models.CharField(max_length=120)
    client = models.ForeignKey(Client, on_delete=models.SET_NULL, null=True, blank=True)
    vessel_ml = models.PositiveIntegerField(
        "vessel [mL]", default=1000, validators=[MinValueValidator(100), MaxValueValidator(5000)]
    )
    # which meal it is judged as; empty: the one it stands in, or whose energy it is nearest to
    meal = models.CharField(max_length=10, blank=True)
    undo_rows = "parts"
    undo_fields = (
        "role",
        "food",
        "recipe_id",
        "grams",
        "low_g",
        "high_g",
        "basis",
        "place",
        "star",
        "locked",
        "least_g",
        "most_g",
    )

    objects = ScopedManager(_manager_class=PresentManager, practice="practice")
    with_removed = ScopedManager(practice="practice")

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name

    def undo_words(self, row: dict) -> str:
        food = food_table()[row["food"]].name if row["food"] in food_table() else row["food"]
        name = (
            food
            or Recipe._base_manager.filter(pk=row["recipe_id"])
            .values_list("title", flat=True)
            .first()
            or "a recipe"
        )
        marks = [word for word in ("star", "locked") if row.get(word)]
        said = f" ({', '.join(marks)})" if marks else ""
        return f"{name} {row['grams']:.0f} g{said}"


class BowlPart(Recorded):
    record_of = "bowl"

    bowl = models.ForeignKey(Bowl, on_delete=models.CASCADE, related_name="parts")
    role = models.CharField(max_length=10, choices=BOWL_ROLES)
    food = models.CharField(max_length=80, blank=True)
    recipe = models.ForeignKey(Recipe, on_delete=models.PROTECT, null=True, blank=True)
    grams = models.FloatField()
    low_g = models.FloatField(null=True, blank=True)
    high_g = models.FloatField(null=True, blank=True)
    basis = models.CharField(max_length=20, default="weighed")
    place = models.PositiveSmallIntegerField(default=0)
    star = models.BooleanField(default=False)
    # what a proposal may make of it
    locked = models.BooleanField(default=False)
    least_g = models.FloatField(null=True, blank=True)
    most_g = models.FloatField(null=True, blank=True)

    objects = ScopedManager(practice="bowl__practice")

    class Meta:
        ordering = ["place", "pk"]
        constraints = [
            models.CheckConstraint(
                condition=models.Q(food="", recipe__isnull=False)
                | (~models.Q(food="") & models.Q(recipe__isnull=True)),
                name="part_is_a_food_or_a_recipe",
            )
        ]

    def record_name(self) -> str:
        return self.bowl.undo_words(row_of(self, Bowl.undo_fields))

    def level(self, grams: float) -> None:
        """So much of it as a leveled measure gives; not saved. [g]"""
        self.grams, self.basis = grams, "leveled measure"
        self.low_g, self.high_g = leveled_range(grams)
