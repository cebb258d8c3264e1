"""What is typed of a client's calendar."""

from __future__ import annotations

from typing import Any

from django import forms

from handouts.agenda import KINDS
from nutrition.targets.meals import MEAL_NAMES, USUAL_TIMES

WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


MOST_BEFORE = 24 * 60


class CalendarForm(forms.Form):
    kinds = forms.MultipleChoiceField(
        label="What is in it",
        choices=[(key, words.capitalize()) for key, words in KINDS.items()],
        widget=forms.CheckboxSelectMultiple,
        required=False,
    )
    alarm_minutes = forms.IntegerField(
        label="Reminded before it [minutes]", min_value=0, max_value=MOST_BEFORE
    )
    weigh_day = forms.TypedChoiceField(
        label="Weighs in on",
        choices=[("", "no day"), *enumerate(WEEKDAYS)],
        coerce=int,
        empty_value=None,
        required=False,
    )

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        for key in USUAL_TIMES:
            self.fields[f"at_{key}"] = forms.TimeField(
                label=f"{MEAL_NAMES[key]} at",
                widget=forms.TimeInput(attrs={"type": "time"}, format="%H:%M"),
            )

    def times(self) -> dict[str, int]:
        """The minutes of the day of each meal."""
        at = {key: self.cleaned_data[f"at_{key}"] for key in USUAL_TIMES}
        return {key: one.hour * 60 + one.minute for key, one in at.items()}
