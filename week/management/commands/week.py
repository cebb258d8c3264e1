"""A week of dishes for a person in a file."""

import json

from django.core.management.base import BaseCommand, CommandError, CommandParser

from nutrition.formats.week_answer import as_text, solve
from nutrition.formats.week_file import read_week
from nutrition.planning.week import BadWeek
from webkit.command_file import json_given, read_given, refuse

MOST_SECONDS = 600.0


class Command(BaseCommand):
    help = (
        "Plan a week: what stands in each slot of each day, and what is cooked when, for a person "
        "and dishes in a JSON file. Exit status 1 for a week that cannot be posed."
    )
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", help="the week in JSON, or - for standard input")
        parser.add_argument("--seconds", type=float, help="how long it may look (usually about 4)")
        parser.add_argument("--json", action="store_true", help="print JSON")

    def handle(self, *args: object, **options: object) -> None:
        seconds = None if options["seconds"] is None else float(str(options["seconds"]))
        if seconds is not None and not 0 < seconds <= MOST_SECONDS:
            raise CommandError(f"--seconds: a number above zero, up to {MOST_SECONDS:g}.")
        try:
            asked = read_week(json_given(str(options["file"])), read_given)
        except BadWeek as error:
            refuse(self, error, str(error), bool(options["json"]))
        data = solve(asked, seconds)
        self.stdout.write(
            json.dumps(data, indent=2, ensure_ascii=False)
            if options["json"]
            else as_text(asked, data)
        )
