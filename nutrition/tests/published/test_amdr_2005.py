"""National Academies, Dietary Reference Intakes (2005): acceptable macronutrient distribution
ranges, fiber; and the upper levels of the volumes of 1997 to 2011, from memory."""

from unittest import TestCase

from nutrition.targets.day import day_targets
from nutrition.targets.general_guidance import amdr_g
from nutrition.targets.person import Person


class Shares(TestCase):
    def test_of_2000_kcal(self):
        for key, low, high in (
            ("protein_g", 50, 175),
            ("fat_g", 400 / 9, 700 / 9),
            ("carbohydrate_g", 225, 325),
        ):
            with self.subTest(key):
                found = amdr_g(key, 2000)
                self.assertAlmostEqual(found[0], low)
                self.assertAlmostEqual(found[1], high)

    def test_the_day_stays_inside_them(self):
        day = day_targets(
            Person(sex="female", age_years=40, height_cm=165, weight_kg=62, activity="active")
        )
        kcal = day["energy_kcal"].aim
        for key in ("fat_g", "carbohydrate_g"):
            self.assertEqual((day[key].low, day[key].high), amdr_g(key, kcal))
        self.assertAlmostEqual(day["protein_g"].high, 0.35 * kcal / 4)
        self.assertAlmostEqual(day["fiber_g"].low, 14 * kcal / 1000)

    def test_never_under_the_rda_of_carbohydrate(self):
        self.assertGreaterEqual(
            day_targets(
                Person(
                    sex="female",
                    age_years=90,
                    height_cm=150,
                    weight_kg=40,
                    activity="inactive",
                    goal="lose",
                )
            )["carbohydrate_g"].low,
            130,
        )

    def test_upper_levels(self):
        day = day_targets(Person(sex="male", age_years=40, height_cm=180, weight_kg=80))
        for key, most in (
            ("vitamin_c_mg", 2000),
            ("vitamin_d_ug", 100),
            ("vitamin_b6_mg", 100),
            ("choline_mg", 3500),
            ("calcium_mg", 2500),
            ("iron_mg", 45),
            ("zinc_mg", 40),
            ("copper_mg", 10),
            ("manganese_mg", 11),
            ("selenium_ug", 400),
            ("iodine_ug", 1100),
            ("phosphorus_mg", 4000),
        ):
            with self.subTest(key):
                self.assertEqual(day[key].high, most)
        self.assertEqual(
            day_targets(Person(sex="male", age_years=60, height_cm=180, weight_kg=80))[
                "calcium_mg"
            ].high,
            2000,
        )
        self.assertEqual(
            day_targets(Person(sex="male", age_years=75, height_cm=180, weight_kg=80))[
                "phosphorus_mg"
            ].high,
            3000,
        )

    def test_plants_alone(self):
        """DRI 2001: iron x 1.8, zinc up to x 1.5, unless it is switched off."""
        plants = day_targets(Person(sex="female", age_years=30, height_cm=165, weight_kg=60))
        plain = day_targets(
            Person(
                sex="female",
                age_years=30,
                height_cm=165,
                weight_kg=60,
                vegan_iron=False,
                vegan_zinc=False,
            )
        )
        self.assertIn("without the factor it is 18 mg", plants["iron_mg"].reason)
        self.assertEqual((plain["iron_mg"].low, plain["zinc_mg"].low), (18, 8))
        self.assertAlmostEqual(plants["iron_mg"].low, 32.4)
        self.assertAlmostEqual(plants["zinc_mg"].low, 12)
        # over the upper level the level stays, and the plain value is the least
        carrying = day_targets(
            Person(
                sex="female",
                age_years=30,
                height_cm=165,
                weight_kg=60,
                life_stage="pregnant_2",
                vegan_iron=True,
            )
        )["iron_mg"]
        self.assertEqual((carrying.low, carrying.high), (27, 45))
        self.assertIn("above the upper level", carrying.reason)
