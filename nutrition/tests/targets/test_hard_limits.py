"""What holds at once, whatever a day was planned for, and what stays as it was planned."""

from unittest import TestCase

from nutrition.targets.day import day_targets
from nutrition.targets.hard_limits import (
    hard_keys,
    is_hard,
    moved,
    tightened,
    with_hard_limits,
)
from nutrition.targets.orders import Order
from nutrition.targets.person import Person


def person(**changes):
    return Person(**{"sex": "female", "age_years": 52, "height_cm": 165, "weight_kg": 62} | changes)


def order(key, kind="order", **numbers):
    bounds = {"low": None, "aim": None, "high": None} | numbers
    return Order(key=key, kind=kind, reason="letter", by="Dr. N", license="MD", **bounds)


PLANNED = day_targets(person())


class HardLimits(TestCase):
    def test_an_order_of_now_holds_on_what_was_planned(self):
        now = day_targets(person(), None, [order("potassium_mg", high=2000)])
        held = with_hard_limits(PLANNED, now)
        self.assertEqual(held["potassium_mg"].high, 2000)
        self.assertIsNone(PLANNED["potassium_mg"].high)
        self.assertEqual(hard_keys(PLANNED, now), {"potassium_mg"})

    def test_a_condition_s_most_holds_and_its_soft_targets_wait(self):
        now = day_targets(person(conditions=frozenset({"ckd_5"})))
        held = with_hard_limits(PLANNED, now)
        for key in ("potassium_mg", "sodium_mg", "phosphorus_mg"):
            with self.subTest(key):
                self.assertTrue(is_hard(now[key]))
                self.assertEqual(held[key].high, now[key].high)
        self.assertEqual(held["fiber_g"], PLANNED["fiber_g"])

    def test_a_wish_and_a_new_weight_wait(self):
        now = day_targets(
            person(weight_kg=75), None, [order("fiber_g", kind="choice", low=45, aim=50)]
        )
        held = with_hard_limits(PLANNED, now)
        self.assertEqual(held["fiber_g"], PLANNED["fiber_g"])
        self.assertEqual(held["energy_kcal"], PLANNED["energy_kcal"])
        self.assertEqual(hard_keys(PLANNED, now), frozenset())

    def test_an_order_that_ended_no_longer_holds(self):
        before = day_targets(person(), None, [order("potassium_mg", high=2000)])
        held = with_hard_limits(before, PLANNED)
        self.assertEqual(held["potassium_mg"], PLANNED["potassium_mg"])

    def test_an_order_of_protein_is_shared_out_anew(self):
        now = day_targets(person(), None, [order("protein_g", low=40, aim=50, high=60)])
        held = with_hard_limits(PLANNED, now)
        self.assertAlmostEqual(sum(meal.protein_g for meal in held.meals), 50.0)
        self.assertAlmostEqual(
            sum(meal.energy_kcal for meal in held.meals), PLANNED["energy_kcal"].aim
        )

    def test_a_limit_of_a_later_day_tightens_and_never_loosens(self):
        strict = day_targets(person(), None, [order("potassium_mg", high=2000)])
        stricter = day_targets(person(), None, [order("potassium_mg", high=1900)])
        self.assertEqual(tightened(strict, stricter)["potassium_mg"].high, 1900)
        self.assertEqual(tightened(stricter, strict)["potassium_mg"].high, 1900)
        self.assertEqual(tightened(PLANNED, strict)["potassium_mg"].high, 2000)

    def test_what_newer_targets_change_is_said_in_both_words(self):
        now = day_targets(person(), None, [order("fiber_g", kind="choice", low=45, aim=50)])
        (row,) = moved(PLANNED.targets, now.targets)
        self.assertEqual(row.key, "fiber_g")
        self.assertIn("45", row.after)
        self.assertNotEqual(row.before, row.after)
        self.assertEqual(moved(PLANNED.targets, PLANNED.targets), [])
