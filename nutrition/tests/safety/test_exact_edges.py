"""On both sides of an edge, and on it: limits in force, a food's own most in a dish, numbers that
were set by hand."""

import unittest

from nutrition.composition.food_mosts import most_of
from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.safety.gate import OPEN
from nutrition.safety.limits_in_force import Limit, passed_limits
from nutrition.safety.situations import plan_numbers, plan_words
from nutrition.targets.day import day_targets
from nutrition.targets.person import Person
from nutrition.tests.safety.orders import order

MAN = Person(sex="male", age_years=50, height_cm=178, weight_kg=78)


def passed(key, most, amount, ordered):
    """What is said of a day with so much of something of which so much is the most."""
    limit = Limit(
        key=key,
        most=most,
        least=None,
        whose="Dr. N",
        ordered=ordered,
        why="as written",
        source="letter",
    )
    return list(passed_limits([limit], {"whole_day": 1.0, f"day_{key}": amount}, None, ()))


class Limits(unittest.TestCase):
    def test_an_order_stops_from_half_more_than_it_on(self):
        (one,) = passed("sodium_mg", 1000.0, 1500.0, ordered=True)
        self.assertEqual(one.level, "caution")
        (one,) = passed("sodium_mg", 1000.0, 1500.1, ordered=True)
        self.assertEqual(one.level, "stop and ask")

    def test_a_condition_s_limit_is_a_note_up_to_a_tenth_over(self):
        (one,) = passed("sodium_mg", 2000.0, 2200.0, ordered=False)
        self.assertEqual(one.level, "note")
        (one,) = passed("sodium_mg", 2000.0, 2200.2, ordered=False)
        self.assertEqual(one.level, "caution")

    def test_what_is_reached_is_not_passed(self):
        self.assertEqual(passed("sodium_mg", 2000.0, 2000.0, ordered=True), [])
        self.assertEqual(len(passed("sodium_mg", 2000.0, 2000.1, ordered=True)), 1)

    def test_figures_from_ten_on_are_whole(self):
        (one,) = passed("iron_mg", 10.0, 12.0, ordered=True)
        self.assertIn("12 mg of iron; 10 mg is the most", one.text)
        (one,) = passed("iron_mg", 9.0, 10.0, ordered=True)
        self.assertIn("10 mg of iron; 9.0 mg is the most", one.text)
        (one,) = passed("iron_mg", 9.0, 9.9, ordered=True)
        self.assertIn("9.9 mg of iron", one.text)


class Dishes(unittest.TestCase):
    def test_a_dish_may_hold_a_food_s_own_most_and_not_more(self):
        tried = 0
        for food in food_table():
            own = most_of(food)
            if own is None or own.most_g <= 0 or food.comparator:
                continue
            tried += 1
            self.assertNotIn(own.why, OPEN.why_not_dish([Ingredient(food, own.most_g)]))
            self.assertIn(own.why, OPEN.why_not_dish([Ingredient(food, own.most_g * 1.01)]))
        self.assertGreater(tried, 3)


class ByHand(unittest.TestCase):
    def test_a_wish_for_less_than_is_planned_of_this_body_is_against_it(self):
        day = day_targets(MAN)
        least = day.energy.least
        for under, against in ((0.4, 0.0), (0.6, 1.0)):
            wish = [order("energy_kcal", aim=least - under, kind="choice")]
            laid = day_targets(MAN, None, wish)
            self.assertEqual(plan_numbers(laid, wish)["choices_against"], against)
            self.assertEqual(bool(plan_words(laid, wish)["wished"]), bool(against))

    def test_an_order_for_less_opens_what_is_planned_of_this_body(self):
        least = day_targets(MAN).energy.least
        for under, opened in ((0.4, 0.0), (0.6, 1.0)):
            orders = [order("energy_kcal", aim=least - under)]
            laid = day_targets(MAN, None, orders)
            self.assertEqual(plan_numbers(laid, orders)["orders_opened"], opened)

    def test_a_pace_that_was_cut_is_said(self):
        """0.9 kg a week may be asked of 100 kg; of 1.4 kg some is cut."""
        for pace, cut in ((0.5, 0.0), (1.4, 1.0)):
            person = Person(
                sex="male",
                age_years=40,
                height_cm=180,
                weight_kg=100,
                goal="lose",
                pace_kg_per_week=pace,
            )
            self.assertEqual(plan_numbers(day_targets(person))["pace_cut"], cut)


if __name__ == "__main__":
    unittest.main()
