"""The form of the practice's mark."""

from __future__ import annotations

from django import forms


class MarkForm(forms.Form):
    file = forms.FileField(
        label="A picture",
        help_text="PNG, JPEG, WebP or GIF; wide or square. It stands at the head of every paper.",
    )
