"""The sign-in form, and what all forms have in common."""

from typing import Any

from django import forms
from django.contrib.auth.forms import AuthenticationForm
from django.http import QueryDict


class SignInForm(AuthenticationForm):
    error_messages = {
        **AuthenticationForm.error_messages,
        "invalid_login": "That name and password do not go together. Both are case-sensitive.",
    }

    def __init__(self, *args, **kwargs):
        super().__init__(*args, **kwargs)
        self.fields["username"].label = "Name"


def field_of(form: forms.BaseForm, name: str) -> Any:
    """A field of a form by its name, whatever its kind."""
    return form.fields[name]


def with_version(data: Any, version: int) -> QueryDict:
    """What was sent, with the version that is stored now: saving it again is saving over that."""
    copied = data.copy()
    copied["version"] = version
    return copied
