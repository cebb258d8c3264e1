"""The forms of signing in, of inviting, and of one's own sign-in."""

from __future__ import annotations

from typing import Any

from django import forms
from django.conf import settings
from django.contrib.auth import authenticate
from django.contrib.auth.forms import AuthenticationForm, SetPasswordMixin
from django.core.exceptions import PermissionDenied
from django.http import HttpRequest

from people import slowing
from people.models import Invitation
from practice.forms import field_of
from practice.models import Practice, User
from practice.roles import ROLES

LOOPBACK = ("127.0.0.1", "::1")
# Marks the error of a try that may not be made yet.
SLOWED = "slowed"


class SignInForm(AuthenticationForm):
    error_messages = {
        **AuthenticationForm.error_messages,
        "invalid_login": "That name and password do not go together. Both are case-sensitive.",
    }

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        field_of(self, "username").label = "Name"
        field_of(self, "username").widget.attrs["autocomplete"] = "username"

    def clean(self) -> dict[str, Any]:
        name, password = self.cleaned_data.get("username"), self.cleaned_data.get("password")
        if name is None or not password:
            return self.cleaned_data
        assert self.request is not None
        try:
            with slowing.one_try(self.request, name):
                if of_the_demo(password) and not demo_may(self.request):
                    raise forms.ValidationError(
                        "That is the demo's password, which everybody knows: it opens nothing here."
                    )
                return super().clean()
        except slowing.TooMany as error:
            raise forms.ValidationError(
                f"Too many wrong passwords. Wait {error}, then try again; or ask an owner of your "
                "practice for a link to a new password.",
                code=SLOWED,
            ) from None


def of_the_demo(password: str) -> bool:
    return password in settings.DEMO_PASSWORDS


def demo_may(request: HttpRequest) -> bool:
    """Whether the demo's password opens anything: on the machine itself, in the demo alone."""
    return (
        settings.DEMO
        and request.META.get("REMOTE_ADDR") in LOOPBACK
        and "X-Forwarded-For" not in request.headers
    )


def wrong_password(request: HttpRequest, user: User, password: str) -> str:
    """Why a password that somebody gives once more will not do, in words; empty where it does."""
    try:
        with slowing.one_try(request, user.username):
            if of_the_demo(password) and not demo_may(request):
                raise PermissionDenied("That is the demo's password, which opens nothing here.")
            if authenticate(request, username=user.username, password=password) is None:
                raise PermissionDenied("That is not the password.")
    except slowing.TooMany as error:
        return f"Too many wrong passwords. Wait {error}."
    except PermissionDenied as error:
        return str(error)
    return ""


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
