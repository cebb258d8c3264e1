"""What stands exactly on an edge of the follow-up, written out: the side it falls on."""

import unittest
from dataclasses import replace
from datetime import date, timedelta
from types import SimpleNamespace
from unittest.mock import patch

import numpy as np

from nutrition.composition.foods import food_table
from nutrition.composition.portion import food_portion
from nutrition.follow_up import causes as why
from nutrition.follow_up import doubts, intake, stall
from nutrition.follow_up import levers as change
from nutrition.follow_up.feeling import hunger_words
from nutrition.follow_up.intake import Apart, Bite, Grew, LoggedDay, Parted, grown
from nutrition.follow_up.kitchen_line import named_in
from nutrition.follow_up.levers import Usual
from nutrition.follow_up.reported_energy import Implied, Reported
from nutrition.follow_up.signs import record_numbers
from nutrition.follow_up.stall import Record
from nutrition.follow_up.sudden_change import weight_signs
from nutrition.follow_up.trend import Pace, Trend, trend_of
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

    def test_a_habit_is_on_a_quarter_of_the_days_exactly(self):
        for count, habit in ((4, True), (5, False)):
            rows = [
                day(at, ("walnuts" if not at else "potato-boiled", 30.0)) for at in range(count)
            ]
            self.assertEqual("Walnuts" in change._dense(rows, ()), habit)

    def test_what_closes_three_twentieths_is_told(self):
        for kcal, told in ((15.0, 1), (14.9, 0)):
            one = change._lever("k", "w", [kcal], {}, 1, 100.0)
            with (
                patch.object(change, "_dense", lambda *_args: ["a"]),
                patch.object(change, "_less_of", lambda *_args, one=one: one),
            ):
                found = change.levers(Usual(days=[day(1)], aims=[]), 100.0)
            self.assertEqual(len(found), told)

    def test_nothing_added_is_not_spoken_of(self):
        kale = FOODS["kale-raw"]
        for grams, said in ((30.0, "more kale"), (0.0, "")):
            self.assertEqual(change._of([(kale, grams)]).grams, grams)
            words = change._and_more([(kale, grams)], "us")
            self.assertEqual(bool(words), bool(said))
            self.assertIn(said, words)

    def test_another_dish_closes_a_half_to_a_third_over_exactly(self):
        for count, kcal, words in (
            (1, 50.0, "Soup for walnuts, once"),
            (2, 135.0, "Soup for walnuts, each time"),
            (2, 49.9, None),
            (2, 135.1, None),
        ):
            rows = [day(at, ("walnuts", 30.0)) for at in range(count)]
            soup = replace(food_portion(FOODS["potato-boiled"], 100.0), name="Soup")
            usual = Usual(days=rows, aims=[], others={"Walnuts": [soup]})
            with patch.object(change, "_effects", lambda *_a, n=count, k=kcal: ([k] * n, {})):
                found = change._for_another(rows, usual, 100.0)
            self.assertEqual([one.words for one in found], [words] if words else [])


class Told(unittest.TestCase):
    def far_under(self, kcal, least, low, implied=1200.0):
        return Reported(
            kcal=kcal,
            days=7,
            resting=1000.0,
            level=1.5,
            least=least,
            most=2.4,
            implied=Implied(implied, low, 2.0 * implied, implied),
        ).far_under

    def test_under_the_cut_off_and_under_the_trend(self):
        self.assertTrue(self.far_under(1000.0, 1.01, 1050.0))
        self.assertFalse(self.far_under(1000.0, 1.0, 1050.0), "on the cut-off")
        self.assertFalse(self.far_under(1000.0, 1.01, 1000.0), "on the trend's range")

    def test_under_four_fifths_of_what_the_trend_stands_for(self):
        self.assertFalse(self.far_under(960.0, 0.9, 1050.0))
        self.assertTrue(self.far_under(959.9, 0.9, 1050.0))

    def test_very_little_is_under_three_fifths_of_resting_energy(self):
        """Resting energy is 1,469 kcal: 881.4 are not very little, 3,635.8 not very much."""
        much = 1.8 * 1469.0 * 1.375
        for low, high, little, swings in (
            (881.4, much + 1.0, 0.0, 0.0),
            (881.3, much + 1.0, 1.0, 1.0),
            (881.3, much, 1.0, 0.0),
        ):
            days = [
                SimpleNamespace(on=TODAY - timedelta(ago), whole=True, kcal=kcal)
                for ago, kcal in ((2, low), (1, high))
            ]
            found = record_numbers(HER, days, TODAY)
            self.assertEqual(
                (found["logged_very_little"], found["logged_swings"]), (little, swings)
            )


class Stall(unittest.TestCase):
    def pace(self, kg, half=0.0):
        return Pace(kg, kg - half, kg + half, 28)

    def test_half_of_what_is_expected_is_not_under_it(self):
        self.assertFalse(stall._surely_under(self.pace(-0.25), -0.5))
        self.assertTrue(stall._surely_under(self.pace(-0.2499), -0.5))

    def test_at_half_it_is_not_more_than_half(self):
        trend = trend_of([Weighed(TODAY - timedelta(ago), 80.0) for ago in range(30)])
        words = stall._not_stalled(trend, -0.5, self.pace(-0.25)).words
        self.assertIn("half of it still lies", words)
        self.assertEqual(stall._not_stalled(trend, -0.5, self.pace(-0.375)).kind, stall.ON_THE_WAY)

    def test_a_fortnight_ago_is_no_long_time(self):
        self.assertIn("is judged", stall._too_little(20, 6, 14))
        self.assertIn("Last weighed 15 days ago", stall._too_little(20, 6, 15))

    def test_a_hundredth_of_the_body_moves(self):
        eighty = SimpleNamespace(now=80.0)
        for kg, moves in ((0.2, True), (0.1999, False)):
            words = stall._where_none_is_planned(eighty, self.pace(kg, 0.05))
            self.assertEqual("it moves" in words, moves)

    def stalled(self, expected, kg, half):
        trend = trend_of([Weighed(TODAY - timedelta(ago), 80.0) for ago in range(30)])
        record = Record(person=HER, school=None, weighed=[], today=TODAY)
        return stall._stalled(record, trend, expected, self.pace(kg, half), 28)

    def test_surely_the_other_way(self):
        for expected, kg, half, kind, verb in (
            (-0.5, 0.2, 0.1, stall.AWAY, "lost"),
            (-0.5, 0.2, 0.3, stall.STALL, "lost"),
            (-0.5, 0.2, 0.2, stall.STALL, "lost"),
            (0.2, -0.2, 0.1, stall.AWAY, "gained"),
            (0.2, -0.2, 0.2, stall.STALL, "gained"),
            (0.2, -0.2, 0.3, stall.STALL, "gained"),
            (0.2, 0.0, 0.0, stall.STALL, "gained"),
        ):
            found = self.stalled(expected, kg, half)
            self.assertEqual(found.kind, kind, (expected, kg, half))
            self.assertIn(f"are to be {verb}", found.words)

    def test_a_pace_that_differs_by_an_eighth_has_turned(self):
        """0.12 of 0.5 kg are 0.06 kg a week."""
        first = TODAY - timedelta(40)
        for longer, since in ((0.06, 40), (0.0601, 21)):

            def pace_between(start, _end, longer=longer):
                return self.pace(longer if (TODAY - start).days > 21 else 0.0)

            trend = SimpleNamespace(first=first, last=TODAY, pace_between=pace_between)
            self.assertEqual((TODAY - stall._since(trend, -0.5)).days, since)


class Sudden(unittest.TestCase):
    def signs(self, condition, *rows, **more):
        person = replace(HER, conditions=frozenset({condition} - {""}), **more)
        weighed = [Weighed(TODAY - timedelta(ago), kg) for ago, kg in rows]
        return weight_signs(person, None, weighed, TODAY).numbers

    def test_between_dialyses_four_and_four_and_a_half_percent(self):
        for kg, level in ((104.0, None), (104.1, 1.0), (104.5, 1.0), (104.6, 2.0)):
            found = self.signs("dialysis", (2, 100.0), (0, kg))
            self.assertEqual(found.get("dialysis_water"), level, kg)

    def test_a_thin_body_within_half_a_year(self):
        """A BMI of 20 at 200 cm is 80 kg."""
        for days, kg, there in ((183, 79.9, True), (184, 79.9, False), (183, 80.0, False)):
            found = self.signs("", (days, 85.0), (0, kg), height_cm=200.0)
            self.assertEqual("unplanned_loss_percent" in found, there, (days, kg))


class Trends(unittest.TestCase):
    def test_two_hundred_weigh_ins(self):
        """Two a day: the last hundred days."""
        rows = [Weighed(TODAY - timedelta(ago), 80.0) for ago in range(150) for _ in range(2)]
        self.assertEqual((TODAY - trend_of(rows).first).days, 99)

    def test_a_pace_between_two_days_needs_a_week(self):
        trend = trend_of([Weighed(TODAY - timedelta(ago), 80.0) for ago in range(30)])
        for days, there in ((7, True), (6, False)):
            found = trend.pace_between(TODAY - timedelta(days), TODAY)
            self.assertEqual(found is not None, there)

    def test_the_pace_of_a_day_needs_two(self):
        trend = Trend(
            first=TODAY, level=np.array([80.0, 80.1]), covariance=np.eye(2), scatter=0.1, odd=()
        )
        self.assertAlmostEqual(trend.pace(1).kg_per_week, 0.7)
        self.assertIsNone(replace(trend, level=np.array([80.0])).pace(1))
