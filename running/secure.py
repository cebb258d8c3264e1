"""What must hold before anybody but the machine itself is served: each thing that does not, in a
sentence."""

from __future__ import annotations

import os
from pathlib import Path

from django.conf import settings
from django.core.checks import Error, Tags, register

from running import places

# A secret of fewer letters is guessed.
SECRET_LENGTH = 50


def faults() -> list[str]:
    """What is not as it must be; nothing in the demo, which serves this machine alone."""
    if settings.DEMO:
        return []
    out = []
    if settings.DEBUG:
        out.append("ROUNDPANTRY_DEBUG is 1: pages of errors would show what is in the program.")
    if not settings.SECURE_SSL_REDIRECT:
        out.append("ROUNDPANTRY_HTTPS is not 1: passwords would cross the network to be read.")
    secret = settings.SECRET_KEY
    if len(secret) < SECRET_LENGTH or secret.startswith("django-insecure"):
        out.append(f"ROUNDPANTRY_SECRET_KEY has fewer than {SECRET_LENGTH} letters.")
    if "*" in settings.ALLOWED_HOSTS or not settings.OTP_WEBAUTHN_RP_ID:
        out.append("ROUNDPANTRY_HOSTS does not name the site: pantry.example, say.")
    out += [
        f"{path} can be read by others: chmod -R go= {path}"
        for path in (Path(settings.VAR_DIR), places.database().parent, places.database())
        if path.exists() and path.stat().st_mode & 0o077
    ]
    out += [
        f"{path} is not this user's own."
        for path in (Path(settings.VAR_DIR), places.database())
        if path.exists() and path.stat().st_uid != os.getuid()
    ]
    return out


@register(Tags.security, deploy=True)
def deployed(app_configs: object, **kwargs: object) -> list[Error]:
    return [Error(words, id="running.E001") for words in faults()]
