"""When to cook: against every way of dividing the days among pots, and what holds of any plan."""

import math
import unittest
from itertools import product

from hypothesis import given, settings
from hypothesis import strategies as st

from nutrition.planning.cooking import cook, cost_of
from nutrition.planning.week import DAY_BEFORE, Prepared
from nutrition.tests.thorough import thorough

EATEN = st.lists(st.sampled_from([0.0, 0.0, 0.5, 1.0, 1.5, 2.6]), min_size=1, max_size=5)
PREPARED = st.builds(
    Prepared,
    key=st.just("pot"),
    name=st.just("pot"),
    least=st.sampled_from([0.0, 2.0, 3.0]),
    package=st.sampled_from([None, 2.0]),
    keeps=st.integers(0, 4),
    freezes=st.booleans(),
    cooks=st.booleans(),
    soaks=st.booleans(),
)


def counts(cost):
    """What a cooking plan costs in the order in which it counts: pots on other days than the
    cook's; what is left over, thrown away twice; pots; servings from the freezer."""
    thrown, frozen, off, pots, thawed = cost
    return off, round(2 * thrown + frozen, 2), pots, thawed


def by_trying_all(prepared, eaten, cook_days, first_evening):
    """The least cost among all ways to give each day a cooking day, days of one cooking day being
    one pot; a pot apart for two days of one cooking day is never cheaper."""
    days = [day for day, servings in enumerate(eaten) if servings]
    best = None
    for given_days in product(range(DAY_BEFORE, len(eaten)), repeat=len(days)):
        pots: dict[int, list[tuple[int, float]]] = {}
        possible = True
        for day, cooked in zip(days, given_days, strict=True):
            late = day - cooked > prepared.keeps and not prepared.freezes
            dry = prepared.soaks and cooked - 1 < first_evening
            possible = possible and cooked <= day and not late and not dry
            pots.setdefault(cooked, []).append((day, eaten[day]))
        if not possible:
            continue
        thrown = frozen = off = from_freezer = 0.0
        for cooked, some in pots.items():
            total = sum(servings for _day, servings in some)
            made = max(total, prepared.least)
            if prepared.package:
                made = math.ceil(made / prepared.package - 1e-6) * prepared.package
            left = round(made - total, 2)
            thrown, frozen = (
                (thrown, frozen + left) if prepared.freezes else (thrown + left, frozen)
            )
            off += prepared.cooks and cooked not in cook_days
            from_freezer += sum(one for day, one in some if day - cooked > prepared.keeps)
        cost = (round(thrown, 2), round(frozen, 2), off, len(pots), round(from_freezer, 2))
        best = cost if best is None or counts(cost) < counts(best) else best
    return best


class Cooking(unittest.TestCase):
    @settings(max_examples=150, deadline=None)
    @given(
        PREPARED, EATEN, st.frozensets(st.integers(-1, 4), max_size=3), st.sampled_from([-2, -1])
    )
    def test_no_other_division_among_pots_is_better(self, prepared, eaten, cook_days, evening):
        found = cook(prepared, tuple(eaten), cook_days, evening)
        wanted = by_trying_all(prepared, eaten, cook_days, evening) or (0.0, 0.0, 0, 0, 0.0)
        self.assertIsNotNone(found)
        self.assertEqual(counts(cost_of(found, cook_days)), counts(wanted))

    @thorough
    @settings(max_examples=60, deadline=None)
    @given(PREPARED, st.lists(st.sampled_from([0.0, 1.0, 2.0]), min_size=1, max_size=14))
    def test_what_is_eaten_adds_up_and_is_in_time(self, prepared, eaten):
        found = cook(prepared, tuple(eaten), frozenset({2, 6}))
        given_to = [0.0] * len(eaten)
        for pot in found:
            self.assertGreaterEqual(pot.made + 1e-9, sum(one for _day, one in pot.eaten))
            if prepared.package:
                self.assertAlmostEqual(pot.made % prepared.package, 0.0)
            for day, servings in pot.eaten:
                given_to[day] += servings
                self.assertLessEqual(pot.day, day)
                self.assertTrue(day <= pot.last_day or prepared.freezes)
                self.assertEqual(day > pot.last_day, (day, servings) in pot.frozen)
        self.assertEqual(given_to, list(eaten))

    def test_a_day_that_nothing_keeps_until_is_said(self):
        once = Prepared(key="pot", name="pot", most=1.0)
        self.assertIsNone(cook(once, (2.0,), frozenset()))

    # Facts of the trade: common practice, no source.

    def test_porridge_for_three_mornings_is_one_pot(self):
        porridge = Prepared(key="p", name="porridge", least=1.5, keeps=2)
        (pot,) = cook(porridge, (1.0, 1.0, 1.0), frozenset({0}))
        self.assertEqual((pot.day, pot.made, pot.left), (0, 3.0, 0.0))
        self.assertEqual(len(cook(porridge, (1.0, 1.0, 1.0, 1.0), frozenset({0}))), 2)

    def test_six_cups_of_nut_milk_are_three_people_for_two_days(self):
        milk = Prepared(key="m", name="nut milk", least=6.0, keeps=1, cooks=False)
        (pot,) = cook(milk, (3.0, 3.0), frozenset())
        self.assertEqual((pot.made, pot.left), (6.0, 0.0))
        third = cook(milk, (3.0, 3.0, 3.0), frozenset())
        self.assertEqual(sorted(one.left for one in third), [0.0, 3.0])

    def test_one_package_in_halves_on_two_days(self):
        tofu = Prepared(key="t", name="tofu", package=2.0, keeps=3, cooks=False)
        (pot,) = cook(tofu, (1.0, 0.0, 1.0), frozenset())
        self.assertEqual((pot.made, pot.left), (2.0, 0.0))
        self.assertEqual(sum(one.left for one in cook(tofu, (1.0,), frozenset())), 1.0)

    def test_a_pot_for_a_working_week_is_frozen_where_it_does_not_keep(self):
        soup = Prepared(key="s", name="soup", least=3.0, keeps=3, freezes=True)
        (pot,) = cook(soup, (2.0, 2.0, 2.0, 2.0, 2.0), frozenset({-1}))
        self.assertEqual((pot.day, pot.made), (-1, 10.0))
        self.assertEqual(pot.frozen, ((3, 2.0), (4, 2.0)))
