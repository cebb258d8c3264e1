"""The forms of a day."""

from datetime import timedelta

from django import forms
from django.utils import timezone

# How far back and ahead a day can be planned.
DAYS_BACK, DAYS_AHEAD = timedelta(days=3 * 366), timedelta(days=2 * 366)


class DayForm(forms.Form):
    date = forms.DateField(widget=forms.DateInput(attrs={"type": "date"}))

    def clean_date(self):
        day, today = self.cleaned_data["date"], timezone.localdate()
        if not today - DAYS_BACK <= day <= today + DAYS_AHEAD:
            raise forms.ValidationError(
                "A day is planned from three years back to two years ahead."
            )
        return day


class SettingsForm(DayForm):
    note = forms.CharField(max_length=200, required=False)
