"""KDOQI Clinical Practice Guideline for Nutrition in CKD, 2020 update: protein, energy, sodium."""

from unittest import TestCase

from nutrition.targets.day import day_targets
from nutrition.targets.orders import Order
from nutrition.targets.person import Person
from nutrition.targets.schools import schools


def day(*conditions, **changes):
    figures = {
        "sex": "female",
        "age_years": 60,
        "height_cm": 165,
        "weight_kg": 60,
        "activity": "inactive",
    } | changes
    school = schools().get(figures.pop("school", ""))
    orders = figures.pop("orders", ())
    return day_targets(Person(**figures, conditions=frozenset(conditions)), school, orders)


class Protein(TestCase):
    def per_kg(self, *conditions, **changes):
        target, kg = (made := day(*conditions, **changes))["protein_g"], made.weight.kg
        return round(target.low / kg, 3), round(target.high / kg, 3)

    def test_by_stage(self):
        for stage in ("ckd_3", "ckd_4", "ckd_5"):
            with self.subTest(stage):
                self.assertEqual(self.per_kg(stage), (0.55, 0.60))
                self.assertEqual(self.per_kg(stage, "diabetes"), (0.6, 0.8))
        self.assertEqual(self.per_kg("dialysis"), (1.0, 1.2))
        self.assertEqual(self.per_kg("ckd_5", "dialysis", "diabetes"), (1.0, 1.2))

    def test_neither_school_nor_goal_moves_it(self):
        self.assertEqual(self.per_kg("ckd_4", school="strength", goal="muscle"), (0.55, 0.60))
        self.assertEqual(self.per_kg("dialysis", school="kidney_gentle"), (1.0, 1.2))

    def test_the_more_protective_rule_where_muscle_is_at_stake(self):
        """KDIGO 2024 beside KDOQI 2020, both named where they part, the protective one in force."""
        for conditions, changes in (
            (("ckd_3b",), {"age_years": 80}),
            (("ckd_4", "frail"), {}),
            (("ckd_5",), {"goal": "lose", "weight_kg": 80}),
            (("ckd_3a",), {"weight_kg": 48}),
            (("ckd_3b", "diabetes", "frail"), {}),
        ):
            with self.subTest(conditions, **changes):
                made = day(*conditions, **changes)
                self.assertGreaterEqual(made["protein_g"].low, 0.8 * made.weight.kg - 1e-9)
                words = " ".join(row.words for row in made.disagreements if row.key == "protein_g")
                self.assertIn("KDIGO 2024", words)
                self.assertIn("KDOQI 2020", words)
        older = day("ckd_3", "frail", age_years=90, height_cm=155, weight_kg=45)
        self.assertGreaterEqual(older["protein_g"].low, 36)
        words = " ".join(row.words for row in day("ckd_3b").disagreements)
        self.assertIn("KDIGO 2024", words, "named beside the rule in force for the others too")

    def test_stages_have_numbers_of_their_own_and_say_that_no_blood_value_is_known(self):
        for key in ("potassium_mg", "phosphorus_mg"):
            most = [
                day(one)[key].high for one in ("ckd_3a", "ckd_3b", "ckd_4", "ckd_5", "dialysis")
            ]
            self.assertEqual(most, sorted(most, reverse=True))
            self.assertGreater(most[0], most[-1])
            for one in ("ckd_3a", "ckd_4", "peritoneal_dialysis"):
                self.assertIn("No blood value is here", day(one)[key].reason)

    def test_no_least_at_a_meal(self):
        self.assertEqual({meal.protein_min_g for meal in day("ckd_3").meals}, {None})

    def test_early_stages_keep_the_general_least(self):
        self.assertEqual(self.per_kg("ckd_1"), (0.8, 1.3))


class EnergyAndSalt(TestCase):
    def test_energy_is_kept_within_25_to_35_kcal_per_kg(self):
        for activity in ("inactive", "very_active"):
            for goal in ("hold", "lose"):
                with self.subTest(activity, goal=goal):
                    made = day("ckd_4", activity=activity, goal=goal)
                    per_kg = made["energy_kcal"].aim / made.weight.kg
                    self.assertGreaterEqual(per_kg, 25 - 1e-9)
                    self.assertLessEqual(per_kg, 35 + 1e-9)

    def test_sodium_is_under_2300_mg(self):
        for condition in ("ckd_3", "ckd_5", "dialysis"):
            self.assertLessEqual(day(condition)["sodium_mg"].high, 2300)

    def test_nothing_is_to_be_reached_for_potassium(self):
        self.assertIsNone(day("ckd_3")["potassium_mg"].low)
        self.assertLess(day("dialysis")["potassium_mg"].high, day("ckd_3")["potassium_mg"].high)

    def test_an_order_stands_over_it(self):
        made = day(
            "ckd_4",
            orders=[Order(key="protein_g", low=45, aim=48, high=50, kind="order", reason="letter")],
        )
        self.assertEqual((made["protein_g"].low, made["protein_g"].high), (45, 50))
        self.assertAlmostEqual(made.computed["protein_g"].high, 36)
