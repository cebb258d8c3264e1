"""A client's week: how it usually is, what is liked in it, and one that is planned."""

from datetime import date, timedelta

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models

from bowls.models import Bowl
from clients.models import Client, TargetVersion
from nutrition.prep.batches import USUAL_CONTAINER_ML
from planner.models import EATEN, MEALS, Day, Eaten, eaten_words
from practice.models import Practice, User
from practice.removal import Archivable, PresentManager, Removable
from practice.undo import Undoable
from practice.versioned import Versioned
from recipes.models import Recipe
from record.recorded import Recorded, ScopedManager

LENGTHS = [(7, "7 days"), (14, "14 days")]


class ClientSkeleton(Versioned):
    """How a client's week usually is: plain data that `nutrition.planning.skeleton` reads."""

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    client = models.OneToOneField(Client, on_delete=models.CASCADE, related_name="skeleton")
    data = models.JSONField()

    objects = ScopedManager(practice="practice")


class Favorite(Recorded):
    """A recipe, a bowl or a food that was tried for a kind of slot: kept, in order, or refused, and
    then not offered again."""

    record_of = "client"

    VERDICTS = [("kept", "kept"), ("refused", "refused")]
    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="favorites_kept")
    kind = models.CharField(max_length=20)
    recipe = models.ForeignKey(Recipe, on_delete=models.CASCADE, null=True, blank=True)
    bowl = models.ForeignKey(Bowl, on_delete=models.CASCADE, null=True, blank=True)
    food = models.CharField(max_length=80, blank=True)
    # what the planning knows it by: "recipe-12", "bowl-3", "food-walnuts"
    key = models.CharField(max_length=100)
    verdict = models.CharField(max_length=8, choices=VERDICTS, default="kept")
    place = models.PositiveSmallIntegerField(default=0)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    made = models.DateTimeField(auto_now_add=True)

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["place", "pk"]
        constraints = [
            models.UniqueConstraint(
                fields=["client", "kind", "key"], name="one_verdict_on_a_dish_of_a_kind"
            )
        ]


class Week(Undoable, Removable, Archivable):
    """A week, or two, of a client. `skeleton` is how the week was when it was begun; `proposals`
    are those that were found last."""

    record_leaves_out = frozenset({"proposals"})

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="weeks")
    start = models.DateField("first day")
    days = models.PositiveSmallIntegerField("how long", choices=LENGTHS, default=7)
    note = models.CharField(max_length=200, blank=True)
    made_for = models.ForeignKey(
        TargetVersion, on_delete=models.SET_NULL, null=True, blank=True, related_name="weeks"
    )
    skeleton = models.JSONField()
    container_ml = models.FloatField(
        "a container holds [mL]",
        default=USUAL_CONTAINER_ML,
        validators=[MinValueValidator(50), MaxValueValidator(10_000)],
    )
    proposals = models.JSONField(default=list, blank=True)

    undo_rows = "entries"
    undo_fields = ("day", "meal", "place", "kind", *EATEN)

    objects = ScopedManager(_manager_class=PresentManager, practice="practice")
    with_removed = ScopedManager(practice="practice")

    class Meta:
        ordering = ["-start", "-pk"]

    def __str__(self) -> str:
        return f"{self.client}, week of {self.start:%B} {self.start.day}"

    @property
    def last(self) -> date:
        return self.start + timedelta(days=self.days - 1)

    def date_of(self, day: int) -> date:
        """The date of a day, counted from the first."""
        return self.start + timedelta(days=day)

    def undo_words(self, row: dict) -> str:
        return f"{eaten_words(row)} ({self.date_of(row['day']):%A}, {row['meal']})"


class WeekEntry(Eaten):
    """What stands in a slot of a planned week; a locked one is pinned."""

    record_of = "week"

    week = models.ForeignKey(Week, on_delete=models.CASCADE, related_name="entries")
    day = models.PositiveSmallIntegerField()
    meal = models.CharField(max_length=10, choices=MEALS)
    # which slot of the meal it stands in
    place = models.PositiveSmallIntegerField(default=0)
    kind = models.CharField(max_length=20, blank=True)

    objects = ScopedManager(practice="week__practice")

    class Meta:
        ordering = ["day", "pk"]
        constraints = [
            models.UniqueConstraint(
                fields=["week", "day", "meal", "place"], name="one_dish_in_a_slot"
            )
        ]

    @property
    def slot(self) -> str:
        """The key of its slot."""
        return f"{self.day}-{self.meal}-{self.place}"

    @property
    def key(self) -> str:
        """What the planning knows its dish by."""
        if self.recipe_id:
            return f"recipe-{self.recipe_id}"
        if self.bowl_id:
            return f"bowl-{self.bowl_id}"
        return f"food-{self.food}" if self.food else f"out-{self.planned_id}"


class MadeDay(Recorded):
    """A day of the planner that was made from a week, with what it held then."""

    record_of = "week"
    record_leaves_out = frozenset({"held"})

    week = models.ForeignKey(Week, on_delete=models.CASCADE, related_name="made_days")
    day = models.OneToOneField(Day, on_delete=models.CASCADE, related_name="from_week")
    held = models.JSONField()

    objects = ScopedManager(practice="week__practice")
