"""Which meal a bowl is, and how much of a day is filled."""

from unittest import TestCase

from nutrition.targets.day import day_targets
from nutrition.targets.meals import filled_share, likely_meal
from nutrition.targets.person import Person


class Meals(TestCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        person = Person(
            sex="female", age_years=34, height_cm=168, weight_kg=64, activity="low_active"
        )
        cls.meals = day_targets(person).meals

    def test_a_bowl_is_the_main_meal_whose_energy_it_comes_nearest_to(self):
        mains = {meal.key: meal.energy_kcal for meal in self.meals}
        for kcal in (mains["breakfast"], mains["dinner"]):
            found = likely_meal(self.meals, kcal)
            self.assertAlmostEqual(found.energy_kcal, kcal)
        self.assertNotEqual(likely_meal(self.meals, 40.0).key, "snack")
        self.assertIsNone(likely_meal((), 500.0))

    def test_what_is_filled_is_the_share_of_the_meals_with_something_in_them(self):
        keys = [meal.key for meal in self.meals]
        first, rest = self.meals[0], self.meals[1:]
        some = filled_share(self.meals, [first.key])
        self.assertAlmostEqual(some.share, first.share)
        self.assertEqual(some.empty, [meal.name for meal in rest if meal.share > 0])
        self.assertAlmostEqual(filled_share(self.meals, keys).share, 1.0)
        self.assertAlmostEqual(filled_share(self.meals, []).share, 1.0)
