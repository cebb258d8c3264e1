"""Monsen and Balintfy, J Am Diet Assoc 80:307 (1982): share of non-heme iron taken up by enhancing
factors."""

from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.insight.indices import iron_taken_up, monsen_balintfy


class Uptake(TestCase):
    def test_at_500_mg_stores(self):
        for enhancing, percent in ((0, 3.0), (25, 4.99), (50, 6.62), (75, 8.0)):
            with self.subTest(enhancing):
                self.assertAlmostEqual(monsen_balintfy(enhancing), percent, delta=0.005)

    def test_nothing_is_added_over_75(self):
        self.assertEqual(monsen_balintfy(75), monsen_balintfy(400))

    def test_less_iron_in_store_takes_up_more(self):
        for enhancing in (0, 30, 75):
            found = [monsen_balintfy(enhancing, stores) for stores in (500, 250, 0)]
            self.assertEqual(found, sorted(found))
        self.assertEqual(monsen_balintfy(0, 0), 5.0)
        # 20 % at the top for empty stores, 12 % for 250 mg
        self.assertAlmostEqual(monsen_balintfy(75, 0), 20, delta=0.1)
        self.assertAlmostEqual(monsen_balintfy(75, 250), 12, delta=0.1)

    def test_limits(self):
        with self.assertRaises(ValueError):
            monsen_balintfy(-1)
        with self.assertRaises(KeyError):
            monsen_balintfy(10, 400)

    def test_lemon_on_lentils(self):
        foods = food_table()
        bare = foods["lentils-cooked"].profile(200)
        with_lemon = bare + foods["lemon-juice"].profile(60)
        self.assertGreater(iron_taken_up(with_lemon)[1], 1.3 * iron_taken_up(bare)[1])
