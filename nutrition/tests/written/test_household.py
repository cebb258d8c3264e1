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
            ("quinoa-dry", 170, "1 cup"),
            ("lemon-juice", 15, "1 tbsp"),
            ("salt", 1.5, "1/4 tsp"),
            ("carrots-raw", 61, "1 medium"),
            ("walnuts", 12, "3 pieces"),
            ("bay-leaf", 0.4, "2 leaves"),
            ("quinoa-cooked", 139, "3/4 cup"),
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
            ["1/4", "1 1/3", "2", "1", "3 2/3"],
        )

    def test_steps(self):
        self.assertEqual(step_g(FOODS["whole-wheat-bread"]), 32)
        self.assertAlmostEqual(step_g(FOODS["millet-cooked"]), 174 / 4)
        self.assertAlmostEqual(step_g(FOODS["tahini"]), 15)
