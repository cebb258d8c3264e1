"""The names of conditions and medicines that `targets` understands."""

import json

from django.core.management.base import BaseCommand, CommandParser

from nutrition.targets.conditions import KIND_WORDS, conditions
from nutrition.targets.person import LIFE_STAGE_WORDS


class Command(BaseCommand):
    help = "Print the names of conditions, medicines, histories, texture limits and life stages."
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--json", action="store_true", help="print JSON")

    def handle(self, *args: object, **options: object) -> None:
        rows = [
            {"code": row.code, "name": row.name, "kind": row.kind} for row in conditions().values()
        ]
        rows += [
            {"code": code, "name": name, "kind": "life stage"}
            for code, name in LIFE_STAGE_WORDS.items()
        ]
        if options["json"]:
            self.stdout.write(json.dumps(rows, indent=2, ensure_ascii=False))
            return
        for kind in (*KIND_WORDS, "life stage"):
            self.stdout.write(f"{KIND_WORDS.get(kind, 'Life stage')}:")
            for row in rows:
                if row["kind"] == kind:
                    self.stdout.write(f"    {row['code']:26} {row['name']}")
