"""Reckon a recipe from a file."""

import sys
from dataclasses import replace

from django.core.management.base import BaseCommand, CommandError, CommandParser

from nutrition.formats.recipe_files import read_recipe
from nutrition.formats.shared import known_measures
from nutrition.insight.derivation import as_data as derivation
from nutrition.insight.derivation import as_lines, of_recipe
from nutrition.recipe.model import UnreadableRecipe
from nutrition.recipe.reckoning import reckon
from nutrition.requests.recipe_answer import RecipeAnswer, as_text, report
from nutrition.requests.structure import answer_schema
from nutrition.written.units import SYSTEM_WORDS
from webkit.command_file import as_json, asked_key, read_given


class Command(BaseCommand):
    help = (
        "Reckon a recipe: a text file with an ingredient a line, or a schema.org Recipe in "
        "JSON. Exit status 1 when a line is unresolved."
    )
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", nargs="?", help="the recipe, or - for standard input")
        parser.add_argument("--servings", type=float, help="how many servings it makes")
        parser.add_argument("--batch-grams", type=float, help="what the cooked batch weighed")
        parser.add_argument("--measures", choices=list(SYSTEM_WORDS), help="whose cups and spoons")
        parser.add_argument("--json", action="store_true", help="print JSON")
        parser.add_argument(
            "--schema", action="store_true", help="print the JSON Schema of the answer"
        )
        parser.add_argument(
            "--why", metavar="KEY", help="with it, where one number of a serving comes from"
        )

    def handle(self, *args: object, **options: object) -> None:
        if options["schema"]:
            self.stdout.write(as_json(answer_schema(RecipeAnswer)))
            return
        if options["file"] is None:
            raise CommandError("Name a recipe, or - for standard input.")
        try:
            shared = read_recipe(read_given(str(options["file"])))
            recipe = shared.recipe
            if options["servings"] is not None:
                recipe = replace(recipe, servings=float(str(options["servings"])))
            if options["batch_grams"] is not None:
                recipe = replace(recipe, batch_g=float(str(options["batch_grams"])))
            measures = options["measures"] or known_measures(shared.measures) or "us"
            facts = reckon(replace(recipe, system=str(measures)))
        except (UnreadableRecipe, ValueError) as error:
            raise CommandError(str(error)) from None
        answer, why = report(facts), ""
        if options["why"]:
            derived = of_recipe(facts, asked_key(str(options["why"])))
            answer = answer.model_copy(update={"why": {derived.key: derivation(derived)}})
            why = as_lines(derived)
        if options["json"]:
            self.stdout.write(as_json(answer.data()))
        else:
            self.stdout.write(as_text(facts) + why)
        if facts.unresolved:
            sys.exit(1)
