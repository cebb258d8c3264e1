"""Weight that moves too fast to be fat, and weight that is lost though nobody planned it."""

from datetime import date, timedelta
from unittest import TestCase

from nutrition.follow_up.events import KINDS
from nutrition.follow_up.stall import Record, judge_pace
from nutrition.follow_up.sudden_change import fall, rise, weight_signs
from nutrition.follow_up.usual_intake import HABIT_DAYS, habit_numbers
from nutrition.follow_up.weigh_in import Weighed
from nutrition.targets.person import Person
from nutrition.tests.follow_up.test_causes import eaten

TODAY = date(2026, 11, 20)


def person(*conditions, **more):
    body = {"sex": "male", "age_years": 60, "height_cm": 175, "weight_kg": 80} | more
    return Person(**body, conditions=frozenset(conditions))


def weights(*rows, scale=""):
    """Weigh-ins as (days before today, kg)."""
    return [Weighed(TODAY - timedelta(days=ago), kg, scale=scale) for ago, kg in rows]


def signs(who, rows):
    return weight_signs(who, None, rows, TODAY)


class Water(TestCase):
    def heart(self, *rows):
        return signs(person("heart_failure"), weights(*rows)).numbers.get("heart_water", 0)

    def test_in_heart_failure_on_both_sides_of_each_line(self):
        for rows, level in (
            (((1, 80.0), (0, 80.9)), 0),
            (((1, 80.0), (0, 81.0)), 1),
            (((1, 80.0), (0, 81.4)), 1),
            (((1, 80.0), (0, 81.5)), 2),
            (((3, 80.0), (0, 81.9)), 0),
            (((3, 80.0), (0, 82.0)), 2),
            (((7, 80.0), (0, 82.2)), 0),
            (((7, 80.0), (0, 82.3)), 2),
            (((8, 80.0), (0, 82.2)), 0),
            (((8, 80.0), (0, 82.3)), 1),
            (((14, 80.0), (0, 82.3)), 1),
            (((15, 80.0), (0, 82.3)), 0),
        ):
            with self.subTest(rows):
                self.assertEqual(self.heart(*rows), level)

    def test_it_counts_from_the_lowest_on_the_same_scale(self):
        self.assertEqual(self.heart((6, 81.5), (3, 80.0), (2, 80.5), (0, 82.1)), 2)
        mixed = [*weights((3, 78.0)), *weights((2, 80.0), (0, 80.5), scale="clinic")]
        self.assertEqual(signs(person("heart_failure"), mixed).numbers, {})

    def test_it_is_said_with_its_figures_and_old_weights_say_nothing(self):
        found = signs(person("heart_failure"), weights((7, 80.0), (0, 85.0)))
        self.assertEqual(found.words["heart_water_said"], "5.0 kg in 7 days, from 80 to 85 kg")
        self.assertEqual(
            signs(person("heart_failure"), weights((22, 80.0), (15, 85.0))).numbers, {}
        )
        self.assertEqual(signs(person(), weights((7, 80.0), (0, 85.0))).numbers, {})

    def test_between_dialyses(self):
        for gain, level in ((3.1, 0), (3.3, 1), (3.6, 1), (3.7, 2)):
            found = signs(person("ckd_5", "hemodialysis"), weights((3, 80.0), (0, 80.0 + gain)))
            self.assertEqual(found.numbers.get("dialysis_water", 0), level, gain)
        at_home = signs(person("ckd_5", "peritoneal_dialysis"), weights((3, 80.0), (0, 84.0)))
        self.assertEqual(at_home.numbers, {})

    def test_in_the_belly(self):
        for rows, level in (
            (((1, 80.0), (0, 81.0)), 0),
            (((1, 80.0), (0, 81.1)), 2),
            (((7, 80.0), (0, 81.9)), 0),
            (((7, 80.0), (0, 82.0)), 2),
        ):
            found = signs(person("liver_disease"), weights(*rows))
            self.assertEqual(found.numbers.get("belly_water", 0), level, rows)


class Loss(TestCase):
    def lost(self, who, *rows):
        return "unplanned_loss_percent" in signs(who, weights(*rows)).numbers

    def test_that_nobody_planned_on_both_sides_of_each_line(self):
        for days, percent in ((31, 5.0), (92, 7.5), (183, 10.0)):
            for off, stands in ((-0.1, False), (0.1, True)):
                kg = 80.0 * (1 - (percent + off) / 100)
                with self.subTest(days=days, off=off):
                    self.assertEqual(self.lost(person(), (days, 80.0), (0, kg)), stands)

    def test_a_thin_body_is_asked_about_sooner(self):
        thin = person(weight_kg=60)
        self.assertTrue(self.lost(thin, (180, 64.0), (0, 60.5)))
        self.assertFalse(self.lost(person(), (180, 84.0), (0, 79.5)))

    def test_a_frail_man_is_heard(self):
        self.assertTrue(self.lost(person("frail"), (90, 63.0), (0, 58.0)))

    def test_a_loss_that_was_planned_is_none_until_it_runs_well_past_it(self):
        slow = person(goal="lose", pace_kg_per_week=0.8)
        self.assertFalse(self.lost(slow, (31, 80.0), (0, 75.9)))
        self.assertTrue(self.lost(slow, (31, 80.0), (0, 74.0)))

    def test_past_the_plan_by_half_and_no_sooner(self):
        # 0.8 kg a week are 3.54 kg in 31 days; half more are 5.31
        slow = person(goal="lose", pace_kg_per_week=0.8)
        self.assertFalse(self.lost(slow, (31, 80.0), (0, 74.8)))
        self.assertTrue(self.lost(slow, (31, 80.0), (0, 74.6)))

    def test_an_old_weight_says_nothing_of_today(self):
        self.assertTrue(self.lost(person(), (74, 80.0), (44, 74.0)))
        self.assertFalse(self.lost(person(), (76, 80.0), (46, 74.0)))
        for ago, stands in ((14, True), (15, False)):
            rows = weights((ago + 3, 80.0), (ago, 85.0))
            found = signs(person("heart_failure"), rows).numbers
            self.assertEqual("heart_water" in found, stands)

    def test_rise_and_fall_of_nothing(self):
        self.assertIsNone(rise([], 7))
        self.assertIsNone(fall(weights((0, 80.0)), 7))
        self.assertIsNone(rise(weights((1, 80.0), (0, 79.0)), 7))


class Said(TestCase):
    def record(self, rows, **more):
        return Record(person=person(**more), school=None, weighed=rows, today=TODAY)

    def test_no_change_planned_is_never_nothing_to_say(self):
        rising = weights(*((28 - day, 80.0 + 0.12 * day) for day in range(29)))
        words = judge_pace(self.record(rising)).words
        self.assertIn("it moves", words)
        self.assertIn("gained a week", words)
        steady = weights(*((28 - day, 80.0 + 0.1 * (day % 2)) for day in range(29)))
        self.assertIn("which holds it", judge_pace(self.record(steady)).words)

    def test_another_scale_is_said_first(self):
        rows = weights(*((28 - day, 80.0) for day in range(20)))
        rows += weights(*((8 - day, 81.0) for day in range(9)), scale="clinic")
        words = judge_pace(self.record(rows)).words
        self.assertTrue(words.startswith("Another scale since Nov 12"), words)

    def test_what_happened_says_what_it_does_and_for_how_long(self):
        for kind, kg, days in (
            ("creatine", 1.5, 28),
            ("steroids", 2.0, 21),
            ("bowels", 1.0, 7),
            ("cycle", 1.0, 6),
            ("exercise", 1.0, 28),
        ):
            row = KINDS[kind]
            self.assertEqual((row.water_kg, row.days), (kg, days))
            self.assertIn(f"about {kg:g} kg, for up to {days} days", row.words)
        self.assertIn("up to a kilogram", KINDS["scale"].words)

    def test_a_drift_is_worth_a_word_from_a_hundredth_of_the_body_on(self):
        for kg, moves in ((0.7, False), (0.9, True)):
            rows = weights(*((28 - day, 80.0 + kg * day / 28) for day in range(29)))
            self.assertEqual("it moves" in judge_pace(self.record(rows)).words, moves, kg)

    def test_a_habit_needs_three_whole_days(self):
        days = [eaten(TODAY - timedelta(days=at), 1800) for at in range(4)]
        greens = sum(one.profile["vitamin_k_ug"].amount for one in days) / 4
        self.assertAlmostEqual(habit_numbers(days)["vitamin_k_habit_ug"], greens)
        self.assertEqual(habit_numbers(days[:2]), {})
        self.assertTrue(habit_numbers(days[:3]))
        part = [eaten(TODAY, 1800, whole=False), *days[:2]]
        self.assertEqual(habit_numbers(part), {}, "a day of which only some is known is none")
        self.assertEqual(HABIT_DAYS, 14)
