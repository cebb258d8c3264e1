"""Ticks on round numbers and on days that a calendar begins with."""

from datetime import date

from django.test import SimpleTestCase

from webkit.drawing.ticks import calendar_days, round_numbers


class RoundNumbers(SimpleTestCase):
    def test_the_smallest_round_step_that_is_not_too_many(self):
        for low, high, ticks in (
            (97.8, 102.3, [98, 99, 100, 101, 102]),
            # six steps of one are not too many, six and a bit are
            (97.0, 103.0, [97, 98, 99, 100, 101, 102, 103]),
            (97.0, 103.1, [98, 100, 102]),
            (60.0, 61.2, [60.0, 60.2, 60.4, 60.6, 60.8, 61.0, 61.2]),
            (50.0, 81.0, [50, 60, 70, 80]),
        ):
            with self.subTest(low=low, high=high):
                found, _step = round_numbers(low, high, 6)
                self.assertEqual([round(one, 6) for one in found], ticks)


class CalendarDays(SimpleTestCase):
    def said(self, first, last, most=9):
        return [said for _on, said in calendar_days(first, last, most)]

    def test_days_by_weeks_months_and_years(self):
        first = date(2026, 9, 28)
        for last, most, said in (
            (date(2026, 10, 3), 9, ["Sep 28", "Sep 29", "Sep 30", "Oct 1", "Oct 2", "Oct 3"]),
            (date(2026, 11, 4), 9, ["Oct 1", "Oct 8", "Oct 15", "Oct 22", "Nov 1"]),
            (date(2026, 11, 4), 4, ["Oct 1", "Oct 15", "Nov 1"]),
            # two months and some days are told by days, three by months
            (date(2026, 12, 27), 9, ["Oct 1", "Oct 15", "Nov 1", "Nov 15", "Dec 1", "Dec 15"]),
            (date(2026, 12, 28), 9, ["Oct", "Nov", "Dec"]),
            (date(2027, 10, 4), 5, ["Oct", "Jan", "Apr", "Jul", "Oct"]),
            (date(2029, 9, 27), 9, ["Jan", "Jul", "Jan", "Jul", "Jan", "Jul"]),
            (date(2029, 9, 28), 9, ["2027", "2028", "2029"]),
        ):
            with self.subTest(last=last, most=most):
                self.assertEqual(self.said(first, last, most), said)
