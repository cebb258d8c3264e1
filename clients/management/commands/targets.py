"""A day's targets for a person in a file."""

import json

from django.core.management.base import BaseCommand, CommandError, CommandParser

from nutrition.formats.day_file import as_text, read_asked, report
from nutrition.formats.why import of_target
from nutrition.targets.person import OutOfRange
from webkit.command_file import asked_key, json_given, refuse


class Command(BaseCommand):
    help = (
        "Print a day's targets, meals, disagreements and cautions for a person in a JSON "
        "file. Exit status 1 for impossible input."
    )
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", help="the person in JSON, or - for standard input")
        parser.add_argument("--json", action="store_true", help="print JSON")
        parser.add_argument(
            "--why", metavar="KEY", help="with JSON, where one number of it comes from"
        )

    def handle(self, *args: object, **options: object) -> None:
        try:
            asked = read_asked(json_given(str(options["file"])))
            data = report(asked)
        except OutOfRange as error:
            refuse(self, error, f"{error.field}: {error}", bool(options["json"]))
        if options["why"]:
            key = asked_key(str(options["why"]))
            try:
                data["why"] = {key: of_target(data, key)}
            except KeyError:
                raise CommandError(f"--why {key}: this day has no such target.") from None
        if asked.ignored:
            self.stderr.write(f"Not understood, and left out: {', '.join(asked.ignored)}.")
        self.stdout.write(
            json.dumps(data, indent=2, ensure_ascii=False) if options["json"] else as_text(data)
        )
