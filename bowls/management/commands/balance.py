"""Portions that meet targets, for a problem in a file."""

import json
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from nutrition.formats.problem_answer import as_text, solve
from nutrition.formats.problem_file import read_problem
from nutrition.formats.why import of_answer
from nutrition.portions.problem import BadProblem
from webkit.command_file import asked_key, json_given, read_given, refuse

MOST_SECONDS = 600.0


class Command(BaseCommand):
    help = (
        "Choose portions that meet targets, for parts and targets in a JSON file. Exit "
        "status 1 for a problem that cannot be posed."
    )
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", help="the problem in JSON, or - for standard input")
        parser.add_argument(
            "--seconds", type=float, help="how long it may look (0.13 for a bowl, 0.85 for a day)"
        )
        parser.add_argument("--json", action="store_true", help="print JSON")
        parser.add_argument(
            "--why", metavar="KEY", help="with JSON, where one number of it comes from"
        )

    def handle(self, *args: object, **options: object) -> None:
        try:
            problem = read_problem(json_given(str(options["file"])), read_given)
        except BadProblem as error:
            refuse(self, error, str(error), bool(options["json"]))
        seconds = options["seconds"]
        if seconds is not None and not 0 < float(str(seconds)) <= MOST_SECONDS:
            raise CommandError(f"--seconds: a number above zero, up to {MOST_SECONDS:g}.")
        data: dict[str, Any] = solve(problem, None if seconds is None else float(str(seconds)))
        if options["why"]:
            key = asked_key(str(options["why"]))
            data["why"] = {key: of_answer(problem, data["portions"], key)}
        self.stdout.write(
            json.dumps(data, indent=2, ensure_ascii=False)
            if options["json"]
            else as_text(problem, data)
        )
