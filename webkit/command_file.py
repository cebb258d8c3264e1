"""A file that was named on the command line, and what is told of one that cannot be used."""

import json
import math
import os
import sys
from pathlib import Path
from typing import Any, NoReturn

from django.core.management.base import BaseCommand, CommandError

from nutrition.composition.errors import CoreError
from nutrition.composition.nutrients import NUTRIENT

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


def _no_number(text: str) -> NoReturn:
    raise ValueError(f"{text} is no number")


def _finite(text: str) -> float:
    value = float(text)
    return value if math.isfinite(value) else _no_number(text)


def json_given(name: str) -> Any:
    """What a JSON file holds. Raises CommandError saying why not."""
    try:
        return json.loads(read_given(name), parse_constant=_no_number, parse_float=_finite)
    except (ValueError, RecursionError) as error:
        raise CommandError(f"{name} is not JSON: {error}.") from None


def asked_key(key: str) -> str:
    """The key of a number that was asked where it comes from. Raises CommandError for one that
    nothing is reckoned of."""
    if key not in NUTRIENT:
        near = ", ".join(name for name in NUTRIENT if key.split("_")[0] in name) or "protein_g"
        raise CommandError(f"--why {key}: there is no such number. Near it: {near}.")
    return key


def refuse(command: BaseCommand, error: CoreError, words: str, as_json: bool) -> NoReturn:
    """End with status 1: the field and the message as JSON, or in words."""
    if not as_json:
        raise CommandError(words) from None
    told = {"error": {"field": error.field, "message": str(error)}}
    command.stdout.write(json.dumps(told, ensure_ascii=False))
    sys.exit(1)
