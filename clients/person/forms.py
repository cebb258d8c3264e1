"""Forms for clients."""

# Whole: the fields of a person, each with its message; they share what a figure can be.

import re
from datetime import date, datetime
from zoneinfo import available_timezones

from django import forms
from django.core.validators import MaxValueValidator, MinValueValidator
from django.utils import timezone

from clients.models import (
    MOST_DOSE,
    TIMES_A_WEEK,
    Client,
    ClientSupplement,
    TargetOverride,
    WeighIn,
)
from nutrition.composition.allergens import ALLERGENS, UnknownAllergen
from nutrition.composition.allergies import allergies_named
from nutrition.composition.nutrients import NUTRIENT, NUTRIENTS
from nutrition.follow_up.doubts import Doubt, doubt
from nutrition.follow_up.weigh_in import Weighed, read_weight
from nutrition.targets.conditions import KIND_WORDS, conditions
from nutrition.targets.meals import PATTERN_SHARES
from nutrition.targets.orders import Order, check_order
from nutrition.targets.person import LIMITS, OutOfRange, Referred, check
from practice.forms import field_of
from schools.choices import school_choices
from webkit.request_values import number_in

# The order of a first visit: heading, what to have in mind, fields.
SECTIONS = (
    ("Name", "", ("name", "about")),
    (
        "What they want",
        "In their own words first; then the goal that comes closest.",
        ("wish", "goal", "target_weight_kg", "pace_kg_per_week"),
    ),
    (
        "Body and activity",
        "",
        (
            *("sex", "birth_year", "height_cm", "weight_kg", "activity", "life_stage"),
            "weight_before_kg",
        ),
    ),
    (
        "Conditions and medicines",
        "What changes targets or raises cautions. Numbers from a clinician's letter are set by "
        "hand afterwards and stand over all.",
        (*(f"has_{kind}" for kind in KIND_WORDS), "surgery_on", "condition_notes"),
    ),
    (
        "Foods refused, not tolerated, and liked",
        "An allergy stops a food everywhere; a wish leaves it out where something is proposed.",
        ("allergies", "other_allergies", "dislikes", "favorites"),
    ),
    ("Meals and kitchen", "", ("meals", "who_cooks", "when_cooking", "who_else", "notes")),
    ("What they are handed", "", ("light_words", "time_zone")),
    (
        "School and formulas",
        "A school sets or shifts targets; without one, general guidance holds.",
        (
            "school",
            "formula",
            "kcal_per_kg",
            "measured_kcal",
            "fat_free_kg",
            "weight_basis",
            "vegan_iron",
            "vegan_zinc",
        ),
    ),
)
FIELDS = [
    name
    for _title, _hint, names in SECTIONS
    for name in names
    if not name.startswith("has_") and name != "other_allergies"
]
# which field of the form a figure of the person stands in
FIELD_OF = {"age_years": "birth_year", "conditions": "has_condition"}


# Of the main nutrients only the omega-3 fats come in capsules.
IN_CAPSULES = ("ala_g", "epa_g", "dha_g")


# What is said to be more than a wish.
SOUNDS_LIKE_ALLERGY = re.compile(r"\ballerg|anaphyla|intoleran|\bhives\b|epi ?pen", re.I)
# An age up to this, a year from then on. [years]
OLDEST = 120
DATE_FORMS = ("%Y-%m-%d", "%B %d, %Y", "%b %d, %Y", "%d %B %Y", "%d %b %Y", "%m/%d/%Y", "%B %d %Y")


def _date_in(text: str) -> date | None:
    """A date as it is said or written; None for anything else."""
    for form in DATE_FORMS:
        try:
            return datetime.strptime(" ".join(text.split()), form).date()
        except ValueError:
            continue
    return None


def effect_field(label: str, required: bool = True) -> forms.DateField:
    """A date from which targets hold; one that no practice lives through is a slip of the pen."""
    limits = [
        MinValueValidator(date(2000, 1, 1), "Check the year."),
        MaxValueValidator(date(2099, 12, 31), "Check the year."),
    ]
    return forms.DateField(
        label=label,
        required=required,
        validators=limits,
        widget=forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d"),
    )


class ClientForm(forms.ModelForm):
    allergies = forms.MultipleChoiceField(
        choices=[(name, name) for name in ALLERGENS],
        required=False,
        widget=forms.CheckboxSelectMultiple,
    )
    other_allergies = forms.CharField(
        max_length=300,
        required=False,
        help_text="With commas: kiwi, latex, birch pollen, cumin. Any allergy; what is only not "
        "liked goes beside it.",
    )
    school = forms.ChoiceField(required=False)
    birth_year = forms.CharField(
        label="Birth date or age",
        max_length=30,
        help_text="1985-04-12, April 12, 1985, the year alone, or the age: 41.",
    )
    # which zones there are is a matter of the machine, and of no stored record
    time_zone = forms.ChoiceField(required=False, help_text="Of the times in their calendar.")
    version = forms.IntegerField(widget=forms.HiddenInput, required=False)
    takes_effect = effect_field("New targets take effect on", required=False)

    class Meta:
        model = Client
        fields = FIELDS
        widgets = {
            "condition_notes": forms.Textarea(attrs={"rows": 2}),
            "notes": forms.Textarea(attrs={"rows": 2}),
            "surgery_on": forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d"),
            "wish": forms.Textarea(attrs={"rows": 2}),
            "name": forms.TextInput(attrs={"autofocus": ""}),
        }
        help_texts = {
            "about": "What tells them apart: their work, who sent them.",
            "pace_kg_per_week": "Leave empty for the pace of the school, or the usual one.",
            "dislikes": "A wish, no allergy. With commas: mushrooms, fennel.",
            "favorites": "With commas: hemp seeds, white beans, kale. They come first where "
            "something is short.",
            "weight_before_kg": "In pregnancy: energy, protein and the gain advised go by it.",
            "fat_free_kg": "If it was measured; else it is estimated where training is hard.",
            "vegan_iron": "DRI 2001: 1.8 times; the plain value stands beside it.",
            "vegan_zinc": "DRI 2001: up to 1.5 times; the plain value stands beside it.",
        }

    def __init__(self, *args, **kwargs):
        super().__init__(*args, **kwargs)
        field_of(self, "school").choices = [("", "no school: general guidance"), *school_choices()]
        field_of(self, "time_zone").choices = [
            ("", "the practice's"),
            *((name, name.replace("_", " ")) for name in sorted(available_timezones())),
        ]
        for kind, label in KIND_WORDS.items():
            choices = [
                (row.code, row.name)
                for row in conditions().values()
                if row.kind == kind and row.from_years is None
            ]
            self.fields[f"has_{kind}"] = forms.MultipleChoiceField(
                label=label,
                choices=choices,
                required=False,
                widget=forms.CheckboxSelectMultiple,
                initial=self.instance.conditions,
            )
        self.fields["takes_effect"].initial = timezone.localdate()
        self.born: date | None = None
        if self.instance.pk:
            self.fields["version"].initial = self.instance.version
            others = [one for one in self.instance.allergies if one not in ALLERGENS]
            self.initial["other_allergies"] = ", ".join(others)
            if self.instance.birth_date:
                self.initial["birth_year"] = self.instance.birth_date.isoformat()

    def clean_birth_year(self):
        """The year, from a date, a year or an age; the date itself is kept where it was said."""
        text, today = self.cleaned_data["birth_year"].strip(), timezone.localdate()
        if text.isascii() and text.isdigit():
            value = int(text)
            year = today.year - value if value <= OLDEST else value
        else:
            self.born = _date_in(text)
            if self.born is None or self.born > today:
                raise forms.ValidationError(
                    f"“{text}” is no date or age. Write 1985-04-12, 1985, or 41."
                )
            year = self.born.year
        if not 1900 <= year <= today.year:
            raise forms.ValidationError(f"{year} is not a year of birth of somebody living.")
        return year

    def clean_dislikes(self):
        """A wish; what is said to be an allergy there would protect nobody."""
        text = self.cleaned_data["dislikes"]
        if SOUNDS_LIKE_ALLERGY.search(text):
            raise forms.ValidationError(
                "What is not tolerated goes under allergies above: a dislike protects nobody."
            )
        return text

    def clean_other_allergies(self):
        """The allergies that labels need not name, as they are looked for."""
        found: list[str] = []
        for word in re.split(r"[,;\n]", self.cleaned_data["other_allergies"]):
            if word.strip():
                try:
                    found += allergies_named(word)
                except UnknownAllergen as error:
                    raise forms.ValidationError(str(error)) from None
        self.cleaned_data["allergies"] = sorted({*self.cleaned_data.get("allergies", ()), *found})
        return self.cleaned_data["other_allergies"]

    @property
    def sections(self) -> list[tuple[str, str, list[forms.BoundField]]]:
        return [(title, hint, [self[name] for name in names]) for title, hint, names in SECTIONS]

    def clean(self):
        super().clean()
        data = self.cleaned_data
        self.instance.birth_date = self.born
        self.instance.conditions = [
            code for kind in KIND_WORDS for code in data.get(f"has_{kind}", [])
        ]
        if self.errors:
            return data
        target, weight = data.get("target_weight_kg"), data["weight_kg"]
        newly_set = not self.instance.pk or {"goal", "target_weight_kg"} & set(self.changed_data)
        if target is not None and newly_set:
            if data["goal"] == "lose" and target >= weight:
                self.add_error(
                    "target_weight_kg", f"To lose, the target weight is below {weight:g} kg."
                )
            if data["goal"] == "gain" and target <= weight:
                self.add_error(
                    "target_weight_kg", f"To gain, the target weight is above {weight:g} kg."
                )
        if self.errors:
            return data
        try:
            check(self.as_typed(data).person())
        except Referred:
            # stored, and referred on the client's page: no targets are computed
            pass
        except OutOfRange as error:
            self.add_error(FIELD_OF.get(error.field, error.field), str(error))
        return data

    def as_typed(self, data: dict) -> Client:
        """A client that is not stored, so that its weight is the one in the form and not the last
        weigh-in."""
        return Client(
            **{name: data[name] for name in FIELDS},
            birth_date=self.born,
            conditions=self.instance.conditions,
        )


# What somebody takes of, by its key.
TAKEN_OF = {
    row.key: f"{row.name} [{row.unit}]"
    for row in NUTRIENTS
    if row.group in ("vitamins", "minerals") or row.key in IN_CAPSULES
}


class SupplementForm(forms.Form):
    """One thing a client takes. A frequency of their own, "5 times a week", stays what it is."""

    OFTEN = [
        ("7", "every day"),
        ("14", "twice a day"),
        ("21", "three times a day"),
        ("3.5", "every other day"),
        ("3", "3 times a week"),
        ("2", "2 times a week"),
        ("1", "once a week"),
        ("0.25", "once in 4 weeks"),
    ]
    key = forms.ChoiceField(
        label="Nutrient",
        choices=[("", ""), *TAKEN_OF.items()],
    )
    dose = forms.FloatField(label="Dose", min_value=0.001, max_value=MOST_DOSE)
    form = forms.CharField(label="Form", max_length=80, required=False)
    per_week = forms.TypedChoiceField(label="How often", coerce=float, initial="7")

    def __init__(self, *args, **kwargs):
        super().__init__(*args, **kwargs)
        often = list(self.OFTEN)
        sent = self.data.get(self.add_prefix("per_week"), "") if self.is_bound else ""
        for value in map(number_in, (self.initial.get("per_week", ""), sent)):
            if (
                value is not None
                and TIMES_A_WEEK[0] <= value <= TIMES_A_WEEK[1]
                and f"{value:g}" not in dict(often)
            ):
                often.append((f"{value:g}", f"{value:g} times a week"))
        field_of(self, "per_week").choices = often

    @property
    def taken(self) -> dict | None:
        """What the row says is taken; None for an empty row, or one that is no longer taken."""
        data = self.cleaned_data
        return (
            {name: data[name] for name in TAKEN}
            if data.get("key") and not data.get("DELETE")
            else None
        )


TAKEN = ("key", "dose", "form", "per_week")
MOST_SUPPLEMENTS = 20


class SupplementRows(forms.BaseFormSet):
    """Everything a client takes, as rows. Saving puts these rows in place of what was there."""

    def __init__(self, *args, client: Client | None = None, **kwargs):
        if client is not None and client.pk:
            rows = [
                {name: getattr(row, name) for name in TAKEN} for row in client.supplements.all()
            ]
            kwargs.setdefault(
                "initial", [row | {"per_week": f"{row['per_week']:g}"} for row in rows]
            )
        kwargs["prefix"] = "supplements"
        super().__init__(*args, **kwargs)

    @property
    def rows(self) -> list[dict]:
        return [
            form.taken for form in self.forms if form.has_changed() or form.initial if form.taken
        ]

    @property
    def words(self) -> list[str]:
        return sorted(ClientSupplement(**row).words for row in self.rows)

    def save(self, client: Client) -> None:
        now = [{name: getattr(row, name) for name in TAKEN} for row in client.supplements.all()]
        if now != self.rows:
            client.supplements.all().delete()
            ClientSupplement.objects.bulk_create(
                [ClientSupplement(client=client, **row) for row in self.rows]
            )


SupplementFormSet = forms.formset_factory(
    SupplementForm,
    formset=SupplementRows,
    extra=3,
    can_delete=True,
    max_num=MOST_SUPPLEMENTS,
    absolute_max=MOST_SUPPLEMENTS + 3,
)


class WeightField(forms.FloatField):
    """A weight as it is read off a scale: "101.4", "101,4", "223.5 lb". [kg]"""

    widget = forms.TextInput

    def to_python(self, value):
        return None if value in self.empty_values else kg_in(str(value))


def kg_in(text: str) -> float:
    """Kilograms in a weight as it was typed. Raises ValidationError."""
    found = read_weight(text)
    if found is None:
        raise forms.ValidationError("Write the weight as 101.4, or with its unit as 223.5 lb.")
    return found


class WeighInForm(forms.ModelForm):
    """A weigh-in of one client; `own` is the one that is being corrected. One that lies far off is
    asked about."""

    kg = WeightField(label="Weight [kg]", widget=forms.TextInput(attrs={"inputmode": "decimal"}))
    replace = forms.BooleanField(label="Put this in its place", required=False)
    sure = forms.BooleanField(label="It is so", required=False)

    class Meta:
        model = WeighIn
        fields = ["date", "kg", "time", "dressed", "scale", "remark"]
        widgets = {"date": forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d")}

    def __init__(self, *args, client: Client | None = None, **kwargs):
        super().__init__(*args, **kwargs)
        self.client, self.there = client, None
        self.doubt: Doubt | None = None
        self.fields["date"].widget.attrs["max"] = timezone.localdate().isoformat()

    def clean_date(self):
        day, today = self.cleaned_data["date"], timezone.localdate()
        if day > today:
            raise forms.ValidationError(
                "That day has not come yet: a weigh-in is of today or earlier."
            )
        if day < today.replace(year=today.year - 100, day=1) or (
            self.client and day.year < self.client.birth_year
        ):
            raise forms.ValidationError("That is before this client was born. Check the year.")
        return day

    def clean_kg(self):
        kg = self.cleaned_data["kg"]
        low, high = LIMITS["weight_kg"]
        if not low <= kg <= high:
            raise forms.ValidationError(f"{kg:g} kg is outside {low:g} to {high:g} kg.")
        return kg

    def clean(self):
        super().clean()
        data = self.cleaned_data
        if self.client and data.get("date"):
            self.there = (
                self.client.weigh_ins.filter(date=data["date"]).exclude(pk=self.instance.pk).first()  # type: ignore[assignment]
            )
            if self.there and self.there.kg != data.get("kg") and not data.get("replace"):
                self.add_error(
                    "replace",
                    f"There is one of {self.there.kg:g} kg on that day. Tick this to put yours in "
                    f"its place.",
                )
            self._ask(data)
        return data

    def _ask(self, data) -> None:
        """One that lies far off the others is asked about before it is kept."""
        if not self.client or data.get("kg") is None or data["kg"] == self.initial.get("kg"):
            return
        others = [row.weighed() for row in self.client.weigh_ins.exclude(pk=self.instance.pk)]
        self.doubt = doubt(others, Weighed(data["date"], data["kg"]))
        if self.doubt and not data.get("sure"):
            self.add_error("sure", f"{self.doubt.words} Tick this if it is as the scale showed.")

    def save(self, commit=True):
        self.instance.asked_about = self.doubt is not None
        return super().save(commit)

    @property
    def more(self) -> dict[str, object]:
        """How it was weighed, as `Client.weigh` takes it."""
        names = ("time", "dressed", "scale", "remark")
        own = {name: self.cleaned_data.get(name) or "" for name in names}
        own["dressed"] = bool(self.cleaned_data.get("dressed"))
        return own | {"asked_about": self.doubt is not None}

    def _get_validation_exclusions(self):
        # a second one of a day is asked about, not refused
        return super()._get_validation_exclusions() | {"client"}  # type: ignore[misc]


class OverrideForm(forms.ModelForm):
    takes_effect = effect_field("Takes effect on")
    confirm = forms.BooleanField(label="It is no longer in force, and I have asked", required=False)

    class Meta:
        model = TargetOverride
        fields = ["low", "aim", "high", "kind", "given_by", "license", "reason"]
        widgets = {"kind": forms.RadioSelect}
        labels = {"low": "At least", "aim": "Aim", "high": "At most", "kind": "Whose number is it?"}
        help_texts = {
            "aim": "Leave it empty for the computed aim, moved into the bounds.",
            "given_by": "For an order: the clinician whose letter it is, not who types it.",
            "license": "For an order: their license, such as RD 4471 or MD, nephrology.",
        }

    def __init__(self, *args, key: str, standing: TargetOverride | None = None, **kwargs):
        super().__init__(*args, **kwargs)
        self.key, self.standing = key, standing
        self.unit = NUTRIENT[key].unit
        self.fields["takes_effect"].initial = timezone.localdate()
        self.fields["aim"].required = False
        for name in ("low", "aim", "high"):
            self.fields[name].label += f" [{self.unit}]"  # type: ignore[operator]
        if not self.ends_an_order:
            del self.fields["confirm"]

    @property
    def ends_an_order(self) -> bool:
        """Whether what is typed puts the practitioner's own choice in place of a clinician's
        order."""
        return bool(
            self.is_bound
            and self.standing
            and self.standing.kind == "order"
            and self.data.get("kind") == "choice"
        )

    def clean(self):
        super().clean()
        data = self.cleaned_data
        if data.get("kind") == "order":
            for name in ("given_by", "license"):
                if not (data.get(name) or "").strip():
                    self.add_error(
                        name,
                        "An order names who gave it and their license. Without them it is a "
                        "choice.",
                    )
        if data.get("kind") != "order":
            data["given_by"] = data["license"] = ""
        if not {"low", "aim", "high"} & set(self.errors):
            self._check_numbers(data)
        if not self.errors and self.ends_an_order and not data.get("confirm"):
            row = self.standing
            assert row is not None
            whose = f"{row.given_by}, {row.license}" if row.given_by else row.by.shown_name
            self.add_error(
                "confirm",
                f"Stop and ask: a clinician's order is in force ({whose}: {row.reason}). Your "
                f"choice would end it. Ask whoever gave it; "
                "tick this only if they say that it no longer holds.",
            )
        return data

    def _check_numbers(self, data: dict) -> None:
        if data.get("low") is None and data.get("high") is None:
            self.add_error("low", "Give a least, a most, or both.")
            return
        try:
            check_order(
                Order(
                    key=self.key,
                    low=data["low"],
                    aim=data["aim"],
                    high=data["high"],
                    kind="choice",
                    reason="",
                )
            )
        except OutOfRange as error:
            self.add_error(error.field, str(error))


class SharesForm(forms.Form):
    """What share of the day each meal is, in percent."""

    def __init__(self, *args, client: Client, names: dict[str, str], **kwargs):
        super().__init__(*args, **kwargs)
        usual = PATTERN_SHARES[client.meals]
        now = client.meal_shares if set(client.meal_shares) == set(usual) else usual
        for key in usual:
            self.fields[key] = forms.FloatField(
                label=f"{names[key]} [%]",
                min_value=0,
                max_value=100,
                initial=round(now[key] * 100, 1),
            )

    def clean(self):
        super().clean()
        data = self.cleaned_data
        total = sum(value for value in data.values() if value is not None)
        if not self.errors and abs(total - 100) > 0.5:
            raise forms.ValidationError(f"The shares add up to {total:g} %, not 100 %.")
        return data

    @property
    def shares(self) -> dict[str, float]:
        total = sum(self.cleaned_data.values())
        return {key: value / total for key, value in self.cleaned_data.items()}


class RetargetForm(forms.Form):
    takes_effect = effect_field("Takes effect on")
    why = forms.CharField(label="Why", max_length=300)
