"""Both sides of the numbers that the smallest change and what was eaten go by, written out."""

import unittest
from datetime import date, timedelta
from unittest.mock import patch

from nutrition.composition.amounts import amount_of
from nutrition.composition.foods import food_table
from nutrition.composition.portion import Dish, food_portion
from nutrition.follow_up import levers as change
from nutrition.follow_up.intake import Bite, Grew, LoggedDay, average, grown, parted
from nutrition.follow_up.kitchen_line import pieces
from nutrition.follow_up.levers import AT_MOST, LESS, MORE, Edit, Lever, Usual, usual_fillers
from nutrition.targets.aim import Aim

FOODS = food_table()
MONDAY = date(2026, 11, 2)


def day(at, *rows, planned=(), whole=True):
    bites = [
        Bite(meal, food_portion(FOODS[slug], grams, grams, grams)) for slug, grams, meal in rows
    ]
    plan = [Bite(meal, food_portion(FOODS[slug], grams)) for slug, grams, meal in planned]
    on = MONDAY + timedelta(days=at)
    return LoggedDay(on=on, whole=whole, eaten=tuple(bites), planned=tuple(plan))


def lever(kcal=100.0, gap=100.0, worse=None, of=10):
    return change._lever("k", "w", [kcal] * of, worse or {}, of, gap)


class Judged(unittest.TestCase):
    def test_four_fifths_of_the_gap_are_enough(self):
        self.assertTrue(lever(80.0).enough)
        self.assertFalse(lever(79.9).enough)

    def test_worse_on_more_than_a_third_of_the_days_is_a_cost(self):
        self.assertFalse(lever(worse={"fiber_g": 34}, of=100).costs)
        self.assertTrue(lever(worse={"fiber_g": 35}, of=100).costs)
        self.assertIsInstance(lever(), Lever)

    def test_a_twentieth_of_an_aim_is_no_worse(self):
        aim = Aim(key="protein_g", low=20.0, aim=20.0, high=None)
        have = food_portion(FOODS["tofu-firm"], 100.0).profile
        protein = amount_of(have, "protein_g").amount
        at = Aim(key="protein_g", low=protein, aim=protein, high=None)
        for share, worse in ((0.045, False), (0.055, True)):
            gone = have * -share
            self.assertEqual(bool(change._made_worse(have, gone, [at])), worse)
        self.assertEqual(change._made_worse(have, have * 0.0, [aim]), [])

    def test_never_less_than_a_quarter_of_a_food(self):
        self.assertEqual(Edit("walnuts", LESS, 90.0).of(100.0), 25.0)
        self.assertEqual(Edit("walnuts", LESS, 70.0).of(100.0), 30.0)
        self.assertEqual(Edit("walnuts", AT_MOST, 30.0).of(100.0), 30.0)
        self.assertEqual(Edit("walnuts", AT_MOST, 30.0).of(20.0), 20.0)

    def test_what_may_be_added_and_how_much(self):
        light, lean = usual_fillers()
        self.assertEqual((light.foods[0].slug, light.step, light.most), ROMAINE)
        self.assertEqual((lean.foods[0].slug, lean.step, lean.most), BEANS)
        kale = FOODS["kale-raw"]
        self.assertEqual(change._more([(kale, 30.0)]), [Edit("kale-raw", MORE, 30.0)])
        self.assertEqual(change._more([(kale, 0.0)]), [])


ROMAINE = ("romaine-lettuce-raw", 30.0, 90.0)
BEANS = ("white-beans-cooked", 45.0, 135.0)


class Looked(unittest.TestCase):
    def test_a_habit_is_on_a_quarter_of_the_days(self):
        for count, habit in ((2, True), (1, False)):
            rows = [
                day(at, ("walnuts", 30.0, "lunch"), ("potato-boiled", 300.0, "lunch"))
                if at < count
                else day(at, ("potato-boiled", 300.0, "lunch"))
                for at in range(7)
            ]
            self.assertEqual("Walnuts" in change._dense(rows, ()), habit)

    def test_seven_days_five_foods_three_told(self):
        dense = ("walnuts", "tahini", "almonds", "pumpkin-seeds", "sunflower-seeds", "cashews-raw")
        dense = [slug for slug in dense if slug in FOODS]
        rows = [day(at, *((slug, 40.0, "lunch") for slug in dense)) for at in range(9)]
        energy = Aim(key="energy_kcal", low=500.0, aim=700.0, high=800.0)
        found = change.levers(Usual(days=rows, aims=[energy]), 150.0)
        self.assertEqual(len(found), 3)
        self.assertTrue(all(one.of == 7 for one in found))

    def test_a_change_that_closes_less_than_three_twentieths_is_not_told(self):
        rows = [day(at, ("walnuts", 40.0, "lunch")) for at in range(7)]
        for closes, told in ((15.1, True), (14.9, False)):
            with patch.object(change, "_less_of", lambda *_args, closes=closes: lever(closes)):
                found = change.levers(Usual(days=rows, aims=[]), 100.0)
            self.assertEqual(bool(found), told, closes)

    def test_another_dish_closes_half_to_a_third_over(self):
        """600 kcal less a day for a gap of 450 to 1,200."""
        rich = food_portion(FOODS["walnuts"], 150.0)
        kcal = rich.profile["energy_kcal"].amount
        light = food_portion(FOODS["kale-raw"], 100.0, key="kale")
        less = kcal - light.profile["energy_kcal"].amount
        rows = [day(at, ("walnuts", 150.0, "dinner")) for at in range(7)]
        for gap, offered in (
            (less / 0.51, True),
            (less / 0.49, False),
            (less / 1.34, True),
            (less / 1.36, False),
        ):
            usual = Usual(days=rows, aims=[], others={"Walnuts": [light]})
            self.assertEqual(bool(change._for_another(rows, usual, gap)), offered, gap)


class Intake(unittest.TestCase):
    def test_what_parts_plate_and_plan_from_thirty_kilocalories_on(self):
        kcal = FOODS["walnuts"].per_100_g("energy_kcal") / 100.0
        for more, told in ((30.5, True), (29.5, False)):
            rows = [
                day(
                    at,
                    ("walnuts", 20.0 + more / kcal, "lunch"),
                    planned=(("walnuts", 20.0, "lunch"),),
                )
                for at in range(4)
            ]
            found = parted(rows)
            self.assertEqual(bool(found.foods), told)
            self.assertEqual(bool(found.meals), told)

    def test_six_foods_are_told(self):
        slugs = [one.slug for one in FOODS if one.group == "nut" and not one.comparator][:9]
        rows = [day(at, *((slug, 50.0, "lunch") for slug in slugs), planned=PLAN) for at in (0, 1)]
        self.assertEqual(len(parted(rows).foods), 6)

    def test_a_food_of_which_thirty_kilocalories_more_are_eaten_grew(self):
        kcal = FOODS["walnuts"].per_100_g("energy_kcal") / 100.0
        for more, told in ((30.5, True), (29.5, False)):
            before = [day(at, ("walnuts", 20.0, "lunch")) for at in range(3)]
            after = [day(at, ("walnuts", 20.0 + more / kcal, "lunch")) for at in range(7, 10)]
            found = grown(before, after, lambda density: density >= 1.6)
            self.assertEqual(bool(found), told)
        self.assertEqual(Grew(name="n", before_g=20, after_g=50, kcal=1, sd=0).ratio, 2.5)

    def test_growth_is_more_than_the_days_differ(self):
        """Standard errors of 10 and 30 g on three days each: 1.64 of them are a bound."""
        before = [day(at, ("walnuts", grams, "lunch")) for at, grams in enumerate((5, 20, 35))]
        for grams, told in ((20 + 12, False), (20 + 18, True)):
            after = [day(at, ("walnuts", grams, "lunch")) for at in range(7, 10)]
            self.assertEqual(bool(grown(before, after, lambda density: True)), told)

    def test_an_average_of_what_is_never_below_zero_is_not_either(self):
        rows = [day(0, ("walnuts", 1.0, "lunch")), day(1, ("walnuts", 200.0, "lunch"))]
        self.assertEqual(average(rows, "energy_kcal").low, 0.0)
        acid = [day(0, ("spinach-raw", 20.0, "lunch")), day(1, ("spinach-raw", 400.0, "lunch"))]
        self.assertLess(average(acid, "pral_meq").low, 0.0)
        self.assertIsInstance(Dish, type)


PLAN = (("kale-raw", 50.0, "lunch"),)


class KitchenLines(unittest.TestCase):
    def test_what_is_all_one_name_is_not_parted(self):
        known = ["Salt and vinegar beans"]
        self.assertEqual(len(pieces("salt and vinegar beans", known)), 1)
        self.assertEqual(len(pieces("salt and vinegar beans")), 2)
        self.assertEqual(len(pieces("beans and rice", known)), 2)
        self.assertEqual(len(pieces("beans", known)), 1)

    def test_one_letter_off_in_words_of_four_is_the_same(self):
        known = ["Lentil and barley stew"]
        self.assertEqual(len(pieces("lentil and barly stew", known)), 1)
        self.assertEqual(len(pieces("lentil and burly stew", known)), 2)

    def test_an_a_and_an_an(self):
        for words in ("a serving of stew", "an helping of stew"):
            (one,) = pieces(words)
            self.assertEqual(one.share or 1.0, 1.0)
