"""The second step of signing in: a code from an application on the phone, one of ten codes on
paper, or a passkey. The devices are django-otp's."""

from __future__ import annotations

import secrets
from base64 import b32encode
from typing import Any

import segno
from django.conf import settings
from django.db import transaction
from django.utils.crypto import salted_hmac
from django.utils.safestring import SafeString, mark_safe
from django_otp.plugins.otp_static.models import StaticDevice
from django_otp.plugins.otp_totp.models import TOTPDevice
from django_otp_webauthn.models import WebAuthnCredential

from practice.models import User

# So many codes for when the phone is not at hand, of so many letters that are not mistaken.
CODES, CODE_LENGTH = 10, 10
LETTERS = "abcdefghjkmnpqrstuvwxyz23456789"


def has_one(user: User) -> bool:
    """Whether somebody signs in with a second step."""
    return (
        TOTPDevice.objects.filter(user=user, confirmed=True).exists()
        or WebAuthnCredential.objects.filter(user=user, confirmed=True).exists()
    )


def begun(user: User) -> TOTPDevice:
    """The phone that is being set up: the same until it is confirmed."""
    row = TOTPDevice.objects.filter(user=user, confirmed=False).first()
    return row or TOTPDevice.objects.create(user=user, name="phone", confirmed=False)


def confirm(device: TOTPDevice, code: str) -> bool:
    """Whether the phone shows the right code; from then on it is asked for."""
    if not code.isdigit() or not device.verify_token(code):
        return False
    with transaction.atomic():
        TOTPDevice.objects.filter(user=device.user).exclude(pk=device.pk).delete()
        device.confirmed = True
        device.save(update_fields=["confirmed"])
    return True


def picture(device: TOTPDevice) -> SafeString:
    """What the phone's camera reads, as SVG."""
    drawn = segno.make(device.config_url, error="m").svg_inline(scale=5, border=2, omitsize=True)
    return mark_safe(drawn)  # noqa: S308  drawn by the library of a key that we made


def typed_key(device: TOTPDevice) -> str:
    """The key as it is typed where there is no camera, in fours."""
    key = b32encode(device.bin_key).decode().rstrip("=")
    return " ".join(key[at : at + 4] for at in range(0, len(key), 4))


def _kept(code: str) -> str:
    """A code on paper as it is kept: whoever reads the database has none."""
    return salted_hmac("people.codes", code, algorithm="sha256").hexdigest()[:16]


def _plain(code: str) -> str:
    return "".join(letter for letter in code.lower() if letter in LETTERS)


def new_codes(user: User) -> list[str]:
    """Ten codes in place of those before, to be written down: they are shown this once."""
    codes = ["".join(secrets.choice(LETTERS) for _ in range(CODE_LENGTH)) for _code in range(CODES)]
    with transaction.atomic():
        StaticDevice.objects.filter(user=user).delete()
        device = StaticDevice.objects.create(user=user, name="paper")
        for code in codes:
            device.token_set.create(token=_kept(code))
    return [f"{code[:5]}-{code[5:]}" for code in codes]


def codes_left(user: User) -> int:
    return sum(device.token_set.count() for device in StaticDevice.objects.filter(user=user))


class NoMatch(Exception):
    """A code that is not one of somebody's devices, or not any more."""


def matched(user: User, typed: str) -> Any:
    """The device that a typed code is of. Each device slows its own tries; a code on paper is used
    up. Raises NoMatch."""
    digits = typed.strip().replace(" ", "")
    if digits.isascii() and digits.isdigit() and len(digits) <= 8:
        devices, code = TOTPDevice.objects.filter(user=user, confirmed=True), digits
    else:
        devices, code = StaticDevice.objects.filter(user=user), _kept(_plain(typed))
    with transaction.atomic():
        found = next((one for one in devices if one.verify_token(code)), None)
    # out here: what the device notes of a wrong code stays
    if found is None:
        raise NoMatch
    return found


def take_off(user: User) -> None:
    """Sign in with the password alone from now on."""
    with transaction.atomic():
        for kind in (TOTPDevice, StaticDevice, WebAuthnCredential):
            kind.objects.filter(user=user).delete()


def passkeys_offered() -> bool:
    """A passkey belongs to the name of a site: none where the site is reached by a number, or by
    a name that every machine has."""
    return bool(settings.OTP_WEBAUTHN_RP_ID)
