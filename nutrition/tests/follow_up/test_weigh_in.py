"""Weights as they are read off a scale, and the questions that are asked of them."""

from datetime import date, timedelta
from unittest import TestCase

from nutrition.follow_up.doubts import doubt
from nutrition.follow_up.weigh_in import Weighed, read_weight

START = date(2026, 10, 1)


class Reading(TestCase):
    def test_units_and_commas(self):
        for text, kg in (
            ("101.4", 101.4),
            ("101,4 kg", 101.4),
            ("223.5 lb", 101.38),
            ("223.5lbs", 101.38),
            ("15 st 13", 101.15),
            ("15 stone 13 lb", 101.15),
            ("16st", 101.6),
        ):
            self.assertAlmostEqual(read_weight(text), kg, places=2, msg=text)

    def test_what_is_none(self):
        for text in ("", "heavy", "101 5", "kg 101", "-80", "101.4.2", "1e3", "nan"):
            self.assertIsNone(read_weight(text), text)


class Doubts(TestCase):
    def rows(self, kg=88.0):
        return [
            Weighed(START + timedelta(days=3 * at), kg - 0.1 * at + (0.2 if at % 2 else -0.2))
            for at in range(10)
        ]

    def ask(self, kg, rows=None, days=30):
        return doubt(
            self.rows() if rows is None else rows, Weighed(START + timedelta(days=days), kg)
        )

    def test_what_mornings_differ_by_is_not_asked_about(self):
        for kg in (86.2, 87.0, 88.4, 88.3):
            self.assertIsNone(self.ask(kg), kg)

    def test_pounds_a_point_and_swapped_digits_are_guessed(self):
        for kg, words, likelier in (
            (191.8, "pounds", 87.0),
            (8.7, "digit missing", 87.0),
            (78.0, "swapped", 87.0),
        ):
            asked = self.ask(kg)
            self.assertIn(words, asked.words)
            self.assertAlmostEqual(asked.likelier, likelier, delta=0.5)

    def test_a_real_change_is_asked_about_and_nothing_is_guessed(self):
        asked = self.ask(94.0)
        self.assertIsNone(asked.likelier)
        self.assertIn("over what the others lead to expect", asked.words)

    def test_the_longer_ago_the_more_may_have_changed(self):
        few = [Weighed(START, 88.0)]
        self.assertIsNotNone(self.ask(84.0, few, 1))
        self.assertIsNone(self.ask(84.0, few, 120))
        self.assertIsNone(self.ask(300.0, []))
