"""Six dishes worked by hand from published values: US government composition data, from memory,
with the weights of household measures beside them. What is shown holds them in its range."""

import csv
from pathlib import Path
from unittest import TestCase

from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon

KEYS = (
    *("energy_kcal", "protein_g", "fiber_g", "potassium_mg"),
    *("phosphorus_mg", "iron_mg", "calcium_mg", "magnesium_mg"),
)
# Of 48 values so many lie inside; a range is that narrow besides.
INSIDE, WIDEST_ENERGY, WIDEST_PROTEIN = 45, 0.25, 0.30


class HandWorked(TestCase):
    def test_what_is_shown_holds_what_was_worked_by_hand(self):
        dishes = {}
        with (Path(__file__).parent / "hand_worked.csv").open(newline="", encoding="utf-8") as file:
            for row in csv.DictReader(file):
                dishes.setdefault(row["dish"], []).append(row)
        inside, outside, widths = 0, [], {key: [] for key in KEYS}
        for name, rows in dishes.items():
            batch = reckon(Recipe(tuple(row["line"] for row in rows), servings=1)).batch
            for key in KEYS:
                by_hand = sum(float(row[key]) * float(row["grams"]) / 100 for row in rows)
                shown = batch[key]
                widths[key].append((shown.high - shown.low) / shown.amount)
                if shown.low <= by_hand <= shown.high:
                    inside += 1
                else:
                    outside.append(f"{name} {key}: {by_hand:.1f}, {shown.low:.1f}-{shown.high:.1f}")
        self.assertGreaterEqual(inside, INSIDE, outside)
        for key, most in (("energy_kcal", WIDEST_ENERGY), ("protein_g", WIDEST_PROTEIN)):
            self.assertLess(sorted(widths[key])[len(widths[key]) // 2], most, key)
