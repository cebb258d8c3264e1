"""The law of every reader: each line is kept whole, or refused by its number. Two thousand files
that nobody wrote: packages, recipes as text and as CSV, and what somebody says they ate."""

import csv
import io
import random
import re
from unittest import TestCase

from nutrition.follow_up.kitchen_line import pieces
from nutrition.formats.csv_cells import SafeWriter
from nutrition.formats.label_csv import UnreadableLabels, read_labels
from nutrition.formats.recipe_csv import read_csv, to_csv
from nutrition.formats.recipe_text import read_text, to_text
from nutrition.formats.shared import Shared
from nutrition.recipe.model import Recipe

NAMES = (
    "Barley crisp",
    "Split mung flakes",
    "=Sum of grains",
    "+plus seeds",
    "-dash of dill",
    "@ the harbor",
    'The "round" loaf',
    "Lupini, salted",
    "Fennel; dried",
    "Caf\u00e9 loaf",
)
FOODS = ("millet", "kohlrabi", "adzuki beans", "celeriac", "sunflower seeds", "freekeh", "dill")
AMOUNTS = (
    "1 cup",
    "2 tbsp",
    "80 g",
    "\u00bd cup",
    "1 1/2 cups",
    "3 medium",
    "a pinch of",
    "1,5 dl",
)
TAILS = ("", ", chopped", ", rinsed (canned)", " = as it is", ' "the good one"', "; see below")


class Labels(TestCase):
    def test_each_row_is_kept_whole_or_refused_by_its_line(self):
        chance, rows, refused = random.Random(901), 0, 0
        for number in range(800):
            out = io.StringIO()
            writer = csv.writer(out, delimiter=chance.choice(",;\t"))
            writer.writerow(("name", "serving_size", "energy_kcal", "protein_g", "ingredients"))
            truth, spoilt = [], False
            for _row in range(chance.randint(1, 6)):
                cells = [
                    chance.choice(NAMES),
                    f"{chance.randint(10, 240)} g",
                    str(chance.randint(5, 900)),
                    chance.choice(("4", "4.5", "< 1", "")),
                    chance.choice(("", "barley, salt", "oats;\nsalt", "x" * 300)),
                ]
                if chance.random() < 0.03:
                    cells.append("one too many")
                    spoilt = True
                truth.append(cells)
                writer.writerow(cells)
            try:
                given = read_labels(out.getvalue())
            except UnreadableLabels as error:
                self.assertTrue(spoilt, f"file {number}: {error}")
                self.assertRegex(str(error), r"line \d+")
                refused += 1
                continue
            self.assertFalse(spoilt, f"file {number} has a cell that no column names")
            got = [
                (
                    one.label.name,
                    one.label.serving_size,
                    one.label.printed["energy_kcal"],
                    one.label.printed.get("protein_g", ""),
                    " ".join(one.label.ingredients.split()),
                )
                for one in given
            ]
            wanted = [(*cells[:4], " ".join(cells[4].split())) for cells in truth]
            self.assertEqual(got, wanted, f"file {number}")
            rows += len(given)
        self.assertGreater(rows, 1800)
        self.assertGreater(refused, 20)


class Recipes(TestCase):
    def made(self, chance):
        lines = tuple(
            f"{chance.choice(AMOUNTS)} {chance.choice(FOODS)}{chance.choice(TAILS)}"
            for _line in range(chance.randint(1, 12))
        )
        title = chance.choice(NAMES)
        return Shared(
            recipe=Recipe(
                lines, title=title, servings=float(chance.randint(1, 12)), method="boiled"
            ),
            role="dish",
            instructions="Boil it.\nLet it stand.",
        )

    def test_what_goes_out_comes_back_line_by_line(self):
        chance = random.Random(902)
        for number in range(700):
            shared = self.made(chance)
            for write, read in ((to_text, read_text), (to_csv, read_csv)):
                back = read(write(shared))
                self.assertEqual(back.recipe.lines, shared.recipe.lines, f"recipe {number}")
                self.assertEqual(back.recipe.title, shared.recipe.title, f"recipe {number}")
                self.assertEqual(back.instructions, shared.instructions, f"recipe {number}")


class Cells(TestCase):
    def test_no_cell_begins_what_a_spreadsheet_would_reckon(self):
        for name in NAMES:
            out = io.StringIO()
            SafeWriter(out).writerow((name,))
            (cell,) = next(csv.reader(io.StringIO(out.getvalue())))
            with self.subTest(name):
                self.assertNotIn(cell[0], "=+-@\t")


class Said(TestCase):
    def test_every_food_that_is_said_is_heard(self):
        chance = random.Random(903)
        for number in range(500):
            foods = [chance.choice(FOODS) for _food in range(chance.randint(1, 40))]
            text = chance.choice((", ", "; ", "\n")).join(
                f"{chance.choice(AMOUNTS[:6])} {food}" for food in foods
            )
            heard = " ".join(piece.text for piece in pieces(text))
            counted = {food: len(re.findall(food, heard)) for food in FOODS}
            self.assertEqual(
                counted, {food: foods.count(food) for food in FOODS}, f"line {number}: {text}"
            )
