"""Which bounds are never broken: each bound knows whose it is."""

from unittest import TestCase

from nutrition.composition.amounts import DENSITY
from nutrition.targets.aims import aims_for
from nutrition.targets.conditions import conditions
from nutrition.targets.day import day_targets
from nutrition.targets.orders import Order
from nutrition.targets.person import Person, Referred
from nutrition.targets.schools import schools
from nutrition.targets.voices import CONDITION, GENERAL, ORDER


def person(**changes):
    return Person(sex="female", age_years=72, height_cm=165, weight_kg=62, **changes)


def aim(day, key, share=1.0):
    return next(one for one in aims_for(day, (key,), share) if one.key == key)


def order(key, **numbers):
    bounds = {"low": None, "aim": None, "high": None} | numbers
    return Order(key=key, kind="order", reason="", by="Dr. N", license="MD", **bounds)


class FirmBounds(TestCase):
    def test_over_65_the_general_most_of_protein_is_nobodys_limit(self):
        day = day_targets(person())
        target = day["protein_g"]
        self.assertEqual(target.voice, conditions()["over_65"].name)
        self.assertEqual((target.low_by.rank, target.high_by.rank), (CONDITION, GENERAL))
        self.assertIsNotNone(target.high)
        self.assertFalse(aim(day, "protein_g").firm)
        self.assertFalse(aim(day, "protein_g", 0.3).firm)

    def test_a_restriction_without_a_value_behind_it_aims(self):
        for more, firm in ((set(), False), ({"ace_inhibitor"}, True), ({"ckd_5"}, True)):
            stage = {"ckd_4"} if "ckd_5" not in more else set()
            day = day_targets(person(conditions=frozenset(stage | more)))
            with self.subTest(more):
                self.assertEqual(aim(day, "potassium_mg").firm_high, firm)
                self.assertEqual(day["potassium_mg"].high, 3000)
        day = day_targets(person(conditions=frozenset({"ckd_4"})))
        self.assertFalse(day["phosphorus_mg"].firm_high)
        old = person(
            conditions=frozenset({"ckd_4"}), old_values=frozenset({"phosphate", "potassium"})
        )
        for key in ("phosphorus_mg", "potassium_mg"):
            self.assertTrue(aim(day_targets(old), key).firm_high, "it was measured, and is old")

    def test_a_condition_s_own_most_is(self):
        day = day_targets(person(conditions=frozenset({"ckd_3", "sartan"})))
        for key in ("protein_g", "potassium_mg", "sodium_mg"):
            with self.subTest(key):
                self.assertEqual(day[key].high_by.rank, CONDITION)
                self.assertEqual((aim(day, key).firm_low, aim(day, key).firm_high), (False, True))

    def test_an_order_holds_its_own_bounds_and_not_those_it_leaves(self):
        day = day_targets(person(), None, [order("potassium_mg", high=2000)])
        self.assertTrue(aim(day, "potassium_mg").firm_high)
        day = day_targets(person(), None, [order("protein_g", low=70)])
        held = aim(day, "protein_g")
        self.assertEqual((held.firm_low, held.firm_high), (True, False))
        self.assertEqual(day["protein_g"].low_by.rank, ORDER)

    def test_a_wish_within_a_condition_does_not_loosen_it(self):
        wish = Order(
            key="potassium_mg", low=None, aim=None, high=2500, kind="choice", reason="taste"
        )
        for more, firm in ((set(), False), ({"sartan"}, True)):
            day = day_targets(person(conditions=frozenset({"ckd_4"} | more)), None, [wish])
            held = next(
                one for one in aims_for(day, ("potassium_mg",)) if one.key == "potassium_mg"
            )
            self.assertEqual((held.high, held.firm_high), (2500, firm))

    def test_a_meal_s_target_is_the_day_s_scaled(self):
        day = day_targets(person())
        for key, target in day.targets.items():
            scaled = target.scaled(0.25)
            for name in ("low", "aim", "high"):
                was, now = getattr(target, name), getattr(scaled, name)
                if was is None or key == DENSITY:
                    self.assertEqual(now, was)
                else:
                    self.assertAlmostEqual(now, was / 4)
            self.assertEqual((scaled.low_by, scaled.high_by), (target.low_by, target.high_by))

    def test_nothing_general_is_ever_firm_for_any_condition_or_school(self):
        for code in conditions():
            for school in (None, *schools().values()):
                try:
                    day = day_targets(person(conditions=frozenset({code})), school)
                except Referred:
                    continue
                for target in day.targets.values():
                    by, there = target.high_by, target.high is not None
                    firm = there and by.rank > 1 and not by.aims_only
                    self.assertEqual(target.firm_high, firm, code)
                    self.assertFalse(target.firm_low)
