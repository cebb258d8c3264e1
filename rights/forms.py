"""The forms of rights: consent, how long is kept, an archive that comes in."""

from __future__ import annotations

from typing import Any

from django import forms
from django.utils import timezone

from clients.models import Client
from practice.forms import field_of
from practice.models import Practice
from rights.models import Consent

MOST_BYTES = 2_500_000


class ConsentForm(forms.ModelForm):
    class Meta:
        model = Consent
        fields = ["text", "on", "how"]
        widgets = {
            "text": forms.Textarea(attrs={"rows": 6}),
            "on": forms.DateInput(attrs={"type": "date"}),
        }
        help_texts = {"how": "On paper, by voice, by letter: where it can be found."}

    def clean_on(self) -> Any:
        on = self.cleaned_data["on"]
        if on > timezone.localdate():
            raise forms.ValidationError("That day is still to come.")
        return on


class KeepingForm(forms.ModelForm):
    class Meta:
        model = Practice
        fields = ["consent_text", "keep_years", "erase_when_due"]
        widgets = {"consent_text": forms.Textarea(attrs={"rows": 5})}
        help_texts = {
            "consent_text": "Filled in on each client's page; what somebody agreed to stays as it "
            "was then.",
            "keep_years": "Empty: for as long as nobody erases it. What the law of your place asks "
            "of health records stands over this: ask there before you choose.",
            "erase_when_due": "Sixty days after the warning. Without it an owner erases, or keeps.",
        }


class KeepForm(forms.Form):
    until = forms.DateField(
        label="Keep until", widget=forms.DateInput(attrs={"type": "date"}), required=True
    )
    why = forms.CharField(label="Why", max_length=200)

    def clean_until(self) -> Any:
        until = self.cleaned_data["until"]
        if until <= timezone.localdate():
            raise forms.ValidationError("That day is over.")
        return until


class EraseForm(forms.Form):
    name = forms.CharField(label="The client's name, typed as it stands above", max_length=120)

    def __init__(self, client: Client, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.client = client
        field_of(self, "name").widget.attrs["autocomplete"] = "off"

    def clean_name(self) -> str:
        name: str = self.cleaned_data["name"]
        if " ".join(name.split()) != " ".join(self.client.name.split()):
            raise forms.ValidationError("That is not the name: nothing was erased.")
        return name


class TakeInForm(forms.Form):
    file = forms.FileField(label="The archive of one client")

    def clean_file(self) -> Any:
        file = self.cleaned_data["file"]
        if file.size > MOST_BYTES:
            raise forms.ValidationError(
                "That is larger than a page takes in. Whoever runs the installation can read it: "
                "bin/manage read_archive FILE"
            )
        return file
