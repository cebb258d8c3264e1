"""The forms of signing in, of inviting, and of one's own sign-in."""

from __future__ import annotations

from typing import Any

from django import forms
from django.conf import settings
from django.contrib.auth import password_validation
from django.contrib.auth.forms import AuthenticationForm, SetPasswordMixin
from django.http import HttpRequest

from people import slowing
from people.models import Invitation
from practice.forms import field_of
from practice.models import Practice, User
from practice.roles import ROLES

LOOPBACK = ("127.0.0.1", "::1")


def waiting_words(seconds: float) -> str:
    """How long somebody has to wait, rounded up."""
    if seconds <= 90:
        return f"{max(1, round(seconds + 0.5))} seconds"
    return f"{round(seconds / 60 + 0.5)} minutes"


class Slowed(forms.ValidationError):
    """A try that may not be made yet."""


class SignInForm(AuthenticationForm):
    error_messages = {
        **AuthenticationForm.error_messages,
        "invalid_login": "That name and password do not go together. Both are case-sensitive.",
    }

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.slowed = False
        field_of(self, "username").label = "Name"
        field_of(self, "username").widget.attrs["autocomplete"] = "username"

    def clean(self) -> dict[str, Any]:
        name = self.cleaned_data.get("username")
        if name is None or not self.cleaned_data.get("password"):
            return self.cleaned_data
        assert self.request is not None
        tried, wait = slowing.begin_try(self.request, name)
        if tried is None:
            self.slowed = True
            raise Slowed(
                "Too many wrong passwords. Wait "
                f"{waiting_words(wait.total_seconds())}, then try again; or ask an owner of your "
                "practice for a link to a new password."
            )
        if of_the_demo(self.cleaned_data["password"]) and not demo_may(self.request):
            raise forms.ValidationError(
                "That is the demo's password, which everybody knows: it opens nothing here."
            )
        cleaned = super().clean()
        tried.delete()
        slowing.succeeded(self.request, name)
        return cleaned


def of_the_demo(password: str) -> bool:
    return password in settings.DEMO_PASSWORDS


def demo_may(request: HttpRequest) -> bool:
    """Whether the demo's password opens anything: on the machine itself, in the demo alone."""
    return (
        settings.DEMO
        and request.META.get("REMOTE_ADDR") in LOOPBACK
        and "X-Forwarded-For" not in request.headers
    )


class CodeForm(forms.Form):
    code = forms.CharField(
        label="Code",
        max_length=20,
        help_text="Six digits from your phone, or one of the codes on paper.",
        widget=forms.TextInput(
            attrs={"autocomplete": "one-time-code", "inputmode": "text", "autofocus": True}
        ),
    )


class FirstCodeForm(CodeForm):
    """The code that shows that the phone took the key."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        field_of(self, "code").help_text = "It changes every half minute."


class AgainForm(forms.Form):
    """Who was signed out at rest goes on with the password alone."""

    password = forms.CharField(
        label="Password",
        strip=False,
        widget=forms.PasswordInput(attrs={"autocomplete": "current-password", "autofocus": True}),
    )


class YouForm(forms.ModelForm):
    class Meta:
        model = User
        fields = ["first_name", "last_name", "email", "letter_keys"]
        labels = {"email": "Mail"}
        help_texts = {
            "email": "Where a link to a new password goes. Without one, an owner of the practice "
            "can give you a link.",
            "letter_keys": "B for Balance, S for Swaps, G and a letter for a page, U for Undo, / "
            "for Find. Turn them off where letters are typed or spoken by other means: everything "
            "has a button as well.",
        }


def _name_taken(name: str) -> bool:
    return User.objects.filter(username__iexact=name).exists()


class JoinForm(SetPasswordMixin, forms.ModelForm):
    """Taking a place: the name to sign in with, and a password."""

    class Meta:
        model = User
        fields = ["username", "first_name", "last_name"]
        labels = {"username": "Name to sign in with"}
        help_texts = {"username": "Letters, digits and @ . + - _"}

    password1, password2 = SetPasswordMixin.create_password_fields(
        label1="Password", label2="The password once more"
    )

    def clean_username(self) -> str:
        name = self.cleaned_data["username"]
        if _name_taken(name):
            raise forms.ValidationError("Somebody signs in with that name already.")
        return name

    def clean(self) -> dict[str, Any]:
        self.validate_passwords()
        return super().clean() or self.cleaned_data

    def _post_clean(self) -> None:
        super()._post_clean()  # type: ignore[misc]
        self.validate_password_for_user(self.instance)


class InviteForm(forms.ModelForm):
    class Meta:
        model = Invitation
        fields = ["name", "email", "role"]
        help_texts = {"email": "The link is sent there too, where the installation sends mail."}

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        field_of(self, "role").choices = role_choices()


def role_choices() -> list[tuple[str, str]]:
    return [(role, f"{one.name}: {one.may}") for role, one in ROLES.items()]


class SignInRulesForm(forms.ModelForm):
    """How people come into the practice."""

    class Meta:
        model = Practice
        fields = ["second_step", "rest_minutes"]
        help_texts = {
            "second_step": "Whoever has none sets one up at the next page they open.",
            "rest_minutes": "From 5 to 720. What was typed is kept, and sent after the password.",
        }


def refused_password(password: str, user: User) -> list[str]:
    """Why a password will not do, in sentences."""
    try:
        password_validation.validate_password(password, user)
    except forms.ValidationError as error:
        return list(error.messages)
    return []
