"""Targets that must not harm: who is referred, who is not lifted or lowered, what is taken as
tablets."""

from unittest import TestCase

from nutrition.safety.situations import plan_numbers, plan_words
from nutrition.targets.body_composition import energy_available, fat_free_kg, outside_equation
from nutrition.targets.day import day_targets
from nutrition.targets.energy import eer_2023
from nutrition.targets.gastric import stomach_ml, tablets_to_take
from nutrition.targets.orders import Order
from nutrition.targets.person import Person, Referred


def person(*conditions, **more):
    body = {"sex": "female", "age_years": 34, "height_cm": 168, "weight_kg": 62} | more
    return Person(**body, conditions=frozenset(conditions))


def order(key, **bounds):
    empty = {"low": None, "aim": None, "high": None}
    return Order(key=key, kind="order", reason="", by="Dr. N", license="1", **empty | bounds)


class Referrals(TestCase):
    def test_phenylketonuria_has_no_plan_without_the_clinic_s_numbers(self):
        for code in ("pku", "protein_disorder"):
            with self.assertRaises(Referred) as caught:
                day_targets(person(code))
            self.assertIn("metabolic clinic", caught.exception.refer_to)
            with self.assertRaises(Referred):
                day_targets(person(code), None, [order("sodium_mg", high=2000)])
            day = day_targets(person(code), None, [order("protein_g", low=8, aim=10, high=12)])
            self.assertEqual(day["protein_g"].high, 12)

    def test_kidney_disease_while_carrying_or_nursing(self):
        for code in ("ckd_1", "ckd_3b", "ckd_4", "ckd_5", "hemodialysis"):
            for stage in ("pregnant_1", "lactating_0_6"):
                with self.assertRaises(Referred) as caught:
                    day_targets(person(code, life_stage=stage))
                self.assertIn("nephrologist", caught.exception.refer_to)
        given = [order("protein_g", low=70, aim=75, high=85)]
        day = day_targets(person("ckd_4", life_stage="lactating_0_6"), None, given)
        self.assertEqual(day["protein_g"].aim, 75)
        self.assertIsNone(day["potassium_mg"].high, "no restriction steers")
        self.assertIsNotNone(day_targets(person("ckd_4"))["potassium_mg"].high)


class Bodies(TestCase):
    def test_nobody_small_is_lifted_above_their_need(self):
        small = person(height_cm=130, weight_kg=36, age_years=95, activity="inactive")
        day = day_targets(small)
        need = eer_2023("female", 95, 130, 36, "inactive")
        self.assertLess(need, 1200)
        self.assertAlmostEqual(day["energy_kcal"].aim, need, delta=1)

    def test_who_trains_hard_has_more_protein(self):
        day = day_targets(person(activity="very_active"))
        self.assertAlmostEqual(day["protein_g"].low, 1.2 * 62)
        self.assertGreaterEqual(day["protein_g"].high, 2.0 * 62)
        self.assertAlmostEqual(day_targets(person(activity="active"))["protein_g"].low, 0.8 * 62)
        kidneys = day_targets(person("ckd_4", activity="very_active"))
        self.assertAlmostEqual(kidneys["protein_g"].high, 0.60 * 62)

    def test_energy_available(self):
        # Janmahasatian (2005): 9270 x 62 / (8780 + 244 x 21.97)
        self.assertAlmostEqual(fat_free_kg(person()), 40.6, delta=0.1)
        man = person(sex="male", height_cm=180, weight_kg=80)
        self.assertAlmostEqual(fat_free_kg(man), 61.7, delta=0.1)
        self.assertEqual(fat_free_kg(person(fat_free_kg=45.0)), 45.0)
        self.assertIsNone(energy_available(person(), 2000))
        hard = person(activity="very_active", fat_free_kg=45.0)
        training = eer_2023("female", 34, 168, 62, "very_active") - eer_2023(
            "female", 34, 168, 62, "low_active"
        )
        self.assertAlmostEqual(energy_available(hard, 2000), (2000 - training) / 45.0)
        losing = day_targets(person(activity="very_active", goal="lose", weight_kg=75))
        self.assertIn("energy_available", plan_numbers(losing))

    def test_bodies_that_the_equation_was_not_made_for(self):
        self.assertEqual(outside_equation(person()), ())
        for more, word in (
            ({"age_years": 91}, "age"),
            ({"height_cm": 144}, "height"),
            ({"height_cm": 201}, "height"),
            ({"weight_kg": 41}, "weight"),
            ({"weight_kg": 151}, "weight"),
            ({"weight_kg": 114}, "BMI"),
        ):
            self.assertIn(word, " ".join(outside_equation(person(**more))))
        for more in ({"age_years": 89}, {"height_cm": 146, "weight_kg": 50}, {"weight_kg": 112}):
            self.assertEqual(outside_equation(person(**more)), ())

    def test_iron_overload_never_raises(self):
        target = day_targets(person("hemochromatosis"))["iron_mg"]
        self.assertEqual((target.low, target.aim), (None, 8))

    def test_calcium_in_kidney_disease(self):
        for code in ("ckd_3", "ckd_3b", "ckd_4"):
            target = day_targets(person(code))["calcium_mg"]
            self.assertEqual((target.low, target.aim, target.high), (800, 900, 1000), code)
        for more in (("ckd_4", "active_vitamin_d"), ("ckd_5",)):
            self.assertNotEqual(day_targets(person(*more))["calcium_mg"].high, 1000)

    def test_gestational_diabetes_has_snacks(self):
        day = day_targets(person("gestational_diabetes", life_stage="pregnant_2"))
        self.assertEqual([meal.key for meal in day.meals][-1], "snack")

    def test_lithium_keeps_its_salt(self):
        target = day_targets(person("lithium", "hypertension"))["sodium_mg"]
        self.assertEqual((target.low, target.aim, target.high), (1500, 2000, 2300))


class Gastric(TestCase):
    def test_tablets_are_said_by_kind_and_not_chased_with_food(self):
        words = "; ".join(tablets_to_take({"gastric_surgery", "gastric_bypass"}))
        for one in ("thiamin at least 12 mg", "3000 IU", "copper 2 mg", "zinc 8 to 22 mg"):
            self.assertIn(one, words)
        band = "; ".join(tablets_to_take({"gastric_surgery", "gastric_band"}))
        self.assertIn("copper 1 mg", band)
        switch = "; ".join(tablets_to_take({"gastric_surgery", "duodenal_switch"}))
        self.assertIn("1800 to 2400 mg", switch)
        self.assertEqual(tablets_to_take({"gout"}), ())
        day = day_targets(person("gastric_bypass"))
        self.assertIn("thiamin", plan_words(day)["tablets"])
        self.assertLess(day["vitamin_b12_ug"].aim, 10)
        self.assertLess(day["thiamin_mg"].aim, 2)
        self.assertGreaterEqual(day["protein_g"].low, 60)

    def test_what_a_meal_may_take_goes_by_the_months(self):
        have = {"gastric_surgery"}
        for months, ml in (
            (0, 100),
            (0.9, 100),
            (1, 150),
            (2.9, 150),
            (3, 200),
            (5.9, 200),
            (6, 300),
            (11.9, 300),
            (12, 400),
            (None, 400),
        ):
            self.assertEqual(stomach_ml(have, months), ml, months)
        self.assertIsNone(stomach_ml(set(), 3))
