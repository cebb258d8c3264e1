"""Tables refuse what nothing reads: a misspelt word would be a rule that never fires."""

import shutil
import tempfile
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

from nutrition.composition import animal_foods, food_classes, food_mosts, tables
from nutrition.composition.tables import DATA, BadTable, csv_rows
from nutrition.formats.every_table import read_every_table
from nutrition.insight.whole_food import whole_food
from nutrition.recipe import kitchen_notes
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon
from nutrition.safety import cautions
from nutrition.targets import schools
from nutrition.targets.adjustments import BadRow
from nutrition.targets.conditions import conditions
from nutrition.written.matching import reckon_line

# table, what is written, what it becomes, who reads it
MISSPELT = (
    ("cautions.toml", "any_condition =", "any_conditoin =", cautions.rules),
    ("cautions.toml", 'any_condition = ["', 'any_condition = ["no_such_', cautions.rules),
    ("cautions.toml", "level =", "level_of =", cautions.rules),
    ("conditions.toml", "watched =", "wached =", conditions),
    ("conditions.toml", 'without = ["', 'without = ["no_such_', conditions),
    ("conditions.toml", "replaces = true", "replace = true", conditions),
    ("schools.toml", 'stance = "avoid"', 'stanse = "avoid"', schools.schools),
    ("schools.toml", "starch_order", "starch_orders", schools.schools),
    ("food_classes.toml", "slugs =", "slug =", food_classes.food_classes),
    ("food_mosts.toml", "most_g =", "most =", food_mosts.food_mosts),
    ("kitchen_notes.toml", "before =", "after =", kitchen_notes.senses),
    ("animal_foods.toml", "instead =", "insted =", animal_foods.animal_foods),
)


class Tables(TestCase):
    def test_all_are_read(self):
        read_every_table()

    def test_a_misspelt_key_is_refused(self):
        for name, was, now, read in MISSPELT:
            with self.subTest(table=name, now=now), tempfile.TemporaryDirectory() as folder:
                shutil.copytree(DATA, folder, dirs_exist_ok=True)
                path = Path(folder) / name
                text = path.read_text(encoding="utf-8")
                at = text.index(was, text.index("\n[") if "\n[" in text else 0)
                path.write_text(text[:at] + now + text[at + len(was) :], encoding="utf-8")
                moved = Path(folder)
                schools.school_data.cache_clear()
                with (
                    patch.object(tables, "DATA", moved),
                    patch.object(schools, "DATA", moved),
                    self.assertRaises((BadTable, BadRow)),
                ):
                    read.__wrapped__()
        schools.school_data.cache_clear()

    def test_a_column_that_nothing_reads_is_refused(self):
        with self.assertRaisesRegex(BadTable, "nothing reads kind, means"):
            list(csv_rows("aliases.csv", ("alias",)))
        with self.assertRaisesRegex(BadTable, "lacks other"):
            list(csv_rows("aliases.csv", ("alias", "means", "kind", "other")))


class AnimalFoods(TestCase):
    def test_one_list_for_a_line_and_for_the_whole_food_view(self):
        for line in ("200 g cod fillet", "1 duck leg", "2 eggs", "3 anchovies", "100 g ham"):
            with self.subTest(line):
                self.assertTrue(reckon_line(line).animal)
                facts = reckon(Recipe((line, "100 g kale")))
                self.assertEqual(facts.unresolved[0].text, line)
                found = next(row for row in whole_food(facts) if row.heading == "Animal products")
                self.assertEqual([part.text for part in found.parts], [line])

    def test_plants_that_sound_alike(self):
        for line in ("1 cup butter beans", "100 g oyster mushrooms", "2 tbsp almond butter"):
            with self.subTest(line):
                self.assertEqual(reckon_line(line).animal, "")
