"""What one meal is shown against: what it answers for, as Balance asks it, or its share."""

from unittest import TestCase

from nutrition.targets.aims import aims_for, share_of_meal
from nutrition.targets.day import day_targets
from nutrition.targets.person import Person
from nutrition.targets.schools import schools

WHO = {
    "sex": "female",
    "age_years": 52,
    "height_cm": 168.0,
    "weight_kg": 70.0,
    "activity": "low_active",
}


class MealShare(TestCase):
    def test_it_never_asks_what_balance_does_not(self):
        for conditions in ((), ("ckd_3b",), ("hypertension",), ("diabetes", "insulin")):
            for school in (None, *schools().values()):
                day = day_targets(Person(**WHO, conditions=frozenset(conditions)), school)
                for meal in day.meals:
                    asked = {
                        aim.key: aim
                        for aim in aims_for(day, set(day.targets), meal.share, meal)
                        if aim.weight
                    }
                    for key in day.targets:
                        shown = share_of_meal(day, meal, key)
                        if not shown.judged:
                            continue
                        with self.subTest(conditions, school=school and school.code, key=key):
                            target = shown.target
                            if (target.low, target.high) == (None, None):
                                self.assertNotIn(key, asked)
                            elif key in asked:
                                aim = asked[key]
                                self.assertEqual(target.low, aim.low)
                                # an upper level may narrow what is asked, never widen it
                                if target.high is not None:
                                    self.assertLessEqual(aim.high, target.high + 1e-9)

    def test_what_is_a_matter_of_the_day_is_its_share(self):
        day = day_targets(Person(**WHO), None)
        lunch = next(meal for meal in day.meals if meal.key == "lunch")
        fiber = share_of_meal(day, lunch, "fiber_g")
        self.assertFalse(fiber.judged)
        self.assertAlmostEqual(fiber.target.aim, day["fiber_g"].aim * lunch.share)
        energy = share_of_meal(day, lunch, "energy_kcal")
        self.assertTrue(energy.judged)
        with self.assertRaises(KeyError):
            share_of_meal(day, lunch, "nonsense")
