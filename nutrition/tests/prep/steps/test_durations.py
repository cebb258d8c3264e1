"""Times as cooks write them."""

import unittest

from nutrition.prep.steps.durations import is_only_a_time, stated_in


class Durations(unittest.TestCase):
    def test_spans(self):
        for text, least, usual, most in (
            ("Roast 30 minutes", 30, 30, 30),
            ("simmer 25-30 min", 25, 27.5, 30),
            ("bake 35 to 40 minutes", 35, 37.5, 40),
            ("half an hour", 30, 30, 30),
            ("three quarters of an hour", 45, 45, 45),
            ("let it stand a quarter of an hour", 15, 15, 15),
            ("an hour and a half", 90, 90, 90),
            ("1 1/2 hours", 90, 90, 90),
            ("1½ hours", 90, 90, 90),
            ("1 hour 20 minutes", 80, 80, 80),
            ("an hour and ten minutes", 70, 70, 70),
            ("two to three hours", 120, 150, 180),
            ("twenty-five minutes", 25, 25, 25),
            ("30 seconds", 0.5, 0.5, 0.5),
            ("a few minutes", 2, 3.5, 5),
            ("a couple of minutes", 2, 2, 2),
            ("several minutes", 3, 4.5, 6),
            ("for two days", 2880, 2880, 2880),
            ("soak overnight", 480, 600, 720),
            ("in the refrigerator until morning", 480, 600, 720),
            ("8 hours or overnight", 480, 480, 720),
            ("at least 1 hour or overnight", 60, 60, 720),
            ("let it stand covered for 5", 5, 5, 5),
        ):
            with self.subTest(text):
                found = stated_in(text)
                self.assertEqual((found.least, found.usual, found.most), (least, usual, most))

    def test_no_time(self):
        for text in ("add 2 cups water for 4 people", "until soft", "cut in 8", "at 200 °C"):
            self.assertIsNone(stated_in(text), text)

    def test_the_end_of_something_longer_and_what_comes_on_top(self):
        for text, usual, last, more in (
            ("add kohlrabi for the last six", 6, True, False),
            ("peas in for the last 5 minutes", 5, True, False),
            ("five minutes more", 5, False, True),
            ("add the roots for another 15", 15, False, True),
            ("add beans for eight more", 8, False, True),
        ):
            found = stated_in(text)
            self.assertEqual((found.usual, found.last, found.more), (usual, last, more), text)
        self.assertEqual(stated_in("vegetables for the last half").share, 0.5)
        self.assertEqual(stated_in("onions in for the last quarter").share, 0.25)

    def test_only_a_time(self):
        for text, only in (
            ("about 25 minutes", True),
            ("15 to 20 min", True),
            ("for half an hour", True),
            ("kale for ten minutes", False),
            ("", False),
        ):
            self.assertEqual(is_only_a_time(text), only, text)
