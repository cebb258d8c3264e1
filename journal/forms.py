"""Forms of the journal."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date, timedelta

from django import forms
from django.utils import timezone

from clients.models import BloodValue
from journal.models import FELT, Felt, Happening, TakenChange
from nutrition.follow_up.events import KINDS
from nutrition.targets.blood import (
    BadValue,
    analytes,
    check_value,
    likely_units,
    unit_asked,
)
from webkit.request_values import number_in

DAYS_BACK = timedelta(days=3 * 366)


def past(value: date) -> date:
    """A date that has come, and is not too long ago. Raises ValidationError."""
    today = timezone.localdate()
    if value > today:
        raise forms.ValidationError("That day has not come yet.")
    if value < today - DAYS_BACK:
        raise forms.ValidationError("That is more than three years ago.")
    return value


def date_input() -> forms.DateInput:
    return forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d")


class HappeningForm(forms.ModelForm):
    kind = forms.ChoiceField(label="What", choices=[(key, one.name) for key, one in KINDS.items()])

    class Meta:
        model = Happening
        fields = ["kind", "start", "end", "words"]
        widgets = {"start": date_input(), "end": date_input()}

    def clean_start(self):
        return past(self.cleaned_data["start"])

    def clean(self):
        super().clean()
        start, end = self.cleaned_data.get("start"), self.cleaned_data.get("end")
        if start and end and end < start:
            self.add_error("end", "It ends before it begins.")
        return self.cleaned_data


def _pairs(names: Iterable[str]) -> list[tuple[str, str]]:
    return [(name, name) for name in names]


class BloodForm(forms.ModelForm):
    key = forms.ChoiceField(label="What")
    unit = forms.CharField(max_length=10)

    class Meta:
        model = BloodValue
        fields = ["key", "value", "unit", "date", "low", "high", "laboratory", "remark"]
        widgets = {"date": date_input()}

    def __init__(self, *args, **kwargs):
        super().__init__(*args, **kwargs)
        names = [(key, one.name) for key, one in analytes().items()]
        self.fields["key"] = forms.ChoiceField(label="What", choices=names)
        units = {unit for one in analytes().values() for unit in one.units}
        self.fields["unit"] = forms.ChoiceField(
            choices=self._units() or [("", "unit"), *_pairs(sorted(units, key=str.lower))],
            required=False,
        )

    def _units(self) -> list[tuple[str, str]]:
        """The units of what was chosen, those that its size fits first; none before it is."""
        key, value = self.data.get("key", ""), number_in(self.data.get("value", ""))
        if key not in analytes():
            return []
        likely = likely_units(key, value) if value is not None else []
        rest = [unit for unit in analytes()[key].units if unit not in likely]
        return [("", "unit"), *_pairs([*likely, *rest])]

    def clean_date(self):
        return past(self.cleaned_data["date"])

    def clean(self):
        super().clean()
        data = self.cleaned_data
        key, value, unit = data.get("key"), data.get("value"), data.get("unit")
        if key and value is not None and not unit and "unit" not in self.errors:
            if len(analytes()[key].units) == 1:
                unit = data["unit"] = analytes()[key].unit
            else:
                self.add_error("unit", unit_asked(key, value))
        if key and value is not None and unit:
            try:
                check_value(key, value, unit)
            except BadValue as error:
                self.add_error(error.field or "value", str(error))
        low, high = data.get("low"), data.get("high")
        if low is not None and high is not None and low > high:
            self.add_error("high", "The range ends under where it begins.")
        return data


class FeltForm(forms.ModelForm):
    class Meta:
        model = Felt
        fields = list(FELT)
        widgets = {
            name: forms.NumberInput(attrs={"min": 0, "max": 10, "inputmode": "numeric"})
            for name in FELT
        }


class TakeForm(forms.ModelForm):
    class Meta:
        model = TakenChange
        fields = ["words", "reason", "start", "cause", "kcal"]
        widgets = {
            "start": date_input(),
            "cause": forms.HiddenInput(),
            "kcal": forms.HiddenInput(),
            "reason": forms.TextInput(),
        }


class OutcomeForm(forms.ModelForm):
    class Meta:
        model = TakenChange
        fields = ["outcome", "outcome_words"]

    def clean_outcome(self):
        outcome = self.cleaned_data["outcome"]
        if not outcome:
            raise forms.ValidationError("Say how it went.")
        return outcome
