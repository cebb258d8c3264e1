"""Clients: who they are, what they weigh and take, and the record of their targets."""

# Whole: the tables of one client; what is computed of them stands in the core and in clients/plan.

from collections.abc import Callable
from datetime import date

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models, transaction
from django.utils import timezone

from nutrition.composition.allergens import ALLERGENS
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.supplements import Supplement
from nutrition.follow_up.weigh_in import LATER, MORNING, Weighed
from nutrition.targets import person as words
from nutrition.targets.blood import Measured, analytes, implied_by, latest
from nutrition.targets.conditions import conditions, those
from nutrition.targets.orders import Order
from nutrition.targets.person import Person
from practice.models import Practice, User
from practice.removal import PresentManager, Removable
from practice.versioned import Versioned
from record.recorded import Recorded, ScopedManager
from webkit.page_cache import is_reading, once


def _choices(known: dict[str, str]) -> list[tuple[str, str]]:
    return list(known.items())


def _listed(text: str) -> tuple[str, ...]:
    return tuple(word.strip() for word in text.split(",") if word.strip())


# So many weigh-ins are looked at where the pace of weight is judged.
NEWEST_WEIGH_INS = 60
# ... and of half a year, of those who weigh every day.
HALF_A_YEAR_WEIGH_INS = 190
# ... and no more than so many anywhere: a line of them is drawn.
MOST_WEIGH_INS = 200


class Client(Versioned, Removable):
    """A person the practice plans for."""

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    name = models.CharField(max_length=120)
    about = models.CharField("in a few words", max_length=200, blank=True)
    wish = models.TextField("what they want, in their own words", max_length=2000, blank=True)
    sex = models.CharField(
        "sex used in equations", max_length=6, choices=[("female", "female"), ("male", "male")]
    )
    # where the day is known; the year alone will do
    birth_date = models.DateField(null=True, blank=True)
    birth_year = models.PositiveSmallIntegerField(
        validators=[MinValueValidator(1900), MaxValueValidator(2100)]
    )
    height_cm = models.FloatField("height [cm]")
    weight_kg = models.FloatField("weight [kg]")
    activity = models.CharField(
        max_length=12, choices=_choices(words.ACTIVITY_WORDS), default="low_active"
    )
    goal = models.CharField(max_length=8, choices=_choices(words.GOAL_WORDS), default="hold")
    target_weight_kg = models.FloatField("target weight [kg]", null=True, blank=True)
    pace_kg_per_week = models.FloatField("pace [kg a week]", null=True, blank=True)
    life_stage = models.CharField(
        max_length=16, choices=_choices(words.LIFE_STAGE_WORDS), default="adult"
    )
    formula = models.CharField(
        "energy computed by",
        max_length=12,
        choices=_choices(words.FORMULA_WORDS),
        default="dri_2023",
    )
    kcal_per_kg = models.FloatField("kcal per kg", null=True, blank=True)
    measured_kcal = models.FloatField("measured need [kcal]", null=True, blank=True)
    weight_basis = models.CharField(
        "weight that counts per kg",
        max_length=8,
        choices=_choices(words.WEIGHT_BASIS_WORDS),
        default="auto",
    )
    weight_before_kg = models.FloatField("weight before pregnancy [kg]", null=True, blank=True)
    vegan_iron = models.BooleanField("iron x 1.8 for plants alone", default=True)
    vegan_zinc = models.BooleanField("zinc x 1.5 for plants alone", default=True)
    school = models.CharField(max_length=60, blank=True)
    conditions = models.JSONField("conditions and medicines", default=list, blank=True)
    fat_free_kg = models.FloatField("fat-free mass [kg]", null=True, blank=True)
    surgery_on = models.DateField("date of gastric surgery", null=True, blank=True)
    condition_notes = models.TextField("more about conditions and medicines", blank=True)
    allergies = models.JSONField(default=list, blank=True)
    dislikes = models.CharField("foods refused or disliked", max_length=300, blank=True)
    favorites = models.CharField("foods they like and have at hand", max_length=300, blank=True)
    meals = models.CharField(
        "meals a day", max_length=10, choices=_choices(words.MEAL_PATTERN_WORDS), default="3"
    )
    meal_shares = models.JSONField(default=dict, blank=True)
    who_cooks = models.CharField("who cooks", max_length=200, blank=True)
    when_cooking = models.CharField("when they can cook", max_length=200, blank=True)
    who_else = models.CharField("who else eats", max_length=200, blank=True)
    notes = models.TextField("how they eat and cook", blank=True)
    watched = models.JSONField(default=list, blank=True)
    light_words = models.BooleanField(
        "no calories and no weights on what they are handed",
        default=False,
        help_text="On paper, labels, the calendar and their own link. So it is by itself with a "
        "history of disordered eating.",
    )

    time_zone = models.CharField("time zone", max_length=40, blank=True)

    objects = ScopedManager(_manager_class=PresentManager, practice="practice")
    with_removed = ScopedManager(practice="practice")

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name

    @property
    def age_years(self) -> int:
        today, born = timezone.localdate(), self.birth_date
        if born is None:
            return today.year - self.birth_year
        return today.year - born.year - ((today.month, today.day) < (born.month, born.day))

    def person(self) -> Person:
        """As the core knows them today."""
        return self._person() if self.pk is None else once(("person", self.pk), self._person)

    def _person(self) -> Person:
        found = self.found_in_blood()
        return Person(
            sex=self.sex,
            age_years=self.age_years,
            height_cm=self.height_cm,
            weight_kg=self.last_weight_kg or self.weight_kg,
            activity=self.activity,
            goal=self.goal,
            life_stage=self.life_stage,
            formula=self.formula,
            conditions=frozenset(self.conditions) | set(found),
            found=tuple(sorted(found.items())),
            allergies=frozenset(self.allergies),
            target_weight_kg=self.target_weight_kg,
            pace_kg_per_week=self.pace_kg_per_week,
            weight_basis=self.weight_basis,
            kcal_per_kg=self.kcal_per_kg,
            measured_kcal=self.measured_kcal,
            vegan_iron=self.vegan_iron,
            vegan_zinc=self.vegan_zinc,
            meals=self.meals,
            weight_before_kg=self.weight_before_kg,
            old_values=self.old_values(),
            surgery_months=self.surgery_months,
            fat_free_kg=self.fat_free_kg,
        )

    @property
    def surgery_months(self) -> float | None:
        """Whole months since the stomach was operated on; None where the date is not known."""
        if self.surgery_on is None:
            return None
        today, on = timezone.localdate(), self.surgery_on
        months = (today.year - on.year) * 12 + today.month - on.month - (today.day < on.day)
        return float(max(months, 0))

    def old_values(self) -> frozenset[str]:
        """The kinds of blood value whose latest is too old to go by."""
        today = timezone.localdate()
        return frozenset(key for key, one in self.blood().items() if not one.fresh(today))

    def supplements_taken(self) -> list[Supplement]:
        """What they take now; nothing for a client that is not stored yet. A dose that cannot be is
        left out of the sums."""
        rows = (
            once(("supplements", self.pk), lambda: list(self.supplements.all())) if self.pk else []
        )
        return [row.supplement() for row in rows if row.possible]

    def blood(self) -> dict[str, Measured]:
        """The latest value of each kind that was measured."""
        if self.pk is None:
            return {}
        rows = self.at_hand("fetched_blood", lambda: list(self.blood_values.all()))
        return latest(row.measured() for row in rows if row.key in analytes())

    def found_in_blood(self) -> dict[str, str]:
        """The conditions that only a blood value stands for, each with that value in words."""
        found = implied_by(self.blood(), self.conditions, timezone.localdate())
        return {code: said for code, said in found.items() if code not in self.conditions}

    def weigh(self, on: date, kg: float, by: User, **more: object) -> "WeighIn | None":
        """Record a weight, and how it was weighed; the one of that day that it takes the place of,
        which can be brought back. [kg]"""
        with transaction.atomic():
            there = self.weigh_ins.filter(date=on).first()
            if there:
                there.remove(by)
            WeighIn.objects.create(client=self, date=on, kg=kg, **more)
        return there

    def at_hand(self, name: str, fetch: Callable[[], list]) -> list:
        """Rows that a list of clients fetched for all of them at once, or else those of this one.
        See clients/listing.py."""
        if name in self.__dict__:
            return self.__dict__[name]
        return fetch() if self.pk is None else once((name, self.pk), fetch)

    def newest_weigh_ins(self, most: int = NEWEST_WEIGH_INS) -> "list[WeighIn]":
        """The latest weigh-ins, newest first."""
        if self.pk is None:
            return []
        if "fetched_weigh_ins" in self.__dict__:
            return self.__dict__["fetched_weigh_ins"][:most]
        # while a page is read, so many as any part of it looks at
        fetched = max(most, MOST_WEIGH_INS) if is_reading() else most
        rows = self.weigh_ins.order_by("-date")
        return once(("weigh-ins", self.pk, fetched), lambda: list(rows[:fetched]))[:most]

    @property
    def last_weight_kg(self) -> float | None:
        return next((row.kg for row in self.newest_weigh_ins(1)), None)

    @property
    def allergy_words(self) -> str:
        listed = [name for name in ALLERGENS if name in self.allergies]
        return ", ".join([*listed, *sorted(set(self.allergies) - set(listed))])

    @property
    def condition_words(self) -> list[str]:
        return [row.name for code, row in conditions().items() if code in self.conditions]

    @property
    def counting_harms(self) -> bool:
        """Whether calories are kept off what this client is handed."""
        return any(row.counting_harms for row in those(self.conditions))

    @property
    def numbers_hidden(self) -> bool:
        """Whether calories and weights stay off everything that this client is handed."""
        return self.light_words or self.counting_harms

    @property
    def kept_off(self) -> frozenset[str]:
        """The keys of the numbers that stay off what this client is handed."""
        return frozenset({"energy_kcal", "kcal_per_gram"}) if self.numbers_hidden else frozenset()

    @property
    def by_carbohydrate(self) -> bool:
        """Whether each meal's carbohydrate is said: a dose, or a sugar after meals, goes by it."""
        return any(row.carbohydrate_by_meal for row in those(self.conditions))

    @property
    def disliked_words(self) -> tuple[str, ...]:
        return _listed(self.dislikes)

    @property
    def favorite_words(self) -> tuple[str, ...]:
        return _listed(self.favorites)


class ClientLook(models.Model):
    """What the list says of a client, kept so that a long list answers as fast as a short one: made
    anew when something of the client changes, and on another day."""

    client = models.OneToOneField(Client, on_delete=models.CASCADE, related_name="look")
    on = models.DateField(null=True)
    stale = models.BooleanField(default=True)
    stops = models.PositiveSmallIntegerField(default=0)
    needs = models.PositiveSmallIntegerField(default=0)
    # the one thing that needs a look, and the step that settles it
    words = models.CharField(max_length=400, blank=True)
    step = models.CharField(max_length=40, blank=True)
    # since when it is so, where that is known
    since = models.DateField(null=True)
    # how soon somebody should look; what there is to look at with its date, and what was looked at
    urgency = models.PositiveSmallIntegerField(default=0)
    known = models.JSONField(default=dict)
    seen = models.JSONField(default=list)
    weight_kg = models.FloatField(null=True)
    pace_kg = models.FloatField(null=True)
    pace_low = models.FloatField(null=True)
    pace_high = models.FloatField(null=True)
    # what it can be filtered by: ",kidney,lose,"
    tags = models.CharField(max_length=200, blank=True)

    objects = ScopedManager(practice="client__practice")


# No tablet holds more of anything, in whatever unit it is counted.
MOST_DOSE = 100_000.0
TIMES_A_WEEK = (0.1, 28.0)


class ClientSupplement(Recorded):
    """What a client takes: dose of one nutrient in its unit, form, and how often."""

    record_of = "client"

    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="supplements")
    key = models.CharField("nutrient", max_length=40)
    dose = models.FloatField(validators=[MinValueValidator(0.001), MaxValueValidator(MOST_DOSE)])
    form = models.CharField(max_length=80, blank=True)
    per_week = models.FloatField(
        "times a week",
        default=7,
        validators=[MinValueValidator(TIMES_A_WEEK[0]), MaxValueValidator(TIMES_A_WEEK[1])],
    )

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["pk"]

    @property
    def possible(self) -> bool:
        """Whether it can be reckoned with; what was stored before there were limits may not."""
        return (
            self.key in NUTRIENT
            and 0 < self.dose <= MOST_DOSE
            and 0 < self.per_week <= TIMES_A_WEEK[1]
        )

    def supplement(self) -> Supplement:
        return Supplement(self.key, self.dose, self.form, self.per_week)

    @property
    def words(self) -> str:
        return (
            self.supplement().words
            if self.possible
            else f"{self.dose:g} of {self.key}: cannot be, and is not counted"
        )


class WeighIn(Removable):
    record_of = "client"

    TIMES = [("", "not said"), (MORNING, "on rising"), (LATER, "later in the day")]
    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="weigh_ins")
    date = models.DateField()
    kg = models.FloatField()
    time = models.CharField("when", max_length=8, choices=TIMES, blank=True)
    dressed = models.BooleanField(default=False)
    scale = models.CharField("which scale", max_length=40, blank=True)
    remark = models.CharField(max_length=200, blank=True)
    # it lay far off, was asked about, and is so
    asked_about = models.BooleanField(default=False, editable=False)

    objects = ScopedManager(_manager_class=PresentManager, practice="client__practice")
    with_removed = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["date"]
        constraints = [
            models.UniqueConstraint(
                fields=["client", "date"],
                condition=models.Q(removed=None),
                name="one_weigh_in_a_day_that_counts",
            )
        ]

    def weighed(self) -> Weighed:
        """As the follow-up reads it."""
        return Weighed(self.date, self.kg, time=self.time, dressed=self.dressed, scale=self.scale)


class BloodValue(Removable):
    """Something measured of a client, with the laboratory's own range in the same unit."""

    record_of = "client"

    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="blood_values")
    key = models.CharField("what", max_length=20)
    date = models.DateField()
    value = models.FloatField()
    unit = models.CharField(max_length=24)
    low = models.FloatField("range from", null=True, blank=True)
    high = models.FloatField("range to", null=True, blank=True)
    laboratory = models.CharField(max_length=80, blank=True)
    remark = models.CharField(max_length=200, blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    made = models.DateTimeField(auto_now_add=True)

    objects = ScopedManager(_manager_class=PresentManager, practice="client__practice")
    with_removed = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["date", "pk"]
        constraints = [
            models.UniqueConstraint(
                fields=["client", "key", "date"],
                condition=models.Q(removed=None),
                name="one_value_of_a_kind_a_day_that_counts",
            )
        ]

    def measured(self) -> Measured:
        """As the core reads it."""
        return Measured(
            key=self.key,
            value=self.value,
            unit=self.unit,
            on=self.date,
            low=self.low,
            high=self.high,
        )


class TargetOverride(Recorded):
    """A number set by a clinician's order or the practitioner's choice; the computed one stays
    visible beside it."""

    record_of = "client"

    KINDS = [("choice", "my choice"), ("order", "a clinician's order")]
    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="overrides")
    key = models.CharField(max_length=40)
    low = models.FloatField(null=True, blank=True)
    aim = models.FloatField(null=True, blank=True)
    high = models.FloatField(null=True, blank=True)
    kind = models.CharField(max_length=6, choices=KINDS, default="choice")
    reason = models.CharField(max_length=300)
    given_by = models.CharField("Who gave the order", max_length=120, blank=True)
    license = models.CharField("Their license", max_length=80, blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    made = models.DateTimeField(auto_now_add=True)
    ended = models.DateTimeField(null=True, blank=True)

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["-made"]

    def order(self) -> Order:
        """As the core lays it over: an order is its clinician's, whoever typed it."""
        typed = self.by.shown_name
        by = (
            (self.given_by or f"recorded by {typed}, not said who gave it")
            if self.kind == "order"
            else typed
        )
        return Order(
            key=self.key,
            low=self.low,
            aim=self.aim,
            high=self.high,
            kind=self.kind,
            reason=self.reason,
            by=by,
            license=self.license,
        )


class TargetVersion(Recorded):
    """The day's targets from a date on, as they were made: later changes of a formula or a school
    do not reach back."""

    record_of = "client"
    record_leaves_out = frozenset({"data"})

    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="target_versions")
    number = models.PositiveIntegerField()
    takes_effect = models.DateField()
    why = models.CharField(max_length=300)
    by = models.ForeignKey(User, on_delete=models.PROTECT, null=True)
    made = models.DateTimeField(auto_now_add=True)
    data = models.JSONField()

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["-number"]
        constraints = [
            models.UniqueConstraint(fields=["client", "number"], name="one_version_of_a_number")
        ]


class CautionDismissal(Recorded):
    """A caution put aside for one client, by whom and why. It never holds for anybody else, and can
    be taken back."""

    record_of = "client"

    client = models.ForeignKey(Client, on_delete=models.CASCADE, related_name="dismissals")
    code = models.CharField(max_length=60)
    about = models.CharField(max_length=400, blank=True)
    # the foods that it was about, one by one
    names = models.JSONField(default=list, blank=True)
    why = models.CharField(max_length=300)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    made = models.DateTimeField(auto_now_add=True)
    ended = models.DateTimeField(null=True, blank=True)

    objects = ScopedManager(practice="client__practice")

    class Meta:
        ordering = ["-made"]


class Intake(Versioned, Removable):
    """A first visit being written down: kept as it is typed, until it becomes a client."""

    record_leaves_out = frozenset({"kept_from"})

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    data = models.JSONField(default=dict)
    # the open page that kept it last: what one page keeps after another of its own is no conflict,
    # even if an answer was lost
    kept_from = models.CharField(max_length=40, blank=True)
    started = models.DateTimeField(auto_now_add=True)
    client = models.OneToOneField(
        Client, on_delete=models.CASCADE, null=True, blank=True, related_name="intake"
    )

    objects = ScopedManager(_manager_class=PresentManager, practice="practice")
    with_removed = ScopedManager(practice="practice")

    class Meta:
        ordering = ["-updated"]

    @property
    def name(self) -> str:
        return (self.data.get("name") or [""])[0]
