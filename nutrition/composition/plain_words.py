"""Words looked for in what people type: small letters, hyphens as spaces, on whole words."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Sequence

_SPACED = re.compile(r"[-\u2010-\u2015_/,;()]+")


def plain(text: str) -> str:
    """Small letters without accents, hyphens, commas and brackets as spaces, straight
    apostrophes."""
    straight = text.casefold().replace("\u2019", "'").replace("\u02bc", "'")
    bare = unicodedata.normalize("NFKD", straight).encode("ascii", "ignore").decode()
    return " ".join(_SPACED.sub(" ", bare).split())


def on_whole_words(words: Sequence[str]) -> re.Pattern[str]:
    """A pattern for any of these regular expressions on whole words, a plural s allowed."""
    return re.compile(rf"\b(?:{'|'.join(words)})(?:s|es)?(?!\w)")
