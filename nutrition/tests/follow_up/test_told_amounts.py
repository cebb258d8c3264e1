"""How far amounts that were told may be off, and what is asked of a day that is remembered."""

from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.follow_up import told_amounts
from nutrition.follow_up.attention import CHANGE_DAYS, SIGN_DAYS
from nutrition.follow_up.levers import usual_fillers
from nutrition.follow_up.recall import FORGOTTEN, PASSES
from nutrition.targets.meals import meal_at


class Told(TestCase):
    def test_how_far_each_may_be_off(self):
        self.assertEqual(told_amounts.AS_PLANNED, (0.9, 1.1))
        self.assertEqual(told_amounts.BY_EYE, (0.8, 1.2))
        self.assertEqual(told_amounts.AS_SERVED, (0.9, 1.1))
        self.assertEqual(told_amounts.NAMED, (0.8, 1.2))
        self.assertEqual(told_amounts.SAME_AS_PLANNED, (0.95, 1.05))
        self.assertEqual((CHANGE_DAYS, SIGN_DAYS), (21, 2))

    def test_the_five_passes_in_their_order(self):
        self.assertEqual(
            [key for key, _name, _ask in PASSES], ["list", "forgotten", "time", "detail", "last"]
        )
        for often in ("coffee", "oil", "night", "tastes while cooking"):
            self.assertTrue(any(often in one for one in FORGOTTEN), often)

    def test_which_meal_an_hour_is_of(self):
        for hour, meal in (
            (0, "breakfast"),
            (10, "breakfast"),
            (11, "lunch"),
            (16, "lunch"),
            (17, "dinner"),
            (23, "dinner"),
        ):
            with self.subTest(hour=hour):
                self.assertEqual(meal_at(hour), meal)

    def test_what_may_be_added_is_in_the_table_and_light_or_lean(self):
        greens, lean = usual_fillers()
        self.assertEqual((greens.step, greens.most), (30.0, 90.0))
        self.assertEqual((lean.step, lean.most), (45.0, 135.0))
        self.assertEqual([len(greens.foods), len(lean.foods)], [4, 3])
        for food in greens.foods:
            self.assertLess(food.per_100_g("energy_kcal"), 60)
        for food in lean.foods:
            self.assertGreater(food.per_100_g("protein_g"), 6)
            self.assertIn(food.slug, {one.slug for one in food_table()})
