"""What a practice adds to the food table: foods copied from packages, words that mean one food
here, values put in place of a row's."""

from django.db import models

from nutrition.composition.overrides import Overruling, label_of
from nutrition.labels.label import Label
from nutrition.labels.printed_value import KIND_WORDS
from practice.models import Practice, User
from practice.versioned import Versioned
from record.recorded import Recorded, ScopedManager

SLUG = "own-"
COPIED = (
    *("name", "kind", "serving", "serving_size", "servings", "printed", "ingredients"),
    *("claims", "like", "like_sure", "sure"),
)


# So much of each is kept of what is copied. [characters]
LONGEST = {
    "name": 120,
    "serving": 60,
    "serving_size": 20,
    "servings": 12,
    "ingredients": 4000,
    "claims": 300,
    "like": 120,
}


class OwnFoods(models.Model):
    """Which state a practice's own foods are in: a new `stamp` with every change of them."""

    practice = models.OneToOneField(Practice, on_delete=models.CASCADE, related_name="own_foods")
    stamp = models.CharField(max_length=32)


class OwnFood(Versioned):
    """A food of the practice's own, as it was copied from its package, and the food that makes.

    `made` is that food as plain data, made with the tables that `made_with` tells. `takes_name`
    says that its name alone means it here, also where the table has one of that name. One that is
    `retired` stays where it is used, and is not offered.
    """

    record_leaves_out = frozenset({"made", "made_with"})

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    name = models.CharField(max_length=LONGEST["name"])
    kind = models.CharField("values are", max_length=12, choices=list(KIND_WORDS.items()))
    serving = models.CharField(max_length=LONGEST["serving"], blank=True)
    serving_size = models.CharField(max_length=LONGEST["serving_size"])
    servings = models.CharField(max_length=LONGEST["servings"], blank=True)
    printed = models.JSONField(default=dict)
    ingredients = models.TextField(max_length=LONGEST["ingredients"], blank=True)
    claims = models.CharField(max_length=LONGEST["claims"], blank=True)
    like = models.CharField(max_length=LONGEST["like"], blank=True)
    like_sure = models.BooleanField(default=True)
    sure = models.BooleanField(default=False)
    takes_name = models.BooleanField(default=True)
    made = models.JSONField(default=dict)
    made_with = models.CharField(max_length=16)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    retired = models.DateTimeField(null=True, blank=True)
    retired_by = models.ForeignKey(
        User, on_delete=models.PROTECT, null=True, blank=True, related_name="+"
    )

    objects = ScopedManager(practice="practice")

    class Meta:
        ordering = ["name", "pk"]

    def __str__(self) -> str:
        return self.name

    @property
    def slug(self) -> str:
        return f"{SLUG}{self.pk}"

    def copied(self) -> dict[str, object]:
        """What was copied, as a version keeps it."""
        return {name: getattr(self, name) for name in COPIED}

    def label(self) -> Label:
        return Label(**{name: getattr(self, name) for name in COPIED})


class OwnFoodVersion(Recorded):
    """A food as it was copied once, with who saved it and when."""

    record_of = "food"

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    food = models.ForeignKey(OwnFood, on_delete=models.CASCADE, related_name="versions")
    number = models.PositiveIntegerField()
    copied = models.JSONField()
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    made = models.DateTimeField(auto_now_add=True)

    objects = ScopedManager(practice="practice")

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["food", "number"], name="one_of_a_number")]


class Word(Recorded):
    """Words that mean one food in this practice, settled by somebody, until it is undone."""

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    phrase = models.CharField(max_length=120)
    # the words as they are compared, a space between them
    said = models.CharField(max_length=120)
    food = models.CharField(max_length=120)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    made = models.DateTimeField(auto_now_add=True)
    undone = models.DateTimeField(null=True, blank=True)
    undone_by = models.ForeignKey(
        User, on_delete=models.PROTECT, null=True, blank=True, related_name="+"
    )

    objects = ScopedManager(practice="practice")

    class Meta:
        ordering = ["phrase", "pk"]
        constraints = [
            models.UniqueConstraint(
                fields=["practice", "said"],
                condition=models.Q(undone=None),
                name="one_meaning_at_a_time",
            )
        ]

    def __str__(self) -> str:
        return self.phrase


class Overrule(Recorded):
    """A value put in place of what a row of the table says, with the reason, until it is ended."""

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    food = models.CharField(max_length=120)
    key = models.CharField(max_length=60)
    value = models.FloatField()
    low = models.FloatField()
    high = models.FloatField()
    reason = models.CharField(max_length=300)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    made = models.DateTimeField(auto_now_add=True)
    ended = models.DateTimeField(null=True, blank=True)
    ended_by = models.ForeignKey(
        User, on_delete=models.PROTECT, null=True, blank=True, related_name="+"
    )

    objects = ScopedManager(practice="practice")

    class Meta:
        ordering = ["-made", "-pk"]
        constraints = [
            models.UniqueConstraint(
                fields=["practice", "food", "key"],
                condition=models.Q(ended=None),
                name="one_value_at_a_time",
            )
        ]

    @property
    def about(self) -> str:
        """What is overruled, in words."""
        return label_of(self.key)

    def core(self) -> Overruling:
        said = (
            f"{self.by.shown_name}, {self.made:%b} {self.made.day}, {self.made.year}: {self.reason}"
        )
        return Overruling(key=self.key, value=self.value, low=self.low, high=self.high, said=said)
