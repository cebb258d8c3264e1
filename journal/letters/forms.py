"""Forms of a letter and of its answer."""

from __future__ import annotations

from typing import Any

from django import forms
from django.utils import timezone

from journal.letters.draft import MOST_WORDS, SECTIONS
from journal.models import Letter

# Sections as they stand in the form.
WORDS = tuple(key for key, _name, _ask in SECTIONS)


class LetterForm(forms.ModelForm):
    signed_as = forms.CharField(label="Sign as", max_length=160, required=False)

    class Meta:
        model = Letter
        fields = ["date", "to", "where"]
        widgets = {"date": forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d")}

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        for key, name, ask in SECTIONS:
            self.fields[key] = forms.CharField(
                label=name,
                help_text=ask,
                max_length=MOST_WORDS,
                required=False,
                widget=forms.Textarea(attrs={"rows": 3}),
                initial=self.instance.words.get(key, ""),
            )

    @property
    def written(self) -> dict[str, str]:
        return {key: self.cleaned_data[key].strip() for key in WORDS}


class AnswerForm(forms.ModelForm):
    """What came back: an answer without a name and a license orders nothing."""

    answered = forms.DateField(
        label="Answered on",
        widget=forms.DateInput(attrs={"type": "date"}, format="%Y-%m-%d"),
    )
    answer = forms.CharField(
        label="What they answered", max_length=4000, widget=forms.Textarea(attrs={"rows": 3})
    )
    answered_by = forms.CharField(label="Who answered", max_length=120)
    license = forms.CharField(
        label="Their license", max_length=80, help_text="Such as MD, nephrology, or RD 4471."
    )

    class Meta:
        model = Letter
        fields = ["answered", "answer", "answered_by", "license"]

    def clean_answered(self) -> Any:
        on = self.cleaned_data["answered"]
        if not self.instance.date <= on <= timezone.localdate():
            raise forms.ValidationError("An answer comes after the letter, and not after today.")
        return on
