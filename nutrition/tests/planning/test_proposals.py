"""Which weeks are offered beside the nearest, and which of them is the nearest."""

import unittest
from dataclasses import replace
from unittest.mock import patch

from nutrition.planning import proposals
from nutrition.planning.orders import LEAST_COOKING, NEAREST
from nutrition.planning.proposals import PlannedWeek
from nutrition.planning.score import Score
from nutrition.planning.search import Planning


def planning(name="one", warned=(), **sums):
    days = {day: ["a word"] for day in warned}
    return Planning(planned={name: None}, score=Score(**sums), warned=days)


def week_of(found):
    return PlannedWeek(planning=found, pots=(), missed=(), starved={})


class Another(unittest.TestCase):
    def another(self, found, *before):
        return proposals._is_another(LEAST_COOKING, found, [week_of(one) for one in before])

    def test_it_is_better_at_what_it_was_made_for(self):
        first = planning(pots=6)
        self.assertTrue(self.another(planning(pots=5), first))
        self.assertFalse(self.another(planning(pots=6), first))

    def test_and_no_worse_by_what_people_would_eat_and_are_safe_with(self):
        first = planning(pots=6, pattern=2)
        for sums, offered in (
            ({"pattern": 2}, True),
            ({"pattern": 1}, True),
            ({"pattern": 3}, False),
            ({"pattern": 2, "starved": 1}, False),
            ({"pattern": 0, "hard": 1}, False),
            # what it gives up of energy it says
            ({"pattern": 2, "leading": 3}, True),
        ):
            self.assertEqual(self.another(planning(pots=4, **sums), first), offered, sums)

    def test_nor_warned_of_on_more_days(self):
        first = planning(pots=6, warned=(1,))
        self.assertTrue(self.another(planning(pots=5, warned=(4,)), first))
        self.assertFalse(self.another(planning(pots=5, warned=(1, 4)), first))


class Nearest(unittest.TestCase):
    def nearest(self, *found):
        by_name = {next(iter(one.planned)): one.score for one in found}
        with patch.object(proposals, "score", lambda _week, planned: by_name[next(iter(planned))]):
            return proposals._nearest(None, found)

    def test_one_that_was_made_for_something_else_may_have_come_nearer(self):
        first = replace(planning("first", leading=3), proved=("hard",))
        other = replace(planning("other", leading=2), order=LEAST_COOKING, proved=("hard",))
        found = self.nearest(first, other)
        self.assertEqual(next(iter(found.planned)), "other")
        self.assertEqual((found.order, found.proved), (NEAREST, ()))
        self.assertIs(self.nearest(first, planning("other", leading=4)), first)
        self.assertIs(self.nearest(first, planning("other", leading=3)), first)

    def test_but_not_where_its_page_warns_of_more_days(self):
        first = planning("first", leading=3, warned=(2,))
        self.assertIs(self.nearest(first, planning("other", leading=2, warned=(2, 5))), first)
        found = self.nearest(first, planning("other", leading=2, warned=(5,)))
        self.assertEqual(next(iter(found.planned)), "other")
