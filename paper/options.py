"""How a paper is wanted: in large print, in black and white."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from urllib.parse import urlencode

# What of an address asks for another kind of the same paper; the rest asks for what is on it.
LARGE, GRAY, AS_PDF = "large", "gray", "pdf"


@dataclass(frozen=True)
class Wanted:
    """`large`: letters of 18 points; `gray`: without color; `pdf`: as a file, not as a page."""

    large: bool = False
    gray: bool = False
    pdf: bool = False

    @property
    def classes(self) -> str:
        """What the page says of itself to the style sheet."""
        named = (("on-paper", True), ("large-print", self.large), ("no-color", self.gray))
        return " ".join(name for name, there in named if there)


def wanted_in(asked: Mapping[str, str]) -> Wanted:
    """How a paper is asked for in an address."""
    return Wanted(large=LARGE in asked, gray=GRAY in asked, pdf=AS_PDF in asked)


def address_of(asked: Mapping[str, str], **other: bool) -> str:
    """The query of the same paper with some of `other` asked for, or not any more."""
    kept = {name: value for name, value in asked.items() if name not in other}
    more = {name: "1" for name, there in other.items() if there}
    return f"?{urlencode(kept | more)}"
