"""A dish is liked that was eaten twice and never left."""

import unittest

from nutrition.follow_up.gladly import is_liked


class Gladly(unittest.TestCase):
    def test_eaten_twice_and_never_left(self):
        for eaten, left, liked in ((1, 0, False), (2, 0, True), (5, 0, True), (5, 1, False)):
            self.assertEqual(is_liked(eaten, left), liked, (eaten, left))


if __name__ == "__main__":
    unittest.main()
