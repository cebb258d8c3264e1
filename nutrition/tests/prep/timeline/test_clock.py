"""Times of day as they are written and told."""

import unittest
from datetime import date

from nutrition.prep.timeline.clock import clock, moment, read_moment

DAY = date(2026, 12, 5)


class Clock(unittest.TestCase):
    def test_however_it_is_written(self):
        for text, minutes, dated in (
            ("18:30", 1110, False),
            ("6:30 pm", 1110, False),
            ("6:30pm", 1110, False),
            ("12:05 am", 5, False),
            ("12 p.m.", 720, False),
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
