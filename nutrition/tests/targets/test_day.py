"""Targets of a day, worked by hand and held over people."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from nutrition.composition.foods import food_table
from nutrition.targets.day import day_targets
from nutrition.targets.person import GOAL_WORDS, OutOfRange, Person

FOODS = food_table()


class Targets(TestCase):
    def test_a_day_worked_by_hand(self):
        """Woman of 30, 60 kg, 165 cm: 600 + 1031.25 - 150 - 161 = 1320.25 at rest, x 1.55 =
        2046."""
        day = day_targets(
            Person(
                sex="female",
                age_years=30,
                height_cm=165,
                weight_kg=60,
                activity="active",
                goal="hold",
                formula="mifflin",
            )
        )
        self.assertAlmostEqual(day["energy_kcal"].aim, 1320.25 * 1.55)
        self.assertAlmostEqual(day["protein_g"].low, 48)
        self.assertAlmostEqual(day["fiber_g"].low, 14 * 1320.25 * 1.55 / 1000)
        self.assertEqual((day["sodium_mg"].aim, day["sodium_mg"].high), (1500, 2300))
        self.assertIn("1320 kcal x 1.55 for activity = 2046", day["energy_kcal"].reason)

    def test_the_2023_equations_are_the_default(self):
        day = day_targets(
            Person(sex="female", age_years=30, height_cm=165, weight_kg=60, activity="inactive")
        )
        self.assertAlmostEqual(day["energy_kcal"].aim, 584.90 - 210.30 + 943.80 + 702.60)

    def test_pregnancy(self):
        before, during = (
            day_targets(
                Person(sex="female", age_years=30, height_cm=165, weight_kg=60, life_stage=stage)
            )
            for stage in ("adult", "pregnant_2")
        )
        self.assertAlmostEqual(
            during["energy_kcal"].aim,
            693.35 - 2.04 * 30 + 5.73 * 165 + 10.20 * 60 + 9.16 * 20 + 200,
        )
        self.assertGreater(during["energy_kcal"].aim, before["energy_kcal"].aim + 250)
        self.assertAlmostEqual(during["protein_g"].low, 66)
        self.assertEqual(
            (during["iron_mg"].low, during["iodine_ug"].low, during["folate_ug"].low),
            (27, 220, 600),
        )
        with self.assertRaises(OutOfRange):
            day_targets(
                Person(
                    sex="male", age_years=30, height_cm=165, weight_kg=60, life_stage="pregnant_2"
                )
            )
        losing = day_targets(
            Person(
                sex="female",
                age_years=30,
                height_cm=165,
                weight_kg=60,
                goal="lose",
                life_stage="pregnant_2",
            )
        )
        self.assertEqual(
            (losing.energy.change, losing.energy.held_because),
            (0.0, "no loss is planned in pregnancy"),
        )

    def test_shares_of_the_energy(self):
        day = day_targets(
            Person(
                sex="female",
                age_years=30,
                height_cm=165,
                weight_kg=60,
                activity="active",
                formula="mifflin",
            )
        )
        kcal = day["energy_kcal"].aim
        self.assertAlmostEqual(day["fat_g"].low, 0.20 * kcal / 9)
        self.assertAlmostEqual(day["fat_g"].high, 0.35 * kcal / 9)
        self.assertAlmostEqual(day["saturated_fat_g"].high, 0.10 * kcal / 9)
        self.assertAlmostEqual(day["added_sugars_g"].high, 0.10 * kcal / 4)

    def test_energy_never_goes_under_the_floor(self):
        day = day_targets(
            Person(
                sex="female",
                age_years=80,
                height_cm=150,
                weight_kg=48,
                activity="inactive",
                goal="lose",
            )
        )
        self.assertEqual(day["energy_kcal"].aim, 1200)
        self.assertEqual(day["energy_kcal"].low, 1200)
        self.assertIn("floor", day["energy_kcal"].reason)

    @given(
        st.floats(61, 299),
        st.sampled_from(["female", "male"]),
        st.sampled_from(list(GOAL_WORDS)),
        st.floats(18, 110),
    )
    def test_heavier_never_needs_less_and_bands_hold_their_aim(self, weight, sex, goal, age):
        light = day_targets(
            Person(
                sex=sex,
                age_years=age,
                height_cm=170,
                weight_kg=weight,
                activity="low_active",
                goal=goal,
            )
        )
        heavy = day_targets(
            Person(
                sex=sex,
                age_years=age,
                height_cm=170,
                weight_kg=weight + 1,
                activity="low_active",
                goal=goal,
            )
        )
        self.assertGreaterEqual(heavy["energy_kcal"].aim, light["energy_kcal"].aim)
        for target in light.targets.values():
            self.assertTrue(
                target.aim >= (target.aim if target.low is None else target.low), target.key
            )
            self.assertTrue(
                target.aim <= (target.aim if target.high is None else target.high), target.key
            )
            self.assertTrue(target.source and target.reason)

    def test_impossible_figures_name_their_field(self):
        for field, value in (
            ("age_years", -3),
            ("height_cm", 900),
            ("weight_kg", 5),
            ("age_years", 16),
        ):
            person = Person(
                **(
                    {"sex": "male", "age_years": 40, "height_cm": 180, "weight_kg": 80}
                    | {field: value}
                )
            )
            with self.subTest(field), self.assertRaises(OutOfRange) as caught:
                day_targets(person)
            self.assertEqual(caught.exception.field, field)
