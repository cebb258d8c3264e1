"""The practice's mark: an image that is looked at, made small, and kept."""

from __future__ import annotations

from base64 import b64decode, b64encode
from functools import lru_cache
from io import BytesIO
from typing import BinaryIO

from PIL import Image, UnidentifiedImageError

from practice.models import Mark, Practice

# No mark is read that is larger, as a file and as a picture; none is kept larger than it is printed
# at 300 dots an inch. [bytes, pixels]
MOST_BYTES, MOST_PIXELS, KEPT = 2_000_000, 20_000_000, (900, 300)
KINDS = ("PNG", "JPEG", "WEBP", "GIF")


class NoMark(ValueError):
    """A file that cannot be the mark; the message says why."""


def mark_of(practice: Practice) -> str:
    """The mark as the address of an image; empty where the practice has none."""
    found = Mark.objects.filter(practice=practice).first()
    return found.picture if found else ""


@lru_cache(maxsize=8)
def in_gray(mark: str) -> str:
    """The mark without color; empty for none."""
    if not mark:
        return ""
    with Image.open(BytesIO(b64decode(mark.partition(",")[2])), formats=KINDS) as read:
        return _as_address(read.convert("LA"))


def keep_mark(practice: Practice, file: BinaryIO, size: int) -> None:
    """Keep the image as the practice's mark. Raises NoMark."""
    picture = read_mark(file, size)
    Mark.objects.update_or_create(practice=practice, defaults={"picture": picture})


def read_mark(file: BinaryIO, size: int) -> str:
    """The image in a file, as small as it is printed, and nothing else that is in the file. Raises
    NoMark."""
    if size > MOST_BYTES:
        raise NoMark(f"A mark has at most {MOST_BYTES // 1_000_000} MB; this file has more.")
    try:
        with Image.open(file, formats=KINDS) as read:
            if read.width * read.height > MOST_PIXELS:
                raise NoMark("This picture has too many pixels; 900 by 300 are enough.")
            picture = read.convert("RGBA")
    except (UnidentifiedImageError, OSError, SyntaxError, Image.DecompressionBombError) as error:
        raise NoMark(f"Choose a picture: {', '.join(KINDS)}.") from error
    picture.thumbnail(KEPT)
    return _as_address(picture)


def _as_address(picture: Image.Image) -> str:
    out = BytesIO()
    picture.save(out, "PNG", optimize=True)
    return f"data:image/png;base64,{b64encode(out.getvalue()).decode()}"
