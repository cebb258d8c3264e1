"""When somebody is seen next, as it is typed."""

from __future__ import annotations

from datetime import datetime

from django import forms
from django.core.exceptions import ValidationError
from django.utils import timezone

from journal.models import Appointment

# So long is nobody seen, nor shorter. [minutes]
LENGTHS = (10, 240)


# A visit that is further off is a slip of the pen. [days]
FURTHEST = 800


class AppointmentForm(forms.ModelForm):
    at = forms.DateTimeField(
        label="When",
        input_formats=["%Y-%m-%dT%H:%M", "%Y-%m-%d %H:%M"],
        widget=forms.DateTimeInput(attrs={"type": "datetime-local"}, format="%Y-%m-%dT%H:%M"),
    )
    minutes = forms.IntegerField(
        label="Minutes", min_value=LENGTHS[0], max_value=LENGTHS[1], initial=45
    )

    class Meta:
        model = Appointment
        fields = ["at", "minutes", "words"]

    def clean_at(self) -> datetime:
        at: datetime = self.cleaned_data["at"]
        days = (timezone.localtime(at).date() - timezone.localdate()).days
        if not 0 <= days <= FURTHEST:
            raise ValidationError("The next visit is today or later, and not years from now.")
        return at
