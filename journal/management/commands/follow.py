"""How a person does who is followed, in a file."""

import json

from django.core.management.base import BaseCommand, CommandParser

from nutrition.formats.follow_file import as_text, report
from nutrition.targets.person import OutOfRange
from webkit.command_file import json_given, refuse


class Command(BaseCommand):
    help = (
        "Print how the weight stands and why, and what blood values mean, for a person in a JSON "
        'file: {"person": {... as for targets ...}, "weighed": [{"on": "2026-11-03", "kg": 101.4}, '
        '...], "days": [{"on": ..., "meals": [[line, ...], ...]}], "happened": [...], "blood": '
        "[...]}. Exit status 1 for impossible input."
    )
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", help="the record in JSON, or - for standard input")
        parser.add_argument("--json", action="store_true", help="print JSON")

    def handle(self, *args: object, **options: object) -> None:
        try:
            data = report(json_given(str(options["file"])))
        except OutOfRange as error:
            refuse(self, error, f"{error.field}: {error}", bool(options["json"]))
        self.stdout.write(
            json.dumps(data, indent=2, ensure_ascii=False) if options["json"] else as_text(data)
        )
