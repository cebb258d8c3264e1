"""The pace of weight."""

from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.follow_up.trend import weekly_change

FOODS = food_table()


class Trend(TestCase):
    def test_a_straight_line_gives_its_slope(self):
        self.assertAlmostEqual(
            weekly_change([(day, 90 - 0.1 * day) for day in range(0, 28, 3)]), -0.7
        )
        self.assertIsNone(weekly_change([(0, 90), (7, 89)]))
        self.assertIsNone(weekly_change([(0, 90), (0, 89), (0, 91)]))
