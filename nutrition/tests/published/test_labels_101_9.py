"""21 CFR 101.9(c): label rounding, against its own words and an independent implementation; package
arithmetic."""

import re
from unittest import TestCase

import round_nutrition
from hypothesis import given
from hypothesis import strategies as st

from nutrition.labels.rounding import KEYS_ON_LABELS, hidden_by, rounded

THEIRS = {
    "energy_kcal": round_nutrition.calories,
    "fat_g": round_nutrition.total_fat,
    "saturated_fat_g": round_nutrition.sat_fat,
    "sodium_mg": round_nutrition.sodium,
    "carbohydrate_g": round_nutrition.total_carb,
    "fiber_g": round_nutrition.dietary_fiber,
    "sugars_g": round_nutrition.total_sugars,
    "protein_g": round_nutrition.protein,
}


class Rounding(TestCase):
    def test_the_rule_in_its_own_words(self):
        for key, value, printed in (
            ("energy_kcal", 4.9, 0),
            ("energy_kcal", 47, 45),
            ("energy_kcal", 48, 50),
            ("energy_kcal", 126, 130),
            ("fat_g", 0.4, 0),
            ("fat_g", 2.3, 2.5),
            ("fat_g", 7.4, 7),
            ("sodium_mg", 4, 0),
            ("sodium_mg", 137, 135),
            ("sodium_mg", 138, 140),
            ("sodium_mg", 146, 150),
            ("protein_g", 0.4, 0),
            ("protein_g", 17.6, 18),
            ("fiber_g", 3.4, 3),
        ):
            with self.subTest(key, value=value):
                self.assertEqual(rounded(key, value), printed)

    @given(st.sampled_from(sorted(THEIRS)), st.floats(0, 900))
    def test_against_an_independent_implementation(self, key, value):
        theirs = THEIRS[key](value)
        printed = 1.0 if "less than" in theirs else float(re.match(r"[\d.]+", theirs)[0])
        self.assertAlmostEqual(rounded(key, value), printed)

    @given(st.sampled_from(KEYS_ON_LABELS), st.floats(0, 900))
    def test_what_is_printed_hides_what_was_there(self, key, value):
        behind = hidden_by(key, rounded(key, value))
        self.assertTrue(behind.low - 1e-6 <= value <= behind.high + 1e-6, (value, behind))


class Packages(TestCase):
    def test_two_and_a_half_servings(self):
        """common practice, no source"""
        whole, half = (hidden_by("protein_g", 18).times(2.5 * share) for share in (1, 0.5))
        self.assertEqual((whole.amount, half.amount), (45, 22.5))
        self.assertEqual((whole.low, whole.high), (43.75, 46.25))
