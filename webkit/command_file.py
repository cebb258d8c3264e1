"""A file that was named on the command line, what is told of one that cannot be used, and the
commands that answer one."""

import json
import math
import os
import sys
from pathlib import Path
from typing import Any, ClassVar, NoReturn

from django.core.management.base import BaseCommand, CommandError, CommandParser

from nutrition.composition.errors import CoreError
from nutrition.composition.nutrients import NUTRIENT
from nutrition.requests.structure import Structure, Told, schema_of

MOST_BYTES = 1_000_000
MOST_SECONDS = 600.0


def path_given(name: str) -> Path:
    """A path that was named, from where the command was called."""
    return Path(os.environ.get("ROUNDPANTRY_CALLED_FROM", ".")) / name


def read_given(name: str) -> str:
    """The text of a file, or of standard input for "-", from where the command was called. Raises
    CommandError saying why not."""
    if name == "-":
        return sys.stdin.read(MOST_BYTES)
    path = path_given(name)
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


def as_json(data: object) -> str:
    """Plain data as it is printed."""
    return json.dumps(data, indent=2, ensure_ascii=False)


class FileCommand(BaseCommand):
    """A command that takes what is asked in a JSON file and prints the answer in words or as JSON,
    or the schema of both."""

    requires_system_checks: list[str] = []
    asked: ClassVar[type[Structure]]
    answered: ClassVar[type[Told]]
    file_help = ""
    why_help = ""
    seconds_help = ""
    # Whether a refusal is said with its field before it, where it does not begin with it.
    names_the_field = True

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", nargs="?", help=f"{self.file_help}, or - for standard input")
        parser.add_argument("--json", action="store_true", help="print JSON")
        parser.add_argument(
            "--schema", action="store_true", help="print the JSON Schema of what is asked and told"
        )
        if self.why_help:
            parser.add_argument("--why", metavar="KEY", help=self.why_help)
        if self.seconds_help:
            parser.add_argument("--seconds", type=float, help=self.seconds_help)

    def answer_to(self, given: object, why: str, seconds: float | None) -> tuple[Told, str]:
        """The answer, and the same in words. Raises CoreError for what cannot be."""
        raise NotImplementedError

    def handle(self, *args: object, **options: Any) -> None:
        if options["schema"]:
            self.stdout.write(as_json(schema_of(self.asked, self.answered)))
            return
        if options["file"] is None:
            raise CommandError("Name a file, or - for standard input.")
        seconds = options.get("seconds")
        if seconds is not None and not 0 < seconds <= MOST_SECONDS:
            raise CommandError(f"--seconds: a number above zero, up to {MOST_SECONDS:g}.")
        why = asked_key(options["why"]) if options.get("why") else ""
        try:
            answer, words = self.answer_to(json_given(options["file"]), why, seconds)
        except CoreError as error:
            refuse(self, error, self._said(error), bool(options["json"]))
        self.stdout.write(as_json(answer.data()) if options["json"] else words)

    def _said(self, error: CoreError) -> str:
        named = not self.names_the_field or str(error).startswith(error.field)
        return str(error) if named else f"{error.field}: {error}"


def refuse(command: BaseCommand, error: CoreError, words: str, as_json: bool) -> NoReturn:
    """End with status 1: the field and the message as JSON, or in words."""
    if not as_json:
        raise CommandError(words) from None
    told = {"error": {"field": error.field, "message": str(error)}}
    command.stdout.write(json.dumps(told, ensure_ascii=False))
    sys.exit(1)
