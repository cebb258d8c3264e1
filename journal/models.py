"""Following a client: what happened, what was eaten, how they feel, the one change that was taken,
and the visits."""

from __future__ import annotations

from django.core.validators import MaxValueValidator
from django.db import models

from clients.models import Client
from nutrition.follow_up.events import KINDS, Happened
from nutrition.follow_up.kitchen_line import LEFT_OUT
from planner.models import EATEN, MEALS, DayEntry, Eaten, eaten_words
from practice.models import Practice, User
from practice.removal import PresentManager, Removable
from practice.undo import Undoable
from practice.versioned import Versioned
from record.recorded import Recorded, ScopedManager


class Happening(Removable):
    """Something that happened to the client and bears on the weight."""

    record_of = "client"

    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="happenings")
    kind = models.CharField(
        "what", max_length=10, choices=[(key, one.name) for key, one in KINDS.items()]
    )
    start = models.DateField("from")
    end = models.DateField("until", null=True, blank=True)
    words = models.CharField(max_length=200, blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")

    objects = ScopedManager(_manager_class=PresentManager, practice="client__practice")
    with_removed = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["start", "pk"]

    def happened(self) -> Happened:
        return Happened(self.kind, self.start, self.end or self.start, self.words)


class LoggedDay(Undoable):
    """What is known of what a client ate on a day. `whole`: that was all of it."""

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="logged_days")
    date = models.DateField()
    whole = models.BooleanField(default=False)
    note = models.CharField(max_length=300, blank=True)

    undo_rows = "entries"
    undo_fields = (
        *("meal", *EATEN, "said", "how", "low", "high"),
        *("basis", "of_entry_id", "time", "place"),
    )

    objects = ScopedManager(practice="practice")

    class Meta:
        ordering = ["-date"]
        constraints = [models.UniqueConstraint(fields=["client", "date"], name="one_log_of_a_day")]

    def undo_words(self, row: dict) -> str:
        if not (row["bowl_id"] or row["recipe_id"] or row["food"] or row.get("planned_id")):
            return f"“{row['said']}”, not settled ({row['meal']})"
        return f"{eaten_words(row)} ({row['meal']})"


class LoggedEntry(Eaten):
    """Something that was eaten, or of what was planned not: as planned, or else. What nobody
    settled yet has neither dish nor food. `low` and `high` are the least and the most of the
    amount, where that is not the food's own range."""

    record_of = "day"

    HOW = [
        ("as planned", "as planned"),
        ("less", "less"),
        ("more", "more"),
        (LEFT_OUT, "not eaten"),
        ("instead", "instead"),
        ("besides", "besides"),
    ]
    day = models.ForeignKey(LoggedDay, on_delete=models.CASCADE, related_name="entries")
    meal = models.CharField(max_length=10, choices=MEALS)
    said = models.CharField("as it was said", max_length=200, blank=True)
    how = models.CharField(max_length=10, choices=HOW, default="besides")
    low = models.FloatField(null=True, blank=True)
    high = models.FloatField(null=True, blank=True)
    # how it was measured: "weighed", "by eye"
    basis = models.CharField(max_length=24, blank=True)
    of_entry = models.ForeignKey(DayEntry, on_delete=models.SET_NULL, null=True, related_name="+")
    time = models.CharField(max_length=8, blank=True)
    place = models.CharField(max_length=40, blank=True)

    objects = ScopedManager(practice="day__practice")

    class Meta:
        ordering = ["pk"]

    @property
    def settled(self) -> bool:
        return bool(self.bowl_id or self.recipe_id or self.food or self.planned_id)

    @property
    def eaten(self) -> bool:
        return self.how != LEFT_OUT


FELT = ("hunger", "fullness", "energy", "stool", "sleep")


def _scale(name: str) -> models.PositiveSmallIntegerField:
    return models.PositiveSmallIntegerField(
        name, null=True, blank=True, validators=[MaxValueValidator(10)]
    )


class Felt(Recorded):
    """How a client felt on a day, 0 to 10."""

    record_of = "client"

    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="felt")
    date = models.DateField()
    hunger = _scale("hunger between meals")
    fullness = _scale("fullness after meals")
    energy = _scale("energy")
    stool = _scale("stool, 10 is easy")
    sleep = _scale("sleep")

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["-date"]
        constraints = [models.UniqueConstraint(fields=["client", "date"], name="one_felt_a_day")]


class TakenChange(Recorded):
    """The one change that was agreed on, with its reason, and what became of it."""

    record_of = "client"

    OUTCOMES = [
        ("", "not looked at yet"),
        ("worked", "it worked"),
        ("partly", "partly"),
        ("not", "it did not"),
        ("not tried", "it was not tried"),
    ]
    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="changes_taken")
    words = models.CharField("change", max_length=300)
    reason = models.CharField(max_length=500)
    cause = models.CharField(max_length=20, blank=True)
    kcal = models.FloatField("less energy a day", null=True, blank=True)
    # what it does to a plan, where it is about foods: slug, kind, grams
    edits = models.JSONField(default=list, blank=True)
    written = models.DateTimeField(null=True, blank=True)
    # the pace when it was agreed on [kg/week]
    pace_kg = models.FloatField(null=True, blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    made = models.DateTimeField(auto_now_add=True)
    start = models.DateField("from")
    ended = models.DateField(null=True, blank=True)
    outcome = models.CharField(max_length=10, choices=OUTCOMES, blank=True)
    outcome_words = models.CharField("how it went", max_length=300, blank=True)

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["-start", "-pk"]


class Visit(Versioned, Removable):
    """A visit note. Begun from the record; `figures` are kept as they were when it was signed."""

    FORMS = [("full", "dietetic care process"), ("short", "short form")]
    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="visits")
    date = models.DateField()
    form = models.CharField(max_length=6, choices=FORMS, default="full")
    words = models.JSONField(default=dict, blank=True)
    figures = models.JSONField(default=list, blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    signed = models.DateTimeField(null=True, blank=True, editable=False)
    signed_as = models.CharField(max_length=160, blank=True)

    objects = ScopedManager(_manager_class=PresentManager, practice="practice")
    with_removed = ScopedManager(practice="practice")

    class Meta:
        ordering = ["-date", "-pk"]

    def __str__(self) -> str:
        return f"{self.client}, visit of {self.date:%B} {self.date.day}"


class Addendum(Recorded):
    """Something added to a signed note, under its own name and date."""

    record_of = "visit"

    visit = models.ForeignKey(Visit, on_delete=models.CASCADE, related_name="addenda")
    words = models.TextField(max_length=4000)
    signed_as = models.CharField(max_length=160)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    made = models.DateTimeField(auto_now_add=True)

    objects = ScopedManager(practice="visit__practice")

    class Meta:
        ordering = ["made"]


class Appointment(Removable):
    """When somebody is seen next."""

    record_of = "client"

    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="appointments")
    at = models.DateTimeField()
    minutes = models.PositiveSmallIntegerField(default=45)
    words = models.CharField("what to bring, or where", max_length=200, blank=True)

    objects = ScopedManager(_manager_class=PresentManager, practice="client__practice")
    with_removed = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["at"]

    def __str__(self) -> str:
        return f"Visit of {self.client} on {self.at:%B} {self.at.day}"


class Letter(Versioned, Removable):
    """A letter to a client's physician. Begun from the record; `figures` are kept as they were when
    it was signed. What came back is written beside it, with the license of who answered."""

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="letters")
    date = models.DateField()
    to = models.CharField("to whom", max_length=160, blank=True)
    where = models.CharField("their address or fax", max_length=200, blank=True)
    words = models.JSONField(default=dict, blank=True)
    figures = models.JSONField(default=list, blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    signed = models.DateTimeField(null=True, blank=True, editable=False)
    signed_as = models.CharField(max_length=160, blank=True)
    answered = models.DateField(null=True, blank=True)
    answer = models.TextField("what they answered", max_length=4000, blank=True)
    answered_by = models.CharField("who answered", max_length=120, blank=True)
    license = models.CharField("their license", max_length=80, blank=True)

    objects = ScopedManager(_manager_class=PresentManager, practice="practice")
    with_removed = ScopedManager(practice="practice")

    class Meta:
        ordering = ["-date", "-pk"]

    def __str__(self) -> str:
        return f"{self.client}, letter of {self.date:%B} {self.date.day}"
