"""What is typed of a link."""

from __future__ import annotations

from datetime import date

from django import forms
from django.utils import timezone

from shared_with.models import SHOWS

# A link opens for so long where nothing else is said, and for no longer than that. [days]
USUAL_DAYS, LONGEST_DAYS = 60, 400


# Digits of a code. Fewer are guessed, more are not remembered.
CODE_DIGITS = (4, 8)


class LinkForm(forms.Form):
    shows = forms.MultipleChoiceField(
        label="It shows",
        choices=list(SHOWS.items()),
        widget=forms.CheckboxSelectMultiple,
        error_messages={"required": "Tick what it shows."},
    )
    until = forms.DateField(
        label="Opens until",
        widget=forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d"),
    )
    code = forms.CharField(
        label="A code beside the link",
        required=False,
        max_length=CODE_DIGITS[1],
        help_text="4 to 8 digits, told to them another way; empty for none.",
        widget=forms.TextInput(attrs={"inputmode": "numeric", "autocomplete": "off"}),
    )

    def clean_until(self) -> date:
        until: date = self.cleaned_data["until"]
        days = (until - timezone.localdate()).days
        if not 0 <= days <= LONGEST_DAYS:
            raise forms.ValidationError(f"A day from today on, at most {LONGEST_DAYS} days ahead.")
        return until

    def clean_code(self) -> str:
        code: str = self.cleaned_data["code"].strip()
        if code and not (code.isascii() and code.isdigit() and len(code) >= CODE_DIGITS[0]):
            raise forms.ValidationError("Digits alone, 4 to 8 of them.")
        return code
