"""Both sides of the numbers that a stall is judged by, written out."""

import unittest
from dataclasses import replace
from datetime import date, timedelta

from nutrition.follow_up import stall
from nutrition.follow_up.stall import (
    AWAY,
    NOT_EXPECTED,
    ON_THE_WAY,
    SLOWER,
    STALL,
    TOO_FAST,
    TOO_LITTLE,
    WITHIN,
    Record,
    judge_pace,
    span,
)
from nutrition.follow_up.trend import Pace, trend_of
from nutrition.follow_up.weigh_in import Weighed
from nutrition.targets.person import Person

TODAY = date(2026, 11, 20)
LOSES = Person(
    sex="female",
    age_years=44.0,
    height_cm=168.0,
    weight_kg=90.0,
    goal="lose",
    target_weight_kg=75.0,
    pace_kg_per_week=0.6,
)


def rows(days, per_week, every=1, last=0, kg=90.0):
    """A straight line of weigh-ins up to `last` days ago."""
    return [
        Weighed(TODAY - timedelta(days=ago), kg - per_week * ago / 7.0)
        for ago in range(days + last, last - 1, -every)
    ]


def record(weighed, **more):
    return Record(
        person=more.pop("person", LOSES), school=None, weighed=weighed, today=TODAY, **more
    )


def judged(weighed, **more):
    return judge_pace(record(weighed, **more)).kind


class Enough(unittest.TestCase):
    def test_twenty_one_days_six_weigh_ins_a_fortnight_old_at_most(self):
        self.assertEqual(judged(rows(21, 0.0)), STALL)
        self.assertEqual(judged(rows(20, 0.0)), TOO_LITTLE)
        self.assertEqual(judged(rows(25, 0.0, every=5)), STALL, "six")
        self.assertEqual(judged(rows(24, 0.0, every=6)), TOO_LITTLE, "five")
        self.assertEqual(judged(rows(28, 0.0, last=14)), STALL)
        self.assertEqual(judged(rows(28, 0.0, last=15)), TOO_LITTLE)

    def test_the_plan_is_twenty_one_days_old(self):
        for days, kind in ((21, STALL), (20, TOO_LITTLE)):
            since = TODAY - timedelta(days=days)
            self.assertEqual(judged(rows(40, 0.0), planned_since=since), kind)

    def test_what_was_weighed_six_weeks_ago_counts(self):
        self.assertNotIn("three weigh-ins", judge_pace(record(rows(5, 0.0, last=37))).words)
        self.assertIn("three weigh-ins", judge_pace(record(rows(5, 0.0, last=43))).words)

    def test_the_windows(self):
        """The longest that shows a stall counts: six weeks, four, three."""
        trend = trend_of(rows(60, 0.0))
        self.assertEqual([days for days, _pace in stall._paces(trend, None)], [42, 28, 21])
        for old, windows in ((41, [42, 28, 21]), (40, [28, 21]), (27, [28, 21]), (26, [21])):
            self.assertEqual([days for days, _pace in stall._paces(trend, old)], windows)
        for known, windows in ((41, [42, 28, 21]), (40, [28, 21]), (26, [21])):
            trend = trend_of(rows(known, 0.0))
            self.assertEqual([days for days, _pace in stall._paces(trend, None)], windows)


class Kinds(unittest.TestCase):
    def pace(self, kg, half=0.0):
        return Pace(kg, kg - half, kg + half, 28)

    def test_under_half_of_what_is_expected_with_a_certainty_of_nine_in_ten(self):
        """Of 0.6 kg half are 0.3; 1.28 of 1.96 of the half width are given to it."""
        for kg, half, under in (
            (-0.29, 0.0, True),
            (-0.31, 0.0, False),
            (-0.2, 0.15, True),
            (-0.2, 0.156, False),
            (-0.2, 0.152, True),
        ):
            self.assertEqual(stall._surely_under(self.pace(kg, half), -0.6), under, (kg, half))
        self.assertTrue(stall._surely_under(self.pace(0.1), 0.25))
        self.assertFalse(stall._surely_under(self.pace(0.13), 0.25))

    def test_at_three_quarters_all_is_well(self):
        trend = trend_of(rows(40, -0.4))
        for kg, half, kind in (
            (-0.46, 0.0, ON_THE_WAY),
            (-0.44, 0.0, SLOWER),
            (-0.44, 0.16, WITHIN),
            (-0.44, 0.15, SLOWER),
        ):
            found = stall._not_stalled(trend, -0.6, self.pace(kg, half))
            self.assertEqual(found.kind, kind, (kg, half))
        words = stall._not_stalled(trend, -0.6, self.pace(-0.31)).words
        self.assertIn("more than half of it", words)
        words = stall._not_stalled(trend, -0.6, self.pace(-0.29)).words
        self.assertIn("lies within what mornings differ by", words)
        self.assertIn("to be lost", stall._not_stalled(trend, -0.6, self.pace(-0.6)).words)
        gains = stall._not_stalled(trend, 0.2, self.pace(0.2))
        self.assertEqual(gains.kind, ON_THE_WAY)
        self.assertIn("to be gained", gains.words)

    def test_the_other_way(self):
        self.assertEqual(judged(rows(60, 0.5)), AWAY)
        self.assertEqual(judged(rows(60, 0.0)), STALL)

    def test_more_than_a_hundredth_of_the_body_a_week_is_too_fast(self):
        """Of 90 kg 0.9: the line falls by as much, and the trend a little less."""
        self.assertEqual(judged(rows(60, -1.0)), TOO_FAST)
        self.assertNotEqual(judged(rows(60, -0.8)), TOO_FAST)
        trend = trend_of(rows(60, -0.8))
        self.assertLess(-trend.lately.kg_per_week, 0.01 * trend.now)

    def test_where_none_is_planned_a_hundredth_of_the_body_in_four_weeks_is_said(self):
        held = replace(LOSES, goal="hold", pace_kg_per_week=None)
        trend = trend_of(rows(60, 0.0))
        self.assertEqual(judged(rows(60, 0.0), person=held), NOT_EXPECTED)
        for kg, moves in ((-0.22, False), (-0.23, True), (0.23, True)):
            words = stall._where_none_is_planned(trend, self.pace(kg, 0.05))
            self.assertEqual("it moves" in words, moves, words)
        unsure = stall._where_none_is_planned(trend, self.pace(-0.23, 0.3))
        self.assertNotIn("it moves", unsure)
        self.assertIn("too seldom", stall._where_none_is_planned(trend, None))

    def test_under_a_twentieth_of_a_kilogram_it_is_steady(self):
        self.assertIn("steady", span(self.pace(-0.049, 0.1)))
        self.assertIn("0.05 kg lost a week", span(self.pace(-0.05, 0.1)))
        self.assertIn("gained", span(self.pace(0.3, 0.1)))

    def test_the_gap_in_energy(self):
        """0.6 kg a week are 660 kcal a day."""
        middle, least, most = stall._gap(self.pace(0.0, 0.1), -0.6)
        self.assertAlmostEqual(middle, 660.0)
        self.assertAlmostEqual(least, 550.0)
        self.assertAlmostEqual(most, 770.0)
        self.assertAlmostEqual(stall._gap(self.pace(0.0), 0.2)[0], 220.0)

    def test_since_when_two_paces_are_the_same_within_an_eighth_of_the_expected(self):
        """A line that turned five weeks ago has stood since about then."""
        turned = [
            Weighed(TODAY - timedelta(days=ago), 90.0 + 0.6 * max(ago - 35, 0) / 7.0)
            for ago in range(60, -1, -1)
        ]
        found = judge_pace(record(turned))
        self.assertEqual(found.kind, STALL)
        self.assertGreaterEqual((TODAY - found.since).days, 21)
        self.assertLessEqual((TODAY - found.since).days, 42)
        self.assertEqual(stall.SAME_SHARE, 0.12)
