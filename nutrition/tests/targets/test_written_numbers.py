"""The numbers of conditions and blood values a second time, written out in the files beside:
whoever changes one changes both, and says so."""

import unittest
from pathlib import Path

from nutrition.targets.blood import analytes
from nutrition.targets.conditions import conditions
from nutrition.tests.written_out import rows_of

HERE = Path(__file__).parent
# From which year on, grams of protein per kilogram at a meal, and the most that this asks.
ELSE = {"over_65": (65, 0.4, 40)}


def said(value):
    return "" if value is None else f"{value:.6g}"


class WrittenNumbers(unittest.TestCase):
    def test_what_conditions_lay_over_targets(self):
        found = [
            [
                code,
                shift.key,
                shift.per,
                *map(said, (shift.low, shift.aim, shift.high)),
                str(shift.priority),
            ]
            for code, one in conditions().items()
            for shift in one.targets
        ]
        self.assertEqual(found, rows_of(HERE / "condition_numbers.tsv"))

    def test_what_else_conditions_say_in_numbers(self):
        found = {
            code: (one.from_years, one.meal_protein_g_per_kg, one.meal_protein_most_g)
            for code, one in conditions().items()
            if one.from_years or one.meal_protein_g_per_kg or one.meal_protein_most_g
        }
        self.assertEqual(found, ELSE)

    def test_what_blood_values_can_be_and_how_long_they_hold(self):
        found = [
            [
                key,
                one.unit,
                *map(said, (*one.possible, *one.usual)),
                str(one.holds_days),
                said(one.molar_g or None),
                " ".join(f"{unit}:{places}" for unit, places in one.decimals.items()),
            ]
            for key, one in analytes().items()
        ]
        self.assertEqual(found, rows_of(HERE / "blood_ranges.tsv"))
