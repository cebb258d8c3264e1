"""Forms for clients."""

from django import forms

from clients.models import Client, TargetOverride, WeighIn
from nutrition import targets
from nutrition.allergens import ALLERGENS
from nutrition.nutrients import NUTRIENT


class ClientForm(forms.ModelForm):
    allergies = forms.MultipleChoiceField(choices=[(name, name) for name in ALLERGENS], required=False, widget=forms.CheckboxSelectMultiple)
    version = forms.IntegerField(widget=forms.HiddenInput, required=False)

    class Meta:
        model = Client
        fields = [
            "name",
            "about",
            "sex",
            "birth_year",
            "height_cm",
            "weight_kg",
            "activity",
            "goal",
            "life_stage",
            "formula",
            "conditions",
            "allergies",
            "notes",
        ]
        widgets = {"conditions": forms.Textarea(attrs={"rows": 3}), "notes": forms.Textarea(attrs={"rows": 3})}

    def __init__(self, *args, **kwargs):
        super().__init__(*args, **kwargs)
        if self.instance.pk:
            self.fields["version"].initial = self.instance.version

    def clean(self):
        data = super().clean()
        if self.errors:
            return data
        fields = ("sex", "birth_year", "height_cm", "weight_kg", "activity", "goal", "life_stage", "formula")
        # unsaved, so that its weight is the one in the form and not the last weigh-in
        person = Client(**{field: data[field] for field in fields}).person()
        try:
            targets.check(person)
        except targets.OutOfRange as error:
            self.add_error("birth_year" if error.field == "age_years" else error.field, str(error))
        return data


class WeighInForm(forms.ModelForm):
    class Meta:
        model = WeighIn
        fields = ["date", "kg"]
        widgets = {"date": forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d")}
        labels = {"kg": "Weight [kg]"}

    def clean_kg(self):
        kg = self.cleaned_data["kg"]
        low, high = targets.LIMITS["weight_kg"]
        if not low <= kg <= high:
            raise forms.ValidationError(f"{kg:g} kg is outside {low} to {high} kg.")
        return kg


class OverrideForm(forms.ModelForm):
    class Meta:
        model = TargetOverride
        fields = ["low", "aim", "high", "kind", "reason"]
        widgets = {"kind": forms.RadioSelect}
        labels = {"low": "At least", "aim": "Aim", "high": "At most", "kind": "Whose number is it?"}

    def __init__(self, *args, key: str, **kwargs):
        super().__init__(*args, **kwargs)
        self.unit = NUTRIENT[key].unit
        for name in ("low", "aim", "high"):
            self.fields[name].label += f" [{self.unit}]"

    def clean(self):
        data = super().clean()
        low, aim, high = (data.get(name) for name in ("low", "aim", "high"))
        for name in ("low", "aim", "high"):
            if data.get(name) is not None and data[name] < 0:
                self.add_error(name, "A target cannot be below zero.")
        if aim is not None and low is not None and low > aim:
            self.add_error("low", "The least allowed is above the aim.")
        if aim is not None and high is not None and high < aim:
            self.add_error("high", "The most allowed is below the aim.")
        if aim is not None and low is None and high is None and "low" not in self.errors and "high" not in self.errors:
            self.add_error("low", "Give a least, a most, or both.")
        return data
