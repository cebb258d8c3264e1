"""Ten foods of the table against their own rows in the government composition data.

source_rows.csv holds the ten rows as the source prints them (values per 100 g, its own column
names).
"""

import csv
from pathlib import Path
from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.composition.profile import INDEX

ROWS = Path(__file__).with_name("source_rows.csv")
COLUMNS = {
    "Energy": "energy_kcal",
    "Protein": "protein_g",
    "Total fat": "fat_g",
    "Carbohydrate": "carbohydrate_g",
    "Fiber": "fiber_g",
    "Calcium": "calcium_mg",
    "Iron": "iron_mg",
    "Magnesium": "magnesium_mg",
    "Phosphorus": "phosphorus_mg",
    "Potassium": "potassium_mg",
    "Sodium": "sodium_mg",
    "Zinc": "zinc_mg",
    "Vitamin C": "vitamin_c_mg",
    "Folate, total": "folate_ug",
    "Vitamin K1": "vitamin_k_ug",
}


class SourceRows(TestCase):
    def test_ten_foods_value_by_value(self):
        with ROWS.open(newline="", encoding="utf-8") as file:
            rows = list(csv.DictReader(file))
        self.assertEqual(len(rows), 10)
        for row in rows:
            food = food_table()[row["slug"]]
            self.assertEqual(food.source_description, row["foodName"])
            for column, key in COLUMNS.items():
                with self.subTest(f"{food.slug} {key}"):
                    if row[column] == "" and f"{key.rsplit('_', 1)[0]}" in food.notes:
                        # filled from memory, or from another state: the notes say so
                        at = INDEX[key]
                        self.assertLess(food.low[at], food.high[at])
                    elif row[column] == "":
                        self.assertIsNone(
                            food.per_100_g(key), "absent in the source, so absent here"
                        )
                    else:
                        # the table keeps four significant digits
                        self.assertAlmostEqual(
                            food.per_100_g(key),
                            float(row[column]),
                            delta=0.0006 * float(row[column]),
                        )
