"""The link that leads somebody to a new password, once, for a day."""

from django.contrib.auth.tokens import default_token_generator
from django.urls import reverse
from django.utils.encoding import force_bytes
from django.utils.http import urlsafe_base64_encode

from practice.models import User
from webkit.client_address import without_client


def password_path(user: User) -> str:
    """Its path on the site."""
    token = default_token_generator.make_token(user)
    return without_client(
        reverse("new-password", args=[urlsafe_base64_encode(force_bytes(user.pk)), token])
    )
