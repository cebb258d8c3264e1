"""Household measures, as they are said."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from nutrition.composition.foods import food_table
from nutrition.written.household import by_volume, fraction, spoken, step_g

FOODS = food_table()


class Household(TestCase):
    def test_measures_a_person_can_use(self):
        for slug, grams, words in (
            ("quinoa-dry", 170, "1\xa0cup"),
            ("lemon-juice", 15, "1\xa0tbsp"),
            ("salt", 1.5, "¼\xa0tsp"),
            ("carrots-raw", 61, "1\xa0medium"),
            ("walnuts", 12, "3\xa0pieces"),
            ("bay-leaf", 0.4, "2\xa0leaves"),
            ("quinoa-cooked", 139, "¾\xa0cup"),
        ):
            with self.subTest(slug):
                self.assertEqual(spoken(FOODS[slug], grams).words, words)

    @given(st.floats(0.5, 4000), st.floats(0.3, 8))
    def test_the_words_stand_for_nearly_those_grams(self, volume, weight_of_ml):
        said = by_volume(volume, volume * weight_of_ml / 4)
        if said and volume > 4:
            self.assertAlmostEqual(
                said.grams, volume * weight_of_ml / 4, delta=0.34 * volume * weight_of_ml / 4
            )

    def test_fractions(self):
        self.assertEqual(
            [fraction(value)[1] for value in (0.26, 1.34, 2.0, 0.97, 3.6)],
            ["¼", "1⅓", "2", "1", "3⅔"],
        )

    def test_steps(self):
        self.assertEqual(step_g(FOODS["whole-wheat-bread"]), 32)
        self.assertAlmostEqual(step_g(FOODS["millet-cooked"]), 174 / 4)
        self.assertAlmostEqual(step_g(FOODS["tahini"]), 15)
