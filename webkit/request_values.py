"""What an address or a form asks for, taken with care: keys and numbers that nobody can break a
page with."""

import math

from django.http import HttpRequest, QueryDict
from django.utils.http import url_has_allowed_host_and_scheme


def key_in(text: object) -> int | None:
    """The key of a record in "17"; None for anything else, digits of other scripts and endless ones
    among it."""
    said = str(text)
    return int(said) if said.isascii() and said.isdigit() and len(said) <= 15 else None


def number_in(text: object, limits: tuple[float, float] | None = None) -> float | None:
    """The finite number in "1.5" or "1,5"; None for anything else, or for one out of limits."""
    said = str(text).strip().replace(",", ".")
    if len(said) > 40:
        return None
    try:
        value = float(said)
    except ValueError:
        return None
    inside = limits is None or limits[0] <= value <= limits[1]
    return value if math.isfinite(value) and inside else None


def share_in(text: object, limits: tuple[float, float] = (0.0, 1.0)) -> float | None:
    """The share in "40 %" or "40" [0 to 1]; None for anything else, or for one out of limits."""
    percent = number_in(str(text).strip().removesuffix("%"))
    share = None if percent is None else percent / 100.0
    return share if share is not None and limits[0] <= share <= limits[1] else None


def grams_in(text: object) -> float | None:
    """The grams in "80", "80 g" or "80,5g"; None for anything else. [g]"""
    return number_in(str(text).strip().lower().removesuffix("g"))


def short(data: QueryDict | dict, name: str, most: int = 80) -> str:
    """A word or two of what was sent, no longer than `most` characters."""
    return str(data.get(name, ""))[: most * 4].strip()[:most]


def next_in(request: HttpRequest, otherwise: str) -> str:
    """Where a form wants to go next, if that is a page of this application."""
    address = str(request.POST.get("next", ""))
    here = url_has_allowed_host_and_scheme(
        address, allowed_hosts={request.get_host()}, require_https=request.is_secure()
    )
    return address if len(address) <= 500 and address.startswith("/") and here else otherwise


class TooLong(ValueError):
    """More was sent than is kept; the message says how much, and nothing was cut."""


def whole(data: QueryDict | dict, name: str, most: int) -> str:
    """What was typed, all of it. Raises TooLong for more than `most` characters."""
    text = str(data.get(name, "")).replace("\r\n", "\n").strip()
    if len(text) > most:
        raise TooLong(
            f"That is {len(text):,} characters, and {most:,} can be saved here. Nothing was saved: "
            f"shorten it, or give it in two."
        )
    return text


# No table that is pasted or sent is read beyond this. [characters]
MOST_TEXT = 400_000


def text_or_file(request: HttpRequest) -> str:
    """What was pasted as "text", or what the "file" holds that was sent in its place, all of it.
    Raises TooLong for more than is read at once, or for what is no text."""
    file = request.FILES.get("file")
    if file is None:
        text = request.POST.get("text", "")
    else:
        try:
            text = file.read(4 * MOST_TEXT + 1).decode("utf-8-sig")
        except UnicodeDecodeError:
            raise TooLong("The file is no text in UTF-8: nothing was read.") from None
    if len(text) > MOST_TEXT:
        raise TooLong(
            f"That is more than {MOST_TEXT:,} characters, and so much is read at once. Nothing was "
            f"read: give it in parts."
        )
    return text
