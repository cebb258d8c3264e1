"""Work is counted: the same question has the same answer, however fast the clock runs."""

from itertools import count
from unittest import TestCase
from unittest.mock import patch

from nutrition.portions.proposals import proposals
from nutrition.portions.solver import balance
from nutrition.requests.balance_answer import STOPPED, as_text, solve
from nutrition.tests.portions.balance_cases import problem
from nutrition.tests.thorough import thorough

# problems that are not proved best within the work they may take, so that its limit shows
HARD = [(4, 12, 12), (103, 40, 25)]


class Work(TestCase):
    @thorough
    def test_the_same_question_has_the_same_answer(self):
        for seed, parts, targets in HARD:
            asked = problem(seed, parts, targets, hard=2, far=seed % 2 == 0)
            first = balance(asked)
            self.assertFalse(first.stopped)
            for _ in range(2):
                self.assertEqual(balance(asked), first)
        asked = problem(4, 12, 12, hard=2, far=True)
        told = [(one.name, one.answer.portions) for one in proposals(asked)]
        self.assertEqual([(one.name, one.answer.portions) for one in proposals(asked)], told)

    def test_a_faster_clock_changes_nothing_until_the_last_resort(self):
        asked = problem(4, 12, 12, hard=2, far=True)
        calm = balance(asked)
        ticks = count(0.0, 1e-6)
        with patch("nutrition.portions.work.perf_counter", lambda: next(ticks)):
            self.assertEqual(balance(asked), calm)

    @thorough
    def test_an_answer_that_the_clock_cut_short_says_so(self):
        asked = problem(4, 12, 12, hard=2, far=True)
        ticks = count(0.0, 1.0)
        with patch("nutrition.portions.work.perf_counter", lambda: next(ticks)):
            self.assertTrue(balance(asked).stopped)
        ticks = count(0.0, 1.0)
        with patch("nutrition.portions.work.perf_counter", lambda: next(ticks)):
            answer = solve(asked)
        self.assertEqual(answer.data()["stopped"], STOPPED)
        self.assertIn(STOPPED.capitalize(), as_text(asked, answer))
        self.assertEqual(solve(problem(0, 3, 3)).stopped, "")
