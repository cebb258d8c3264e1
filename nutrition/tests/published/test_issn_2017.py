"""ISSN position stand: protein and exercise (2017): 1.4 to 2.0 g/kg a day; 0.25 g/kg or 20 to 40 g
a meal; leucine 0.7 to 3 g."""

from unittest import TestCase

from nutrition.insight.summary import LEUCINE_MEAL_G
from nutrition.targets.day import day_targets
from nutrition.targets.person import Person
from nutrition.targets.schools import schools


class Strength(TestCase):
    def day(self, kg):
        return day_targets(
            Person(
                sex="male",
                age_years=30,
                height_cm=180,
                weight_kg=kg,
                activity="very_active",
                goal="hold",
            ),
            schools()["strength"],
        )

    def test_a_day(self):
        protein = self.day(80)["protein_g"]
        self.assertAlmostEqual(protein.low, 1.4 * 80)
        self.assertAlmostEqual(protein.high, 2.0 * 80)
        self.assertTrue(1.4 * 80 <= protein.aim <= 2.0 * 80)

    def test_a_meal(self):
        for kg, least in ((60, 20), (100 * 0.96, 24), (80, 20), (88, 22)):
            with self.subTest(kg):
                self.assertAlmostEqual(self.day(kg).meals[0].protein_min_g, least)

    def test_leucine(self):
        self.assertTrue(0.7 <= LEUCINE_MEAL_G <= 3.0)
        self.assertAlmostEqual(self.day(80)["leucine_g"].low, 3 * LEUCINE_MEAL_G)
