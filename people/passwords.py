"""A password that everybody knows is none."""

from __future__ import annotations

from django.conf import settings
from django.core.exceptions import ValidationError


class NotOfTheDemo:
    """Refuses the passwords that the demo prints."""

    def validate(self, password: str, user: object = None) -> None:
        if password in settings.DEMO_PASSWORDS:
            raise ValidationError("That is the demo's password, which everybody knows.")

    def get_help_text(self) -> str:
        return "Not the demo's password."
