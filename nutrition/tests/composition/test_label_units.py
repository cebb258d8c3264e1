"""Units that labels are printed in."""

import unittest

from nutrition.composition.label_units import KJ_PER_KCAL, SALT_PER_SODIUM
from nutrition.composition.nutrients import NUTRIENT


class LabelUnits(unittest.TestCase):
    def test_energy_and_salt(self):
        self.assertAlmostEqual(418.4 / KJ_PER_KCAL, 100.0)
        self.assertAlmostEqual(2.5 / SALT_PER_SODIUM, 1.0)

    def test_an_amount_is_said_with_its_unit_and_decimals(self):
        self.assertEqual(NUTRIENT["sodium_mg"].said(1234.5678), "1,235 mg")
        self.assertEqual(NUTRIENT["iron_mg"].said(8.04), "8.0 mg")
