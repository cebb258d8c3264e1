"""Times of day as they are written and told."""

import unittest
from datetime import date

from nutrition.prep.timeline import kitchen
from nutrition.prep.timeline.clock import NIGHT_ENDS, clock, moment, read_moment

DAY = date(2026, 12, 5)


class Clock(unittest.TestCase):
    def test_however_it_is_written(self):
        for text, minutes, dated in (
            ("18:30", 1110, False),
            ("6:30 pm", 1110, False),
            ("6:30pm", 1110, False),
            ("12:05 am", 5, False),
            ("12 p.m.", 720, False),
            ("1 am", 60, False),
            ("12:59 pm", 779, False),
            ("23:59", 1439, False),
            ("18h30", 1110, False),
            ("18.30", 1110, False),
            ("7", 420, False),
            ("2026-12-05 18:30", 1110, True),
            ("2026-12-05T18:30:00", 1110, True),
            ("2026-12-04 21:00", -180, True),
            ("2026-12-06 00:30", 1470, True),
        ):
            self.assertEqual(read_moment(text, DAY), (minutes, dated), text)

    def test_what_is_no_time(self):
        for text in ("", "soon", "25:00", "18:60", "13:00 pm", "0 am", "2026-02-30 10:00", "18:3"):
            with self.assertRaises(ValueError, msg=text):
                read_moment(text, DAY)

    def test_told_with_the_date_where_it_is_another_day(self):
        for minutes, text in (
            (0, "00:00"),
            (1110, "18:30"),
            (1439, "23:59"),
            (1440, "2026-12-06 00:00"),
            (-1, "2026-12-04 23:59"),
            (-180, "2026-12-04 21:00"),
        ):
            self.assertEqual(moment(minutes, DAY), text)
        self.assertEqual(clock(-180), "21:00")

    def test_until_six_in_the_morning_it_is_the_night_of_the_evening_before(self):
        self.assertEqual(NIGHT_ENDS, 360)


class WhatAKitchenMayHave(unittest.TestCase):
    def test_so_many_of_each_and_the_usual_times(self):
        most = (
            kitchen.MOST_COOKS,
            kitchen.MOST_BURNERS,
            kitchen.MOST_OVENS,
            kitchen.MOST_SHELVES,
            kitchen.MOST_BLENDERS,
            kitchen.MOST_DISHES,
        )
        self.assertEqual(most, (6, 12, 4, 6, 4, 24))
        self.assertEqual((kitchen.USUAL_EARLIEST, kitchen.USUAL_READY), (900, 1080))
