"""The signed address of a link: made from the link, and led back to it."""

from __future__ import annotations

from django.core.signing import BadSignature, Signer
from django.urls import reverse

from shared_with.models import Link
from webkit.client_address import addresses_for

_signer = Signer(salt="shared_with.link", sep=".")


def token_of(link: Link) -> str:
    """What stands in the address: a random name and its signature."""
    return _signer.sign(link.nonce)


def address_of(link: Link, page: str = "today") -> str:
    """The address of a page of a link: no client stands in it, as in those of the practice."""
    with addresses_for(None):
        return reverse(f"shared_with:{page}", args=[token_of(link)])


def link_of(token: str) -> Link | None:
    """The link that an address leads to, of whatever practice; None for an address that is none.
    Whether it still opens is asked of the link."""
    try:
        nonce = _signer.unsign(token)
    except BadSignature:
        return None
    rows = Link._base_manager.select_related("practice", "client", "by")
    found: Link | None = rows.filter(nonce=nonce).first()
    return found
