"""What an answer is kept by."""

import unittest
from functools import lru_cache

from nutrition.composition.same_question import Asked


class SameQuestion(unittest.TestCase):
    def test_the_same_key_is_the_same_question_whatever_it_is_about(self):
        one, other = Asked([1], ("a", 1)), Asked([2], ("a", 1))
        self.assertEqual(one, other)
        self.assertEqual(hash(one), hash(other))
        self.assertNotEqual(one, Asked([1], ("a", 2)))
        self.assertNotEqual(one, ("a", 1))

    def test_what_was_asked_before_is_not_looked_at_again(self):
        looked_at = []

        @lru_cache(maxsize=8)
        def answer(asked):
            looked_at.append(asked.about)
            return len(looked_at)

        first, second = [1], [1]
        self.assertEqual(answer(Asked(first, id(first))), 1)
        self.assertEqual(answer(Asked(first, id(first))), 1)
        self.assertEqual(answer(Asked(second, id(second))), 2)
        self.assertEqual(len(looked_at), 2)


if __name__ == "__main__":
    unittest.main()
