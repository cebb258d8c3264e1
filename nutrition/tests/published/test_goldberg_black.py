"""Goldberg's cut-off for energy that was written down.

Goldberg et al., Eur J Clin Nutr 45:569 (1991): cut-off 2 for one person at PAL 1.55, 0.90 for one
day and 1.10 for seven. Black, Int J Obes 24:1119 (2000), with its own coefficients: 1.05 to 2.28
for seven days. The figures are from memory."""

from unittest import TestCase

from nutrition.follow_up.reported_energy import goldberg_cut_off, implied_intake, reported
from nutrition.follow_up.trend import Pace
from nutrition.targets.person import Person


class CutOff(TestCase):
    def test_black_2000(self):
        low, high = goldberg_cut_off(1.55, 7)
        self.assertAlmostEqual(low, 1.05, places=2)
        self.assertAlmostEqual(high, 2.28, places=2)

    def test_goldberg_1991(self):
        for days, least in ((1, 0.90), (7, 1.10)):
            low, _high = goldberg_cut_off(1.55, days, cv_resting=8.0, cv_activity=12.5)
            self.assertAlmostEqual(low, least, places=2)

    def test_more_days_are_stricter(self):
        lows = [goldberg_cut_off(1.55, days)[0] for days in (1, 3, 7, 14, 28)]
        self.assertEqual(lows, sorted(lows))
        with self.assertRaises(ValueError):
            goldberg_cut_off(1.55, 0)


class Reported(TestCase):
    person = Person(sex="male", age_years=30, height_cm=175, weight_kg=70, activity="active")

    def test_the_arithmetic(self):
        """Resting energy of this man is 1648.75 kcal (Mifflin 1990)."""
        steady = Pace(0.0, -0.1, 0.1, 28)
        found = reported(self.person, 1500.0, 7, steady)
        self.assertAlmostEqual(found.ratio, 1500 / 1648.75)
        self.assertTrue(found.far_under)
        self.assertIn("0.91", found.words)
        self.assertIn("1.05", found.words)
        self.assertFalse(reported(self.person, 2500.0, 7, steady).far_under)

    def test_who_loses_may_eat_so_little(self):
        """A kilogram a week is 1100 kcal a day by the rule of 7700."""
        losing = Pace(-1.0, -1.1, -0.9, 28)
        implied = implied_intake(self.person, losing)
        self.assertAlmostEqual(implied.need - implied.kcal, 1100.0)
        self.assertFalse(reported(self.person, implied.kcal, 7, losing).far_under)

    def test_not_judged(self):
        steady = Pace(0.0, -0.1, 0.1, 28)
        self.assertIsNone(reported(self.person, 1500.0, 2, steady))
        self.assertIsNone(reported(self.person, 0.0, 7, steady))
        nursing = Person(
            sex="female", age_years=30, height_cm=170, weight_kg=70, life_stage="lactating_0_6"
        )
        self.assertIsNone(reported(nursing, 1200.0, 7, steady))
