"""Search the food table from a terminal."""

import json
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from nutrition.requests.derivations import of_row
from nutrition.written.finding import find_foods
from webkit.command_file import asked_key


class Command(BaseCommand):
    help = "Print the foods that match a query best."
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("query", nargs="+")
        parser.add_argument("--json", action="store_true", help="print JSON")
        parser.add_argument("--limit", type=int, default=10)
        parser.add_argument(
            "--why", metavar="KEY", help="with JSON, where one number of it comes from"
        )

    def handle(self, *args: object, **options: object) -> None:
        query = " ".join(options["query"])  # type: ignore[arg-type]
        foods = [
            match.food for match in find_foods(query, int(str(options["limit"])), comparators=True)
        ]
        why = asked_key(str(options["why"])) if options["why"] else ""
        rows: list[dict[str, Any]] = [
            {
                "slug": food.slug,
                "name": food.name,
                "state": food.state,
                "energy_kcal": food.per_100_g("energy_kcal"),
                "protein_g": food.per_100_g("protein_g"),
                "source": food.source,
            }
            for food in foods
        ]
        if why:
            for row, food in zip(rows, foods, strict=True):
                row["why"] = {why: of_row(food, why)}
        if options["json"]:
            self.stdout.write(json.dumps(rows, indent=2, ensure_ascii=False))
            return
        if not rows:
            self.stdout.write(f"No food found for “{query}”.")
        for row in rows:
            energy, protein = (
                ("unknown" if row[key] is None else f"{row[key]:.1f}")
                for key in ("energy_kcal", "protein_g")
            )
            self.stdout.write(
                f"{row['slug']:45} {row['name']:45} {row['state']:26} {energy:>8} kcal "
                f"{protein:>7} g protein per 100 g  {row['source']}"
            )
