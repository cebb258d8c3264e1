"""Both sides of every number that the follow-up goes by, written out."""

import unittest
from dataclasses import replace
from datetime import date, timedelta

from nutrition.composition.foods import food_table
from nutrition.composition.portion import food_portion
from nutrition.follow_up import causes as why
from nutrition.follow_up.attention import attention
from nutrition.follow_up.corridor import USUAL_GAIN, asked_corridor, heading, usual_corridor
from nutrition.follow_up.doubts import doubt
from nutrition.follow_up.events import KINDS, Happened
from nutrition.follow_up.feeling import hunger_words
from nutrition.follow_up.intake import Bite, Grew, LoggedDay
from nutrition.follow_up.kitchen_line import pieces
from nutrition.follow_up.reported_energy import goldberg_cut_off, reported
from nutrition.follow_up.signs import record_numbers
from nutrition.follow_up.stall import Record, judge_pace
from nutrition.follow_up.sudden_change import weight_signs
from nutrition.follow_up.told_amounts import AS_PLANNED, AS_SERVED, BY_EYE, NAMED, SAME_AS_PLANNED
from nutrition.follow_up.trend import Pace, trend_of
from nutrition.follow_up.usual_intake import HABIT_DAYS, habit_numbers
from nutrition.follow_up.weigh_in import LATER, MORNING, Weighed, read_weight
from nutrition.targets.person import Person
from nutrition.tests.follow_up.synthetic import made

FOODS = food_table()
TODAY = date(2026, 11, 20)
HER = Person(sex="female", age_years=44.0, height_cm=168.0, weight_kg=80.0)


def ago(days):
    return TODAY - timedelta(days=days)


def weighed(*rows, **more):
    return [Weighed(ago(days), kg, **more) for days, kg in rows]


def day(on, kcal, whole=True, slug="potato-boiled"):
    grams = kcal / FOODS[slug].per_100_g("energy_kcal") * 100.0
    return LoggedDay(
        on=on, whole=whole, eaten=(Bite("lunch", food_portion(FOODS[slug], grams, grams, grams)),)
    )


class Amounts(unittest.TestCase):
    def test_how_far_what_was_told_may_be_off(self):
        self.assertEqual(AS_PLANNED, (0.9, 1.1))
        self.assertEqual(BY_EYE, (0.8, 1.2))
        self.assertEqual((AS_SERVED, NAMED), ((0.9, 1.1), (0.8, 1.2)))
        self.assertEqual(SAME_AS_PLANNED, (0.95, 1.05))

    def test_shares_in_words(self):
        for words, share in (
            ("three quarters of the stew", (0.75, 0.65, 0.85)),
            ("two thirds of the stew", (0.667, 0.57, 0.77)),
            ("half the stew", (0.5, 0.4, 0.6)),
            ("a third of the stew", (0.333, 0.25, 0.42)),
            ("a quarter of the stew", (0.25, 0.18, 0.33)),
            ("almost all of the stew", (0.9, 0.8, 1.0)),
            ("most of the stew", (0.8, 0.65, 0.95)),
            ("some of the stew", (0.4, 0.2, 0.65)),
            ("a little of the stew", (0.2, 0.08, 0.35)),
            ("a bite of the stew", (0.08, 0.03, 0.15)),
            ("double the stew", (2.0, 1.7, 2.3)),
            ("the whole stew", (1.0, 0.9, 1.05)),
        ):
            with self.subTest(words):
                (one,) = pieces(words)
                self.assertEqual((one.share, one.low, one.high), share)

    def test_counted_words(self):
        for words, count in (
            ("a serving of stew", 1.0),
            ("one serving of stew", 1.0),
            ("two servings of stew", 2.0),
            ("three servings of stew", 3.0),
            ("four servings of stew", 4.0),
        ):
            with self.subTest(words):
                (one,) = pieces(words)
                self.assertEqual(one.share, count)

    def test_scales_of_other_countries(self):
        self.assertEqual(read_weight("100 lb"), 45.36)
        self.assertEqual(read_weight("15 st 13"), round(223 * 0.45359237, 2))

    def test_the_habit_of_a_fortnight(self):
        self.assertEqual(HABIT_DAYS, 14)
        rows = [day(ago(days), 500.0) for days in (1, 2)]
        self.assertEqual(habit_numbers(rows), {})
        self.assertEqual(len(habit_numbers([*rows, day(ago(3), 500.0)])), 1)


class Happenings(unittest.TestCase):
    def test_what_holds_how_much_water_how_long(self):
        found = {key: (one.water_kg, one.days) for key, one in KINDS.items() if one.water_kg}
        self.assertEqual(
            found,
            {
                "holiday": (0.5, 5),
                "illness": (1.0, 14),
                "salt": (1.0, 5),
                "exercise": (1.0, 28),
                "creatine": (1.5, 28),
                "cycle": (1.0, 6),
                "medicine": (1.5, 28),
                "steroids": (2.0, 21),
                "bowels": (1.0, 7),
                "travel": (0.5, 5),
            },
        )
        salt = Happened("salt", ago(10), ago(8))
        for days, holds in ((11, False), (10, True), (3, True), (2, False)):
            self.assertEqual(salt.holds_water_on(ago(days)), holds)
        self.assertFalse(Happened("scale", ago(10), ago(8)).holds_water_on(ago(9)))


class Sudden(unittest.TestCase):
    def signs(self, condition, *rows, **more):
        person = replace(HER, conditions=frozenset({condition} - {""}), **more)
        return weight_signs(person, None, weighed(*rows), TODAY).numbers

    def test_water_in_a_weak_heart(self):
        """More than 1.4 kg in a day, 2 in three, 2.3 in a week; weighed again from a kilogram in a
        day and 2.3 in a fortnight on."""
        for days, kg, level in (
            (1, 0.9, None),
            (1, 1.0, 1.0),
            (1, 1.4, 1.0),
            (1, 1.5, 2.0),
            (2, 1.9, None),
            (2, 2.0, 2.0),
            (3, 2.0, 2.0),
            (4, 2.2, None),
            (7, 2.3, 2.0),
            (8, 2.2, None),
            (8, 2.3, 1.0),
            (14, 2.3, 1.0),
            (15, 2.3, None),
        ):
            with self.subTest(days=days, kg=kg):
                found = self.signs("heart_failure", (days, 80.0), (0, 80.0 + kg))
                self.assertEqual(found.get("heart_water"), level)

    def test_water_in_the_belly(self):
        for days, kg, level in (
            (1, 1.0, None),
            (1, 1.1, 2.0),
            (2, 1.9, None),
            (7, 2.0, 2.0),
            (8, 2.5, None),
        ):
            with self.subTest(days=days, kg=kg):
                found = self.signs("liver_disease", (days, 80.0), (0, 80.0 + kg))
                self.assertEqual(found.get("belly_water"), level)

    def test_between_dialyses(self):
        for days, kg, level in (
            (2, 3.1, None),
            (2, 3.3, 1.0),
            (2, 3.6, 1.0),
            (2, 3.7, 2.0),
            (4, 3.7, 2.0),
            (5, 3.7, None),
        ):
            with self.subTest(days=days, kg=kg):
                found = self.signs("dialysis", (days, 80.0), (0, 80.0 + kg))
                self.assertEqual(found.get("dialysis_water"), level)

    def test_what_is_a_fortnight_old_says_nothing_of_today(self):
        for old, there in ((14, True), (15, False)):
            found = self.signs("heart_failure", (old + 1, 80.0), (old, 82.0))
            self.assertEqual("heart_water" in found, there)
        for old, there in ((45, True), (46, False)):
            found = self.signs("", (old + 20, 80.0), (old, 75.0))
            self.assertEqual("unplanned_loss_percent" in found, there)

    def test_a_loss_that_nobody_planned(self):
        """More than 5 % in a month, 7.5 in three, 10 in six; 5 % in half a year where BMI is under
        20, 56.4 kg at 168 cm."""
        for days, percent, there in (
            (31, 5.0, False),
            (31, 5.1, True),
            (32, 5.1, False),
            (92, 7.5, False),
            (92, 7.6, True),
            (93, 7.6, False),
            (183, 10.0, False),
            (183, 10.1, True),
            (184, 12.0, False),
        ):
            with self.subTest(days=days, percent=percent):
                found = self.signs("", (days, 100.0), (0, 100.0 - percent))
                self.assertEqual("unplanned_loss_percent" in found, there)
        for now, there in ((56.3, True), (56.6, False)):
            found = self.signs("", (180, now / 0.94), (0, now))
            self.assertEqual("unplanned_loss_percent" in found, there, now)
        found = self.signs("", (180, 56.3 / 0.96), (0, 56.3))
        self.assertNotIn("unplanned_loss_percent", found, "4 % of a thin body")

    def test_a_planned_loss_half_as_fast_again(self):
        """1 kg a week is planned: 4 kg in four weeks, and 6.1 are past it."""
        plan = {"goal": "lose", "pace_kg_per_week": 1.0}
        for kg, there in ((5.9, False), (6.1, True)):
            found = self.signs("", (28, 100.0), (0, 100.0 - kg), **plan)
            self.assertEqual("unplanned_loss_percent" in found, there)


class Record_(unittest.TestCase):
    def test_days_of_very_little_and_swings(self):
        """Resting energy of 80 kg, 168 cm, 44 years is 1,469 kcal: under 881 is very little, over
        2,644 times activity much."""
        resting = 10 * 80 + 6.25 * 168 - 5 * 44 - 161
        self.assertEqual(resting, 1469.0)
        much = 1.8 * 1469.0 * 1.375
        for kcal, little in ((0.59 * 1469.0, 1.0), (0.61 * 1469.0, 0.0)):
            found = record_numbers(HER, [day(ago(3), kcal)], TODAY)
            self.assertEqual(found["logged_very_little"], little)
        for kcal, apart, swings in (
            (much + 20, 1, 1.0),
            (much - 20, 1, 0.0),
            (much + 20, 2, 1.0),
            (much + 20, 3, 0.0),
        ):
            rows = [day(ago(5), 600.0), day(ago(5 - apart), kcal)]
            self.assertEqual(record_numbers(HER, rows, TODAY)["logged_swings"], swings)
        for days, there in ((21, True), (22, False)):
            self.assertEqual(bool(record_numbers(HER, [day(ago(days), 900.0)], TODAY)), there)

    def test_hungry_days(self):
        """From 6 of 10 on; two of either kind; a difference of three twentieths."""
        for hunger, said in ((6.0, True), (5.9, False)):
            rows = [(hunger, day(ago(at), 1200.0)) for at in (1, 2)]
            rows += [(2.0, day(ago(at), 2000.0)) for at in (3, 4)]
            self.assertEqual(bool(hunger_words(rows)), said)
        rows = [(8.0, day(ago(at), 1200.0)) for at in (1, 2)]
        self.assertEqual(hunger_words([*rows, (2.0, day(ago(3), 2000.0))]), [])
        others = [(2.0, day(ago(at), 2000.0)) for at in (3, 4)]
        self.assertEqual(hunger_words([rows[0], *others]), [])
        for kcal, said in ((1680.0, True), (1720.0, False)):
            near = [(8.0, day(ago(at), kcal)) for at in (1, 2)]
            self.assertEqual(bool(hunger_words([*near, *others])), said)

    def test_goldbergs_variation(self):
        """Black (2000): 23 % of intake, 8.5 % of resting energy, 15 % of activity: over seven days
        exp(2 x sqrt(23²/7 + 8.5² + 15²) / 100) = 1.4714."""
        least, most = goldberg_cut_off(1.55, 7)
        self.assertAlmostEqual(least, 1.55 / 1.4714, places=3)
        self.assertAlmostEqual(most, 1.55 * 1.4714, places=3)
        with self.assertRaises(ValueError):
            goldberg_cut_off(1.55, 0)

    def test_three_days_are_held_against_the_body(self):
        steady = Pace(0.0, -0.1, 0.1, 28)
        self.assertIsNone(reported(HER, 1200.0, 2, steady))
        found = reported(HER, 1200.0, 3, steady)
        need = found.implied.need
        # 8 % of what holds the weight, and a tenth of a kilogram a week, in quadrature
        half = ((1.96 * 0.08 * need) ** 2 + (0.1 * 1100.0) ** 2) ** 0.5
        self.assertAlmostEqual(found.implied.high - need, half, places=6)
        losing = reported(HER, 1200.0, 7, Pace(-1.0, -1.1, -0.9, 28)).implied
        half = ((1.96 * 0.08 * need) ** 2 + (0.1 * 1100.0) ** 2 + (1.96 * 0.1 * 1100.0) ** 2) ** 0.5
        self.assertAlmostEqual(losing.high - losing.kcal, half, places=6)
        level = 2.0 * need
        for share, far in ((0.79, True), (0.81, None)):
            told = reported(HER, share * found.implied.kcal, 30, steady)
            if far is not None:
                self.assertEqual(told.far_under, far, level)


class Doubts(unittest.TestCase):
    def test_a_kilogram_and_a_half_from_what_is_expected_is_asked_about(self):
        rows = [Weighed(ago(days), 80.0) for days in range(40, 0, -1)]
        for kg, asked in ((81.4, False), (81.6, True), (78.4, True)):
            self.assertEqual(doubt(rows, Weighed(TODAY, kg)) is not None, asked, kg)

    def test_of_one_other_weigh_in(self):
        """0.8 kg and 0.05 for a day between: three and a half times that are 2.98 kg."""
        rows = [Weighed(ago(1), 80.0)]
        for kg, asked in ((82.9, False), (83.1, True)):
            self.assertEqual(doubt(rows, Weighed(TODAY, kg)) is not None, asked)
        rows = [Weighed(ago(31), 80.0)]
        # 0.8 and 1.55: 8.2 kg
        for kg, asked in ((88.1, False), (88.4, True)):
            self.assertEqual(doubt(rows, Weighed(TODAY, kg)) is not None, asked)

    def test_another_reading_fits_within_two_kilograms(self):
        rows = [Weighed(ago(days), 80.0) for days in range(40, 0, -1)]
        for pounds, kg in ((180.5, 81.9), (181.2, None)):
            self.assertEqual(doubt(rows, Weighed(TODAY, pounds)).likelier, kg)


class Attention(unittest.TestCase):
    def needs(self, rows, made_for=80.0, until=TODAY):
        return [one.words for one in attention(HER, rows, made_for, until, TODAY)]

    def test_a_fortnight_without_a_weigh_in(self):
        for days, said in ((14, False), (15, True)):
            found = self.needs(weighed((days, 80.0)))
            self.assertEqual(any("Last weighed" in words for words in found), said)

    def test_targets_that_are_three_percent_off(self):
        for kg, said in ((82.3, False), (82.5, True), (77.7, False), (77.5, True)):
            found = self.needs(weighed((1, kg)))
            self.assertEqual(any("Targets were made" in words for words in found), said, kg)

    def test_nothing_planned_from_the_day_after_tomorrow_on(self):
        for until, said in ((ago(1), False), (ago(2), True), (None, True)):
            found = self.needs(weighed((1, 80.0)), until=until)
            self.assertEqual("No day planned" in found, said)


class Causes(unittest.TestCase):
    """One plateau; each explanation alone, at its edge."""

    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        one = made(31, "plateau", pace=-0.6)
        cls.person = Person(
            sex="female",
            age_years=44,
            height_cm=168,
            weight_kg=round(one.truth[-1], 1),
            goal="lose",
            target_weight_kg=60,
            pace_kg_per_week=0.6,
        )
        cls.record = Record(
            person=cls.person,
            school=None,
            weighed=one.weighed,
            today=one.today,
            made_for_kg=cls.person.weight_kg,
        )
        cls.judged = judge_pace(cls.record)
        assert cls.judged.stalled
        cls.start, cls.end = why._window(cls.record, cls.judged)

    def test_dense_from_1_6_kcal_a_gram_on(self):
        self.assertEqual(why.DENSE_KCAL_PER_G, 1.6)
        for slug, dense in (("tofu-firm", False), ("walnuts", True)):
            kcal = FOODS[slug].per_100_g("energy_kcal") / 100.0
            self.assertEqual(kcal >= 1.6, dense)

    def test_worth_a_line_and_supported_by_its_share_of_the_gap(self):
        row = why.Cause(
            key="k", name="n", kcal=100.0, low=0, high=0, evidence=("e",), apart="a", change="c"
        )
        for gap, told, supported in (
            (1000.0, True, False),
            (1400.0, True, False),
            (1450.0, False, False),
            (670.0, True, False),
            (660.0, True, True),
        ):
            judged = replace(self.judged, gap_kcal=(gap, gap, gap))
            with self.subTest(gap=gap):
                found = self._with(row, judged)
                self.assertEqual(bool(found), told)
                self.assertEqual(bool(found) and found[0].supported, supported)

    def _with(self, row, judged):
        kept = {name: getattr(why, name) for name in LOOKS}
        try:
            for name in LOOKS:
                setattr(why, name, lambda record, judged: None)
            why._water = lambda record, judged: row
            return why.causes(self.record, judged)
        finally:
            for name, look in kept.items():
                setattr(why, name, look)

    def test_days_that_nobody_wrote_down(self):
        """From a quarter of the days on, with a quarter of the need each."""
        days = (self.record.today - self.start).days
        every = [self.start + timedelta(days=at) for at in range(days)]
        for missing in range(days + 1):
            logged = [day(on, 1500.0) for on in every[missing:]]
            found = why._unlogged(replace(self.record, logged=logged), self.judged)
            said = logged and missing / days >= 0.25
            self.assertEqual(found is not None, bool(said), missing)
        half = [day(on, 1500.0) for on in every[::2]]
        found = why._unlogged(replace(self.record, logged=half), self.judged)
        share = (days - len(half)) / days
        self.assertAlmostEqual(found.kcal, share * 0.25 * why._need(self.person))

    def test_weekends(self):
        """Three weekend days and five others; a hundred kilocalories more."""
        saturday = self.end - timedelta(days=(self.end.weekday() - 5) % 7 + 14)
        weekend = [saturday + timedelta(days=at) for at in (0, 1, 7)]
        week = [saturday + timedelta(days=at) for at in range(2, 7)]

        def found(weekend, week, more):
            rows = [day(on, 1800.0 + more) for on in weekend] + [day(on, 1800.0) for on in week]
            return why._weekends(replace(self.record, logged=rows), self.judged)

        self.assertAlmostEqual(found(weekend, week, 300.0).kcal, 300.0 * 2 / 7, places=3)
        self.assertIsNone(found(weekend[:2], week, 300.0))
        self.assertIsNone(found(weekend, week[:4], 300.0))
        self.assertIsNotNone(found(weekend, week, 101.0))
        self.assertIsNone(found(weekend, week, 99.0))

    def test_forgotten_from_three_days_on(self):
        rows = [day(self.end - timedelta(days=at), 700.0) for at in range(1, 4)]
        found = why._forgotten(replace(self.record, logged=rows), self.judged)
        self.assertIsNotNone(found)
        self.assertIsNone(why._forgotten(replace(self.record, logged=rows[:2]), self.judged))

    def test_need_by_the_record_from_a_week_on(self):
        rows = [day(self.end - timedelta(days=at), 1500.0) for at in range(1, 8)]
        found = why.need_by_record(replace(self.record, logged=rows), self.judged)
        self.assertIsNotNone(found)
        few = replace(self.record, logged=rows[:6])
        self.assertIsNone(why.need_by_record(few, self.judged))

    def test_water_before_a_period_is_possible_under_52_within_four_weeks(self):
        for age, days, said in ((51.9, 28, True), (52.0, 28, False), (51.9, 29, False)):
            person = replace(self.person, age_years=age)
            judged = replace(self.judged, pace=replace(self.judged.pace, days=days))
            found = why._water(replace(self.record, person=person), judged)
            self.assertEqual(found is not None, said)

    def test_the_thyroid(self):
        """Over 4.5 mIU/L it may slow the body by 3 % of the need, over 10 it does, by 6 %."""
        need = why._need(self.person)
        for tsh, share, supported in (
            (4.5, None, False),
            (4.6, 0.03, False),
            (10.0, 0.03, False),
            (10.1, 0.06, True),
        ):
            found = why._thyroid(replace(self.record, blood={"blood_tsh": tsh}), self.judged)
            if share is None:
                self.assertIsNone(found)
            else:
                self.assertAlmostEqual(found.kcal, share * need)
                self.assertEqual(found.supported, supported)

    def scale(self, after, before=None, count=8, happened=()):
        length = (self.end - self.start).days
        rows = []
        for at in range(count):
            on = self.start + timedelta(days=round(at * length / (count - 1)))
            rows.append(Weighed(on, 80.0, **(after if at >= count // 2 else before or {})))
        found = why._scale(replace(self.record, weighed=rows, happened=happened), self.judged)
        weeks = length / 7.0
        return found and found.kcal * weeks * 7.0 / 7700.0

    def test_the_scale_and_the_hour(self):
        """Later in the day 0.7 kg, dressed and another scale a kilogram."""
        self.assertAlmostEqual(self.scale({"time": LATER}, {"time": MORNING}), 0.7)
        self.assertAlmostEqual(self.scale({"dressed": True}), 1.0)
        self.assertAlmostEqual(self.scale({"scale": "new"}, {"scale": "old"}), 1.0)
        moved = [Happened("hour", self.end, self.end)]
        self.assertAlmostEqual(self.scale({}, happened=moved), 0.7)
        self.assertIsNone(self.scale({}))
        self.assertIsNone(self.scale({"dressed": True}, count=3), "one before, two after")
        self.assertIsNotNone(self.scale({"dressed": True}, count=4))
        self.assertIsNone(self.scale({"scale": "one"}, {"scale": "one"}))

    def test_in_words(self):
        rows = []
        for at in range(8):
            on = self.start + timedelta(days=at)
            rows.append(Weighed(on, 80.0, time=MORNING if at < 4 else LATER, dressed=at >= 4))
        found = why._scale(replace(self.record, weighed=rows), self.judged)
        self.assertEqual(
            found.evidence,
            ("Weighed later in the day lately, otherwise before.", "Weighed dressed lately."),
        )

    def test_without_earlier_days_the_later_half_is_held_against_the_first(self):
        span = (self.record.today - self.start).days
        days = [self.start + timedelta(days=at) for at in range(span + 1)]
        rows = [self._with_nuts(on, 10.0 if at <= span / 2 else 60.0) for at, on in enumerate(days)]
        found = why._portions(replace(self.record, logged=rows), self.judged)
        self.assertAlmostEqual(found.foods[0].before_g, 10.0)
        self.assertAlmostEqual(found.foods[0].after_g, 60.0)

    def test_weekends_among_the_days_not_logged(self):
        every = [
            self.start + timedelta(days=at) for at in range((self.record.today - self.start).days)
        ]
        for weekday, said in ((True, True), (False, False)):
            rows = [day(on, 1500.0) for on in every if (on.weekday() >= 5) != weekday]
            found = why._unlogged(replace(self.record, logged=rows), self.judged)
            words = " ".join(found.evidence)
            self.assertEqual("Saturdays and Sundays" in words, said)

    def test_half_of_the_later_ones(self):
        rows = []
        length = (self.end - self.start).days
        for at in range(8):
            on = self.start + timedelta(days=round(at * length / 7))
            rows.append(Weighed(on, 80.0, dressed=at in (4, 5)))
        record = replace(self.record, weighed=rows)
        self.assertIsNotNone(why._scale(record, self.judged), "two of four")
        rows[5] = replace(rows[5], dressed=False)
        self.assertIsNone(why._scale(replace(record, weighed=rows), self.judged))

    def test_portions_are_held_against_six_weeks_before(self):
        grew = {}
        for days in (42, 43):
            before = [
                self._with_nuts(self.start - timedelta(days=days - at), 10.0) for at in range(3)
            ]
            after = [self._with_nuts(self.end - timedelta(days=at), 60.0) for at in range(1, 6)]
            found = why._portions(replace(self.record, logged=[*before, *after]), self.judged)
            grew[days] = found
        self.assertIsInstance(grew[42].foods[0], Grew)
        self.assertIsNone(grew[43], "two whole days before are too few to say")

    def _with_nuts(self, on, grams):
        return LoggedDay(
            on=on,
            whole=True,
            eaten=(Bite("lunch", food_portion(FOODS["walnuts"], grams, grams, grams)),),
        )


LOOKS = (
    *("_water", "_scale", "_pace", "_thyroid", "_lighter", "_portions", "_weekends"),
    *("_unlogged", "_activity", "_forgotten"),
)


class Ahead(unittest.TestCase):
    def test_a_trend_needs_three_and_looks_back_half_a_year(self):
        self.assertIsNone(trend_of(weighed((2, 80.0), (1, 80.1))))
        self.assertIsNotNone(trend_of(weighed((3, 80.0), (2, 80.1), (1, 80.0))))
        for days, first in ((182, 182), (183, 2)):
            found = trend_of(weighed((days, 80.0), (2, 80.1), (1, 80.0), (0, 80.0)))
            self.assertEqual((TODAY - found.first).days, first)

    def test_a_pace_needs_a_week_and_three_quarters_of_its_span(self):
        rows = [(days, 80.0) for days in range(21, -1, -1)]
        found = trend_of(weighed(*rows))
        self.assertIsNotNone(found.pace(28))
        self.assertIsNone(trend_of(weighed(*rows[1:])).pace(28), "20 of 28 days")

    def test_where_it_is_heading_is_told_for_eight_weeks(self):
        found = heading(trend_of(weighed(*((days, 80.0) for days in range(40, -1, -1)))), HER)
        self.assertEqual((found.days[-1] - TODAY).days, 56)

    def test_usual_paces(self):
        """0.25 to 0.9 kg a week down, 0.1 to 0.5 up."""
        self.assertEqual(USUAL_GAIN, (0.1, 0.5))
        gains = replace(HER, goal="gain")
        found = usual_corridor(gains, ago(70), 80.0, 70)
        self.assertAlmostEqual(float(min(found.high[-1], found.low[-1])), 81.0, delta=0.05)
        self.assertAlmostEqual(float(max(found.high[-1], found.low[-1])), 85.0, delta=0.05)


class Corridors(unittest.TestCase):
    def test_a_fifth_to_either_side(self):
        person = replace(HER, goal="lose", pace_kg_per_week=0.5, target_weight_kg=70.0)
        found = asked_corridor(person, None, ago(7), 80.0, 7)
        self.assertAlmostEqual(found.low[-1], 79.4)
        self.assertAlmostEqual(found.high[-1], 79.6)

    def test_none_where_the_goal_is_reached(self):
        gains = replace(HER, goal="gain", pace_kg_per_week=0.2, target_weight_kg=82.0)
        for kg, there in ((81.9, True), (82.0, False), (82.1, False)):
            self.assertEqual(asked_corridor(gains, None, ago(7), kg, 7) is not None, there)
        loses = replace(HER, goal="lose", pace_kg_per_week=0.5, target_weight_kg=70.0)
        for kg, there in ((70.1, True), (70.0, False), (69.9, False)):
            self.assertEqual(asked_corridor(loses, None, ago(7), kg, 7) is not None, there)

    def test_ahead_the_pace_drifts_by_a_tenth_of_a_kilogram_a_week(self):
        """After eight weeks the spread is of the trend now, and of the pace and its drift over the
        way, in quadrature."""
        trend = trend_of(weighed(*((days, 80.0) for days in range(40, -1, -1))))
        pace = trend.lately
        found = heading(trend, HER)
        tau = 365.0 / 0.6931471805599453
        way = tau * (1.0 - 2.718281828459045 ** (-56 / tau)) / 7.0
        sd_pace = pace.half / 1.96
        wide = 1.96 * (trend.at(trend.last)[1] ** 2 + way**2 * (sd_pace**2 + 0.1**2)) ** 0.5
        self.assertAlmostEqual(found.high[-1] - found.kg[-1], wide, places=6)
