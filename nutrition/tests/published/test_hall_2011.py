"""Hall et al., Lancet 378:826 (2011): the linearized rule against its own statement."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from nutrition.targets.weight_forecast import (
    days_to_change,
    dynamic_change,
    eventual_change,
    forecast,
    static_change,
)


class Linearized(TestCase):
    def test_24_kcal_a_day_are_a_kilogram_in_the_end_and_half_of_it_in_a_year(self):
        self.assertAlmostEqual(eventual_change(-240), -10)
        self.assertAlmostEqual(dynamic_change(-240, 365), -5)
        self.assertGreater(dynamic_change(240, 3 * 365) / 10, 0.85)

    @given(st.floats(-1000, 1000).filter(lambda kcal: abs(kcal) > 1), st.floats(1, 3000))
    def test_it_slows_down_and_never_passes_its_end(self, kcal, days):
        moved = dynamic_change(kcal, days)
        self.assertLessEqual(abs(moved), abs(eventual_change(kcal)))
        self.assertLessEqual(abs(dynamic_change(kcal, 2 * days)), 2 * abs(moved) + 1e-9)
        self.assertLess(abs(moved), abs(static_change(kcal, days)))

    @given(st.floats(-1000, -50), st.floats(0.05, 0.95))
    def test_days_to_a_change_lead_back_to_it(self, kcal, share):
        wanted = share * eventual_change(kcal)
        self.assertAlmostEqual(dynamic_change(kcal, days_to_change(kcal, wanted)), wanted, places=6)

    def test_what_is_never_reached_says_so(self):
        self.assertIsNone(days_to_change(-240, -10))
        self.assertIsNone(days_to_change(-240, 3))
        ahead = forecast(100, -240, 88)
        self.assertIsNone(ahead.dynamic_weeks)
        self.assertIn("never at this intake alone", ahead.words)
        self.assertAlmostEqual(ahead.static_weeks, 12 / (240 * 7 / 7700))
        self.assertIn("lighter body needs less", ahead.words)
