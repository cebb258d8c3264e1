"""Kitchen units against Pint's own definitions, and facts of the trade (common practice, no
source)."""

from unittest import TestCase

from pint import UnitRegistry

from nutrition.written.matching import reckon_line
from nutrition.written.units import VOLUME_NAMES, WEIGHT_NAMES, grams, milliliters


class KitchenUnits(TestCase):
    def test_against_pint(self):
        registry = UnitRegistry()
        for unit, name in (
            ("cup", "cup"),
            ("tbsp", "tablespoon"),
            ("tsp", "teaspoon"),
            ("fl oz", "fluid_ounce"),
            ("quart", "quart"),
        ):
            self.assertAlmostEqual(milliliters(unit), registry(name).to("milliliter").magnitude)
        self.assertAlmostEqual(grams("oz"), 28.349523125)
        self.assertAlmostEqual(grams("lb"), 453.59237)

    def test_every_unit_is_one_or_the_other(self):
        for unit in (*VOLUME_NAMES, *WEIGHT_NAMES):
            self.assertNotEqual(milliliters(unit) is None, grams(unit) is None)

    def test_three_tablespoons_and_a_teaspoon_are_ten_teaspoons(self):
        """common practice, no source"""
        self.assertAlmostEqual(
            reckon_line("3 tbsp plus 1 tsp water").grams, reckon_line("10 tsp water").grams
        )

    def test_other_peoples_cups_and_spoons(self):
        registry = UnitRegistry()
        for unit, name in (
            ("cup", "imperial_cup"),
            ("pint", "imperial_pint"),
            ("fl oz", "imperial_fluid_ounce"),
        ):
            self.assertAlmostEqual(
                milliliters(unit, "imperial"), registry(name).to("milliliter").magnitude
            )
        self.assertEqual(
            [milliliters("tbsp", system) for system in ("metric", "australian")], [15, 20]
        )
        us, australian = (
            reckon_line("2 tbsp tahini", system=system).grams for system in ("us", "australian")
        )
        self.assertAlmostEqual(australian / us, 20 / milliliters("tbsp"))
        self.assertEqual(reckon_line("100 g tahini", system="imperial").grams, 100)
        self.assertEqual(milliliters("l", "australian"), 1000)
