"""Averages over the days that were logged, what parts the plate from the plan, what grew."""

from dataclasses import replace
from datetime import date, timedelta
from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.composition.portion import Portion, food_portion
from nutrition.composition.profile import Profile
from nutrition.follow_up.feeling import hunger_words
from nutrition.follow_up.intake import Bite, LoggedDay, average, grown, parted, whole_days

FOODS = food_table()
MONDAY = date(2026, 10, 5)


def bite(slug, grams, meal="lunch", off=0.0):
    return Bite(meal, food_portion(FOODS[slug], grams, grams * (1 - off), grams * (1 + off)))


def day(at, *bites, planned=(), whole=True):
    return LoggedDay(
        on=MONDAY + timedelta(days=at), whole=whole, eaten=bites, planned=tuple(planned)
    )


class Averages(TestCase):
    def test_a_day_that_nobody_logged_is_unknown_and_not_zero(self):
        two = [day(0, bite("walnuts", 30)), day(3, bite("walnuts", 50))]
        part = day(1, whole=False)
        known = average([*two, part], "energy_kcal")
        self.assertEqual(known.days, 2)
        self.assertAlmostEqual(known.mean, FOODS["walnuts"].per_100_g("energy_kcal") * 0.4)
        self.assertIsNone(average([part], "energy_kcal"))
        self.assertEqual([one.on for one in whole_days([*two, part])], [two[0].on, two[1].on])

    def test_the_range_holds_measuring_and_the_days(self):
        exact = average([day(at, bite("walnuts", 40)) for at in range(4)], "energy_kcal")
        by_eye = average([day(at, bite("walnuts", 40, off=0.35)) for at in range(4)], "energy_kcal")
        mixed = average([day(at, bite("walnuts", 20 + 13 * at)) for at in range(4)], "energy_kcal")
        self.assertLess(exact.high - exact.low, by_eye.high - by_eye.low)
        self.assertLess(exact.high - exact.low, mixed.high - mixed.low)
        self.assertGreaterEqual(mixed.low, 0.0)

    def test_what_nobody_settled_makes_it_at_least(self):
        unknown = Portion(
            key="x",
            name="something",
            role="topping",
            grams=0,
            profile=Profile.unsettled(),
            volume_ml=0,
        )
        known = average([day(0, bite("walnuts", 30), Bite("snack", unknown))], "energy_kcal")
        self.assertFalse(known.complete)
        self.assertTrue(average([day(0, bite("walnuts", 30))], "energy_kcal").complete)


class Apart(TestCase):
    def test_foods_meals_and_weekdays(self):
        plan = [bite("walnuts", 15), bite("potato-boiled", 300, "dinner")]
        rows = [
            day(at, bite("walnuts", 45), bite("potato-boiled", 300, "dinner"), planned=plan)
            for at in range(6)
        ]
        found = parted([*rows, day(9, bite("walnuts", 100))])
        self.assertEqual(found.days, 6, "what was not planned is not held against a plan")
        self.assertEqual([one.name for one in found.foods], ["Walnuts"])
        self.assertAlmostEqual(found.foods[0].grams, 30.0)
        self.assertEqual([one.name for one in found.meals], ["lunch"])
        self.assertEqual(len(found.weekdays), 6)
        self.assertAlmostEqual(found.total, found.foods[0].by)
        self.assertIsNone(parted([day(0, bite("walnuts", 15))]))

    def test_what_grew_is_told_from_what_differs_by_itself(self):
        def rows(start, grams):
            return [
                day(start + at, bite("walnuts", g), bite("kale-raw", 100 + 40 * at))
                for at, g in enumerate(grams)
            ]

        def dense(kcal_per_g):
            return kcal_per_g > 1.6

        found = grown(rows(0, [14, 16, 15, 15]), rows(20, [44, 46, 45, 47]), dense)
        self.assertEqual([one.name for one in found], ["Walnuts"], "kale is not dense")
        self.assertAlmostEqual(found[0].before_g, 15.0)
        self.assertAlmostEqual(found[0].ratio, 45.5 / 15, places=2)
        self.assertEqual(grown(rows(0, [5, 60, 10, 45]), rows(20, [50, 8, 62, 20]), dense), [])
        self.assertEqual(grown([], rows(0, [10]), dense), [])


class Hunger(TestCase):
    def test_hunger_meets_the_starch_that_was_left_out(self):
        full = [day(at, bite("potato-boiled", 400), bite("kale-raw", 100)) for at in range(3)]
        half = [day(5 + at, bite("potato-boiled", 150), bite("kale-raw", 100)) for at in range(2)]
        said = hunger_words([*((3.0, one) for one in full), *((8.0, one) for one in half)])
        self.assertIn("150 g starch", said[0])
        self.assertIn("400 g", said[0])
        self.assertEqual(hunger_words([(8.0, half[0]), (2.0, full[0])]), [], "too few to say")
        same = [(8.0, replace(one, on=one.on)) for one in full[:2]]
        self.assertEqual(hunger_words([*same, (2.0, full[2]), (1.0, full[2])]), [])
