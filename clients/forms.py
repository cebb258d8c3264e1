"""Forms for clients."""

from django import forms
from django.utils import timezone

from clients.models import Client, ClientSupplement, TargetOverride, WeighIn
from nutrition.allergens import ALLERGENS
from nutrition.conditions import KIND_WORDS, conditions
from nutrition.meals import PATTERN_SHARES
from nutrition.nutrients import NUTRIENT, NUTRIENTS
from nutrition.person import LIMITS, OutOfRange, Referred, check
from schools.chosen import school_choices

# The order of a first visit: heading, what to have in mind, fields.
SECTIONS = (
    ("Who they are", "", ("name", "about")),
    ("What they want", "In their own words first; then the goal that comes closest.", ("goal", "target_weight_kg", "pace_kg_per_week")),
    ("Body and activity", "", ("sex", "birth_year", "height_cm", "weight_kg", "activity", "life_stage")),
    (
        "Conditions and medicines",
        "What changes targets or raises cautions. Numbers from a clinician's letter are set by hand afterwards and stand over all.",
        (*(f"has_{kind}" for kind in KIND_WORDS), "condition_notes"),
    ),
    ("Foods refused, not tolerated, and liked", "", ("allergies", "dislikes", "favorites")),
    ("Meals and kitchen", "", ("meals", "who_cooks", "when_cooking", "who_else", "notes")),
    (
        "School and formulas",
        "A school sets or shifts targets; without one, general guidance holds.",
        ("school", "formula", "kcal_per_kg", "measured_kcal", "weight_basis", "vegan_iron", "vegan_zinc"),
    ),
)
FIELDS = [name for _title, _hint, names in SECTIONS for name in names if not name.startswith("has_")]
# which field of the form a figure of the person stands in
FIELD_OF = {"age_years": "birth_year", "conditions": "has_condition"}


# Of the main nutrients only the omega-3 fats come in capsules.
IN_CAPSULES = ("ala_g", "epa_g", "dha_g")


class ClientForm(forms.ModelForm):
    allergies = forms.MultipleChoiceField(choices=[(name, name) for name in ALLERGENS], required=False, widget=forms.CheckboxSelectMultiple)
    school = forms.ChoiceField(required=False)
    version = forms.IntegerField(widget=forms.HiddenInput, required=False)
    takes_effect = forms.DateField(
        label="New targets take effect on", required=False, widget=forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d")
    )

    class Meta:
        model = Client
        fields = FIELDS
        widgets = {"condition_notes": forms.Textarea(attrs={"rows": 2}), "notes": forms.Textarea(attrs={"rows": 2})}
        help_texts = {
            "pace_kg_per_week": "Leave empty for the pace of the school, or the usual one.",
            "dislikes": "With commas: mushrooms, fennel.",
            "favorites": "With commas: hemp seeds, white beans, kale. They come first where something is short.",
            "vegan_iron": "DRI 2001: 1.8 times the reference intake.",
            "vegan_zinc": "DRI 2001: up to 1.5 times the reference intake.",
        }

    def __init__(self, *args, **kwargs):
        super().__init__(*args, **kwargs)
        self.fields["school"].choices = [("", "no school: general guidance"), *school_choices()]
        for kind, label in KIND_WORDS.items():
            choices = [(row.code, row.name) for row in conditions().values() if row.kind == kind and row.code != "over_65"]
            self.fields[f"has_{kind}"] = forms.MultipleChoiceField(
                label=label, choices=choices, required=False, widget=forms.CheckboxSelectMultiple, initial=self.instance.conditions
            )
        self.fields["takes_effect"].initial = timezone.localdate()
        if self.instance.pk:
            self.fields["version"].initial = self.instance.version

    @property
    def sections(self) -> list[tuple[str, str, list[forms.BoundField]]]:
        return [(title, hint, [self[name] for name in names]) for title, hint, names in SECTIONS]

    def clean(self):
        data = super().clean()
        self.instance.conditions = [code for kind in KIND_WORDS for code in data.get(f"has_{kind}", [])]
        if self.errors:
            return data
        target, weight = data.get("target_weight_kg"), data["weight_kg"]
        newly_set = not self.instance.pk or {"goal", "target_weight_kg"} & set(self.changed_data)
        if target is not None and newly_set:
            if data["goal"] == "lose" and target >= weight:
                self.add_error("target_weight_kg", f"To lose, the target weight is below {weight:g} kg.")
            if data["goal"] == "gain" and target <= weight:
                self.add_error("target_weight_kg", f"To gain, the target weight is above {weight:g} kg.")
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
        """A client that is not stored, so that its weight is the one in the form and not the last weigh-in."""
        return Client(**{name: data[name] for name in FIELDS}, conditions=self.instance.conditions)


class SupplementForm(forms.ModelForm):
    OFTEN = [
        (7, "every day"), (14, "twice a day"), (21, "three times a day"), (3.5, "every other day"), (3, "3 times a week"),
        (2, "2 times a week"), (1, "once a week"), (0.25, "once in 4 weeks"),
    ]  # fmt: skip
    key = forms.ChoiceField(
        label="Nutrient",
        choices=[
            ("", ""),
            *(
                (row.key, f"{row.name} [{row.unit}]")
                for row in NUTRIENTS
                if row.group in ("vitamins", "minerals") or row.key in IN_CAPSULES
            ),
        ],
    )
    per_week = forms.TypedChoiceField(label="How often", choices=OFTEN, coerce=float, initial=7)

    class Meta:
        model = ClientSupplement
        fields = ["key", "dose", "form", "per_week"]
        labels = {"dose": "Dose", "form": "Form"}


SupplementFormSet = forms.inlineformset_factory(Client, ClientSupplement, form=SupplementForm, extra=3, can_delete=True)


class WeighInForm(forms.ModelForm):
    class Meta:
        model = WeighIn
        fields = ["date", "kg"]
        widgets = {"date": forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d")}
        labels = {"kg": "Weight [kg]"}

    def clean_kg(self):
        kg = self.cleaned_data["kg"]
        low, high = LIMITS["weight_kg"]
        if not low <= kg <= high:
            raise forms.ValidationError(f"{kg:g} kg is outside {low:g} to {high:g} kg.")
        return kg


class OverrideForm(forms.ModelForm):
    takes_effect = forms.DateField(label="Takes effect on", widget=forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d"))

    class Meta:
        model = TargetOverride
        fields = ["low", "aim", "high", "kind", "reason"]
        widgets = {"kind": forms.RadioSelect}
        labels = {"low": "At least", "aim": "Aim", "high": "At most", "kind": "Whose number is it?"}

    def __init__(self, *args, key: str, **kwargs):
        super().__init__(*args, **kwargs)
        self.key = key
        self.unit = NUTRIENT[key].unit
        self.fields["takes_effect"].initial = timezone.localdate()
        for name in ("low", "aim", "high"):
            self.fields[name].label += f" [{self.unit}]"

    def clean(self):
        data = super().clean()
        low, aim, high = (data.get(name) for name in ("low", "aim", "high"))
        for name in ("low", "aim", "high"):
            if data.get(name) is not None and data[name] < 0 and self.key != "pral_meq":
                self.add_error(name, "A target cannot be below zero.")
        if aim is not None and low is not None and low > aim:
            self.add_error("low", "The least allowed is above the aim.")
        if aim is not None and high is not None and high < aim:
            self.add_error("high", "The most allowed is below the aim.")
        if aim is not None and low is None and high is None and "low" not in self.errors and "high" not in self.errors:
            self.add_error("low", "Give a least, a most, or both.")
        return data


class SharesForm(forms.Form):
    """What share of the day each meal is, in percent."""

    def __init__(self, *args, client: Client, names: dict[str, str], **kwargs):
        super().__init__(*args, **kwargs)
        usual = PATTERN_SHARES[client.meals]
        now = client.meal_shares if set(client.meal_shares) == set(usual) else usual
        for key in usual:
            self.fields[key] = forms.FloatField(label=f"{names[key]} [%]", min_value=0, max_value=100, initial=round(now[key] * 100, 1))

    def clean(self):
        data = super().clean()
        total = sum(value for value in data.values() if value is not None)
        if not self.errors and abs(total - 100) > 0.5:
            raise forms.ValidationError(f"The shares add up to {total:g} %, not 100 %.")
        return data

    @property
    def shares(self) -> dict[str, float]:
        total = sum(self.cleaned_data.values())
        return {key: value / total for key, value in self.cleaned_data.items()}


class RetargetForm(forms.Form):
    takes_effect = forms.DateField(label="Takes effect on", widget=forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d"))
    why = forms.CharField(label="Why", max_length=300)
