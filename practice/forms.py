"""The form of the practice, and what all forms have in common."""

from typing import Any
from zoneinfo import available_timezones

from django import forms
from django.http import QueryDict

from practice.models import PAPERS, Practice


def field_of(form: forms.BaseForm, name: str) -> Any:
    """A field of a form by its name, whatever its kind."""
    return form.fields[name]


def with_version(data: Any, version: int) -> QueryDict:
    """What was sent, with the version that is stored now: saving it again is saving over that."""
    copied = data.copy()
    copied["version"] = version
    return copied


class PracticeForm(forms.ModelForm):
    class Meta:
        model = Practice
        fields = ["name", "town", "contact", "measures", "paper_size", "time_zone"]
        help_texts = {
            "measures": "Whose cups and spoons new recipes and typed amounts are in. Recipes "
            "already written keep theirs; each can be "
            "changed on its own page."
        }

    paper_size = forms.ChoiceField(label="Paper", required=False, choices=PAPERS)
    # which zones there are is a matter of the machine, and of no stored record
    time_zone = forms.ChoiceField(
        required=False,
        help_text="Its dates are the practice's dates: today, weigh-ins, days, handouts.",
    )

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        field_of(self, "time_zone").choices = [
            (name, name.replace("_", " ")) for name in sorted(available_timezones())
        ]

    def clean_paper_size(self) -> str:
        return self.cleaned_data["paper_size"] or self.instance.paper_size

    def clean_time_zone(self) -> str:
        return self.cleaned_data["time_zone"] or self.instance.time_zone
