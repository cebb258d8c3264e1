"""Both sides of the numbers that the gate and the cautions go by, written out."""

import unittest

from nutrition.composition.food_mosts import most_of
from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.safety.contributions import brought_by, named_for
from nutrition.safety.evidence import because_of
from nutrition.safety.gate import OPEN, STOP, Bar, Gate

TABLE = food_table()
STOPPED = (Bar(STOP, "too much", "much", True),)


class Names(unittest.TestCase):
    def test_what_brings_three_twentieths_is_named(self):
        foods = [Ingredient(TABLE[slug], 100.0) for slug in ("kale-raw", "walnuts", "tahini")]
        named = named_for(foods, [85.1, 14.9, 0.0])
        self.assertEqual(named, [TABLE["kale-raw"].name])
        named = named_for(foods, [84.9, 15.1, 0.0])
        self.assertEqual(named, [TABLE["kale-raw"].name, TABLE["walnuts"].name])
        self.assertEqual(named_for(foods, [85.0, 15.0, 0.0])[1], TABLE["walnuts"].name)
        self.assertEqual(named_for(foods, [0.0, 0.0, 0.0]), [])

    def test_what_a_food_brings(self):
        kale = Ingredient(TABLE["kale-raw"], 50.0)
        per_100 = TABLE["kale-raw"].per_100_g("potassium_mg")
        self.assertAlmostEqual(brought_by(kale, "potassium_mg"), per_100 / 2)

    def test_figures_under_a_hundred_have_three_digits(self):
        for value, said in ((99.94, "99.9"), (100.0, "100"), (1234.5, "1,234"), (0.1234, "0.123")):
            (found,) = because_of(["day_sodium_mg"], [], {"day_sodium_mg": value})
            self.assertIn(f" {said} ", f"{found} ")


class OwnMosts(unittest.TestCase):
    def test_no_more_than_a_foods_own_most(self):
        for food in TABLE:
            own = most_of(food)
            if own is None or food.comparator:
                continue
            with self.subTest(food.slug):
                if own.most_g <= 0:
                    self.assertIn(own.why, OPEN.why_not(food))
                    self.assertIn(own.why, OPEN.why_not(food, 0.0))
                else:
                    self.assertNotIn(own.why, OPEN.why_not(food, own.most_g))
                    self.assertIn(own.why, OPEN.why_not(food, own.most_g + 0.1))

    def test_a_dish_with_less_than_itself_of_what_may_be_served_is_none(self):
        dry = [Ingredient(TABLE["lupini-dry"], 100.0)] if "lupini-dry" in TABLE else []
        self.assertEqual(OPEN.why_not_dish([Ingredient(TABLE["kale-raw"], 100.0)]), "")
        for one in dry:
            self.assertNotEqual(OPEN.why_not_dish([one]), "")


class Cut(unittest.TestCase):
    def limit_at(self, most, grams):
        """A gate that stops at more than so many grams of kale, and lets less pass."""

        class Stopping(Gate):
            def bars(self, foods):
                return STOPPED if sum(one.grams for one in foods) > most else ()

        gate = Stopping()
        return gate.limit([Ingredient(TABLE["kale-raw"], grams)], grams).most

    def test_what_is_too_much_is_cut_to_what_a_kitchen_scale_shows(self):
        """To steps of five grams, from ten grams on; to within a part in a thousand."""
        for most, cut in ((83.0, 80.0), (85.2, 85.0), (10.2, 10.0), (12.0, 10.0), (64.9, 60.0)):
            self.assertEqual(self.limit_at(most, 100.0), cut, most)
        self.assertAlmostEqual(self.limit_at(9.4, 100.0), 9.375, places=3)
        self.assertAlmostEqual(self.limit_at(3.01, 1000.0), 2.93, places=2)
