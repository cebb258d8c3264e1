"""What stands exactly on an edge of the follow-up, written out: the side it falls on."""

import unittest
from datetime import date, timedelta
from types import SimpleNamespace
from unittest.mock import patch

from nutrition.composition.foods import food_table
from nutrition.composition.portion import food_portion
from nutrition.follow_up import causes as why
from nutrition.follow_up import doubts, intake
from nutrition.follow_up import levers as change
from nutrition.follow_up.feeling import hunger_words
from nutrition.follow_up.intake import Apart, Bite, Grew, LoggedDay, Parted, grown
from nutrition.follow_up.kitchen_line import named_in
from nutrition.follow_up.levers import Usual
from nutrition.follow_up.stall import Record
from nutrition.follow_up.weigh_in import LATER, MORNING, Weighed
from nutrition.targets.person import Person

FOODS = food_table()
TODAY = date(2026, 11, 20)
HER = Person(sex="female", age_years=44.0, height_cm=168.0, weight_kg=80.0)


def day(ago, *rows):
    bites = (Bite("lunch", food_portion(FOODS[slug], grams, grams, grams)) for slug, grams in rows)
    return LoggedDay(on=TODAY - timedelta(days=ago), whole=True, eaten=tuple(bites))


class Doubts(unittest.TestCase):
    def asked(self, kg, sd):
        with patch.object(doubts, "expected_on", lambda *_args: (80.0, sd)):
            return doubts.doubt([], Weighed(TODAY, kg))

    def test_three_and_a_half_times_the_spread_is_not_asked_about(self):
        self.assertIsNone(self.asked(81.75, 0.5))
        self.assertIsNotNone(self.asked(81.76, 0.5))

    def test_a_kilogram_and_a_half_is_not(self):
        self.assertIsNone(self.asked(81.5, 0.1))
        self.assertIsNotNone(self.asked(81.51, 0.1))

    def test_another_reading_two_kilograms_off_fits(self):
        self.assertEqual(self.asked(820.0, 0.1).likelier, 82.0)
        self.assertIsNone(self.asked(820.1, 0.1).likelier)


class Hunger(unittest.TestCase):
    def test_a_six_is_a_hungry_day_and_none_of_the_others(self):
        rows = [(6.0, day(at, ("potato-boiled", 85.0))) for at in (1, 2)]
        rows += [(2.0, day(at, ("potato-boiled", 100.0))) for at in (3, 4)]
        said = [words for words in hunger_words(rows) if "food by weight" in words]
        self.assertEqual(
            said, ["On 2 hungry days 85 g food by weight, on 2 others 100 g."], "15 of 100"
        )
        rows[2:] = [(2.0, day(at, ("potato-boiled", 99.0))) for at in (3, 4)]
        self.assertFalse([words for words in hunger_words(rows) if "food by weight" in words])


class Intake(unittest.TestCase):
    def test_thirty_kilocalories_are_worth_saying(self):
        rows = [Apart(name=str(by), by=by, planned=0.0, eaten=by, days=1) for by in (30.0, 29.9)]
        self.assertEqual([one.name for one in intake._worth(rows)], ["30.0"])

    def test_a_kilocalorie_is_no_difference_of_a_day(self):
        self.assertEqual(intake._apart("stew", 2, [100.0, 100.0], [101.0, 101.1]).days, 1)

    def test_two_days_differ_by_their_spread(self):
        """100 and 120 g of walnuts for 20 and 40: by 80 g, 14 g off."""
        before, after = (
            [day(at, ("walnuts", grams)) for at, grams in enumerate(some)]
            for some in ((20.0, 40.0), (100.0, 120.0))
        )
        (one,) = grown(before, after, lambda kcal_per_g: True)
        per_g = FOODS["walnuts"].per_100_g("energy_kcal") / 100.0
        self.assertAlmostEqual(one.sd, per_g * (10.0**2 + 10.0**2) ** 0.5)

    def test_thirty_kilocalories_more_grew(self):
        same = {"Nuts": (30.0, 1.0)}
        with patch.object(intake, "by_food", lambda eaten: same if eaten else {}):
            found = grown(
                [day(4), day(5)],
                [day(1, ("walnuts", 5.0)), day(2, ("walnuts", 5.0))],
                lambda kcal_per_g: True,
            )
        self.assertEqual([one.kcal for one in found], [30.0])


class Names(unittest.TestCase):
    def test_a_plural_of_four_letters_is_of_its_singular(self):
        self.assertEqual(named_in("pea soup", ["Soup of peas", "Soup of beets"]), [0])

    def test_what_has_three_letters_is_no_plural(self):
        self.assertEqual(named_in("gas", ["ga"]), [])


class Causes(unittest.TestCase):
    def test_a_food_of_one_and_six_tenths_kilocalories_is_dense(self):
        for kcal, dense in ((160.0, True), (159.0, False)):
            over = Apart(name="Dip", by=kcal, planned=0.0, eaten=kcal, days=9, grams=100.0)
            known = Parted(days=9, meals=(), foods=(over,), weekdays=(), total=kcal)
            with (
                patch.object(why, "parted", lambda *_args, known=known: known),
                patch.object(why, "_window", lambda *_args: (TODAY - timedelta(40), TODAY)),
                patch.object(why, "_recent", lambda *_args: []),
            ):
                record = Record(person=HER, school=None, weighed=[], today=TODAY)
                self.assertEqual(why._portions(record, None) is not None, dense)

    def test_half_of_the_later_ones_later_in_the_day(self):
        for later, said in ((2, True), (1, False)):
            rows = [
                Weighed(TODAY - timedelta(8 - at), 80.0, time=LATER if 4 <= at < 4 + later else "")
                for at in range(8)
            ]
            rows[0] = Weighed(rows[0].on, 80.0, time=MORNING)
            with patch.object(why, "_window", lambda *_args: (TODAY - timedelta(9), TODAY)):
                record = Record(person=HER, school=None, weighed=rows, today=TODAY)
                found = why._scale(record, SimpleNamespace(expected=-0.5))
                self.assertEqual(found is not None, said)


class Levers(unittest.TestCase):
    def test_five_foods_are_tried(self):
        tried = []
        with (
            patch.object(change, "_dense", lambda *_args: list("abcdefg")),
            patch.object(change, "_less_of", lambda name, *_args: tried.append(name)),
        ):
            change.levers(Usual(days=[day(1, ("walnuts", 40.0))], aims=[]), 100.0)
        self.assertEqual(tried, list("abcde"))

    def test_as_before_is_of_the_days_that_have_it(self):
        grew = [
            Grew(name=name, before_g=10.0, after_g=50.0, kcal=100.0, sd=1.0)
            for name in ("Walnuts", "Tahini")
        ]
        rows = [day(at, ("walnuts", 50.0), ("tahini", 50.0)) for at in (1, 2)]
        rows.append(day(3, ("potato-boiled", 200.0)))
        found = change._as_before(grew, rows, Usual(days=rows, aims=[]), 100.0)
        self.assertEqual((found.days, found.of, found.least), (2, 3, 0.0))

    def test_a_step_less_that_leaves_a_quarter_is_tried(self):
        """Walnuts go in steps of 5 g: three quarters of 6.7 g are one."""
        told = SimpleNamespace(told=[SimpleNamespace(answer=SimpleNamespace(portions={"0": 1.7}))])
        for grams, found in ((6.7, 5.0), (6.6, None)):
            with patch.object(change, "balanced", lambda _problem: told):
                less = change._balanced(
                    "Walnuts", day(1, ("walnuts", grams)), Usual(days=[], aims=[]), 100.0
                )
            self.assertEqual(less and round(less[0], 1), found)


if __name__ == "__main__":
    unittest.main()
