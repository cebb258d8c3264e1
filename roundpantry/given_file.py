"""A file that was named on the command line."""

import os
import sys
from pathlib import Path

from django.core.management.base import CommandError

MOST_BYTES = 1_000_000


def read_given(name: str) -> str:
    """The text of a file, or of standard input for "-", from where the command was called. Raises
    CommandError saying why not."""
    if name == "-":
        return sys.stdin.read(MOST_BYTES)
    path = Path(os.environ.get("ROUNDPANTRY_CALLED_FROM", ".")) / name
    try:
        if path.stat().st_size > MOST_BYTES:
            raise CommandError(
                f"{name} is over {MOST_BYTES:,} bytes: that is not what is asked for."
            )
        return path.read_text(encoding="utf-8")
    except UnicodeDecodeError:
        raise CommandError(f"{name} is not text in UTF-8.") from None
    except OSError as error:
        raise CommandError(f"{name} cannot be read: {error.strerror}.") from None
