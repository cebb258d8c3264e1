"""Beans that are bought dry: what is soaked, what is cooked by itself first, how long."""

import unittest

from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.prep.soaking import (
    BEANS_KEEP,
    KIDNEY_BOIL_MIN,
    KIDNEY_SOAK_MIN,
    from_dry,
    soaks,
)


def of(*rows):
    return [Ingredient(food_table()[slug], grams) for slug, grams in rows]


class FromDry(unittest.TestCase):
    def test_beans_and_peas_are_soaked_lentils_and_what_is_split_are_not(self):
        for slug, soaked in (
            ("white-beans-dry", True),
            ("chickpeas-dry", True),
            ("adzuki-beans-dry", True),
            ("lupini-beans-dry", True),
            ("lentils-dry", False),
            ("split-peas-dry", False),
            ("split-mung-beans-dry", False),
            ("mung-beans-dry", False),
            ("soy-mince-dry", False),
            ("barley-hulled-dry", False),
            ("white-beans-canned-drained", False),
            ("tofu-firm", False),
        ):
            self.assertEqual(soaks(of((slug, 100.0))), soaked, slug)

    def test_cooked_beans_are_bought_dry_and_cooked_first(self):
        (found,) = from_dry(of(("white-beans-cooked", 200.0), ("white-beans-cooked", 100.0)))
        self.assertEqual(found.dry.slug, "white-beans-dry")
        self.assertEqual(found.cooked_g, 300.0)
        # dry beans give two to two and a half times their weight
        self.assertTrue(300.0 / 2.7 < found.dry_g < 300.0 / 1.9, found.dry_g)
        self.assertTrue(soaks(of(("white-beans-cooked", 200.0))))
        self.assertEqual((found.minutes, found.boiled_hard), ((60, 90), False))

    def test_what_goes_into_the_pot_dry_is_cooked_in_it(self):
        (found,) = from_dry(of(("adzuki-beans-dry", 150.0), ("carrots-raw", 90.0)))
        self.assertEqual((found.dry_g, found.cooked_g, found.soaked), (150.0, 0.0, True))
        # lentils that go in dry need no word
        self.assertEqual(from_dry(of(("red-lentils-dry", 150.0))), [])

    def test_lentils_are_quicker_and_kidney_beans_boil_hard_first(self):
        (found,) = from_dry(of(("lentils-cooked", 200.0)))
        self.assertEqual((found.minutes, found.soaked), ((20, 40), False))
        (found,) = from_dry(of(("kidney-beans-cooked", 200.0)))
        self.assertTrue(found.boiled_hard and found.soaked)
        self.assertEqual((KIDNEY_SOAK_MIN, KIDNEY_BOIL_MIN, BEANS_KEEP), (300, 30, 3))


if __name__ == "__main__":
    unittest.main()
