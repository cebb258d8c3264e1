"""What is to be warned of for a person and what they eat, in a file."""

import json

from django.core.management.base import BaseCommand, CommandParser

from nutrition.formats.caution_file import as_text, report
from nutrition.targets.person import OutOfRange
from webkit.command_file import json_given, refuse


class Command(BaseCommand):
    help = (
        "Print what is to be warned of for a person and their meals in a JSON file: "
        '{"person": {... as for targets ...}, "meals": [["1 cup cooked rice", ...], ...]}. '
        "Exit status 1 for impossible input."
    )
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", help="the person and meals in JSON, or - for standard input")
        parser.add_argument("--json", action="store_true", help="print JSON")

    def handle(self, *args: object, **options: object) -> None:
        try:
            data = report(json_given(str(options["file"])))
        except OutOfRange as error:
            refuse(self, error, f"{error.field}: {error}", bool(options["json"]))
        self.stdout.write(
            json.dumps(data, indent=2, ensure_ascii=False) if options["json"] else as_text(data)
        )
