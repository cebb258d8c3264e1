"""What is in force is watched: orders, limits of conditions, upper levels, fluid."""

from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.profile import Profile
from nutrition.safety.cautions import cautions_in
from nutrition.safety.situations import (
    PlannedDay,
    day_numbers,
    plan_numbers,
    planned_situation,
)
from nutrition.safety.upper_levels import upper_levels
from nutrition.targets.day import day_targets
from nutrition.targets.person import Person
from nutrition.tests.safety.orders import order

FOODS = food_table()


def told(foods=None, orders=(), conditions=(), numbers=None, whole_day=True, **person):
    """What stands for somebody who eats these foods, slug = grams, over a whole day."""
    body = {"sex": "male", "age_years": 50, "height_cm": 178, "weight_kg": 78} | person
    day = day_targets(Person(**body, conditions=frozenset(conditions)), None, orders)
    parts = [Ingredient(FOODS[slug], grams) for slug, grams in (foods or {}).items()]
    known = dict(numbers or {})
    if whole_day and parts:
        profile = Profile.total(part.food.profile(part.grams) for part in parts)
        known |= day_numbers(PlannedDay(profile, parts, 3))
    asked = planned_situation(day, orders, numbers=known, foods=parts or None)
    return {one.code: one for one in cautions_in(asked)}


class Orders(TestCase):
    def test_a_most_that_is_passed_is_said_whether_or_not_it_is_watched(self):
        potatoes = {"potato-boiled": 600}
        caution = told(potatoes, [order("potassium_mg", high=1500)])["over_potassium_mg"]
        self.assertEqual(caution.level, "stop and ask")
        self.assertIn("1,500 mg", caution.text)
        self.assertIn("Dr. N", caution.text)
        self.assertNotIn("over_potassium_mg", told(potatoes, [order("potassium_mg", high=2500)]))

    def test_far_over_it_stops_and_a_little_over_it_warns(self):
        salt = {"salt": 4.0, "white-rice-cooked": 200}
        for most, level in ((1500, "caution"), (1100, "caution"), (1000, "stop and ask")):
            caution = told(salt, [order("sodium_mg", high=most)])["over_sodium_mg"]
            self.assertEqual(caution.level, level, most)

    def test_a_least_that_is_not_reached_is_said_once_all_meals_are_planned(self):
        rice = {"white-rice-cooked": 300}
        self.assertIn("under_protein_g", told(rice, [order("protein_g", low=60)]))
        half = told(rice, [order("protein_g", low=60)], numbers={"day_meals": 1}, whole_day=False)
        self.assertNotIn("under_protein_g", half)

    def test_what_alone_passes_it_names_the_food(self):
        found = told({"potato-boiled": 900}, [order("potassium_mg", high=1500)], whole_day=False)
        self.assertEqual(found["over_potassium_mg"].names, (FOODS["potato-boiled"].name,))

    def test_fluid_is_what_is_liquid(self):
        wet = {"vegetable-broth-no-salt-added": 900, "apple-juice": 400, "watermelon-raw": 800}
        caution = told(wet, [order("water_g", high=1200)])["over_water_g"]
        self.assertIn("1,300 mL of fluid", caution.text)
        self.assertIn("not counted", caution.text)
        self.assertNotIn("over_water_g", told(wet, [order("water_g", high=1301)]))

    def test_the_usual_aim_of_salt_is_nobody_s_order(self):
        day = day_targets(Person(sex="male", age_years=50, height_cm=178, weight_kg=78))
        self.assertEqual(plan_numbers(day)["sodium_aim_mg"], 2300)
        day = day_targets(day.person, None, [order("sodium_mg", high=1400)])
        self.assertLessEqual(
            plan_numbers(day, [order("sodium_mg", high=1400)])["sodium_aim_mg"], 1400
        )


class Conditions(TestCase):
    def test_a_condition_s_most_is_said(self):
        salty = {"salt": 6.0, "white-rice-cooked": 300}
        found = told(salty, conditions=["liver_disease"])["over_sodium_mg"]
        self.assertEqual(found.level, "caution")
        self.assertIn("2,000 mg", found.text)
        self.assertNotIn("over_sodium_mg", told(salty))

    def test_a_little_over_it_is_a_note(self):
        # 2,100 mg where 2,000 are the most
        nearly = told({"salt": 5.4}, conditions=["liver_disease"])["over_sodium_mg"]
        self.assertEqual(nearly.level, "note")


class AsFarAsPlanned(TestCase):
    def codes(self, conditions, **numbers):
        return set(told(numbers=numbers | {"whole_day": 1}, conditions=conditions))

    def test_two_of_three_meals_are_held_to_their_part(self):
        for grams, codes in (
            (32, {"hardly_any_carbohydrate_on_medicine"}),
            (34, {"little_carbohydrate_on_medicine"}),
            (86, {"little_carbohydrate_on_medicine"}),
            (88, set()),
        ):
            found = self.codes(["sglt2_inhibitor"], day_carbohydrate_g=grams, day_meals=2, meals=3)
            self.assertEqual({one for one in found if one.endswith("on_medicine")}, codes, grams)

    def test_protein_on_dialysis(self):
        # 78 kg at 1.0 g/kg: 78 g, 52 of them in two of three meals
        for grams, stands in ((51, True), (53, False)):
            found = self.codes(["hemodialysis"], day_protein_g=grams, day_meals=2, meals=3)
            self.assertEqual("day_protein_dialysis" in found, stands)


class UpperLevels(TestCase):
    def tablets(self, key, dose, **more):
        return told(numbers={f"tablet_{key}": dose}, **more).get(f"tablet_upper_{key}")

    def test_each_level_on_both_sides_of_its_edge(self):
        for key, most in (
            ("vitamin_a_rae_ug", 3000),
            ("vitamin_c_mg", 2000),
            ("vitamin_d_ug", 100),
            ("vitamin_e_mg", 1000),
            ("niacin_mg", 35),
            ("vitamin_b6_mg", 100),
            ("folate_ug", 1000),
            ("choline_mg", 3500),
            ("calcium_mg", 2500),
            ("iron_mg", 45),
            ("magnesium_mg", 350),
            ("phosphorus_mg", 4000),
            ("zinc_mg", 40),
            ("copper_mg", 10),
            ("manganese_mg", 11),
            ("selenium_ug", 400),
            ("iodine_ug", 1100),
        ):
            with self.subTest(key):
                self.assertIsNone(self.tablets(key, most))
                self.assertEqual(self.tablets(key, most * 1.01).level, "caution")
        self.assertEqual(len(upper_levels()), 17)

    def test_from_where_it_stops(self):
        for key, stops in (
            ("vitamin_a_rae_ug", 7500),
            ("vitamin_c_mg", 6000),
            ("vitamin_d_ug", 500),
            ("vitamin_e_mg", 2000),
            ("niacin_mg", 1000),
            ("vitamin_b6_mg", 500),
            ("folate_ug", 10000),
            ("calcium_mg", 4000),
            ("iron_mg", 200),
            ("magnesium_mg", 2000),
            ("zinc_mg", 150),
            ("copper_mg", 30),
            ("manganese_mg", 50),
            ("selenium_ug", 900),
            ("iodine_ug", 5000),
        ):
            with self.subTest(key):
                self.assertEqual(self.tablets(key, stops).level, "stop and ask")
                self.assertEqual(self.tablets(key, stops * 0.99).level, "caution")

    def test_by_age_and_stage(self):
        calcium, phosphorus = (upper_levels()[key] for key in ("calcium_mg", "phosphorus_mg"))
        for age, most in ((18, 3000), (30, 2500), (51, 2000), (75, 2000)):
            self.assertEqual(calcium.most_for(age, "adult"), most)
        self.assertEqual(phosphorus.most_for(75, "adult"), 3000)
        self.assertEqual(phosphorus.most_for(30, "pregnant_2"), 3500)
        for key, most in (
            ("vitamin_a_rae_ug", 2800),
            ("vitamin_c_mg", 1800),
            ("vitamin_e_mg", 800),
            ("niacin_mg", 30),
            ("vitamin_b6_mg", 80),
            ("folate_ug", 800),
            ("choline_mg", 3000),
            ("zinc_mg", 34),
            ("copper_mg", 8),
            ("manganese_mg", 9),
            ("iodine_ug", 900),
        ):
            self.assertEqual(upper_levels()[key].most_for(18, "adult"), most, key)

    def test_iron_that_is_treated_with_is_not_too_much(self):
        self.assertIsNone(self.tablets("iron_mg", 100, conditions=["iron_deficiency"]))
        self.assertIsNotNone(self.tablets("iron_mg", 100))

    def test_whole_plants_pass_some_harmlessly(self):
        greens = {"kale-cooked": 400, "lentils-cooked": 900, "rolled-oats-dry": 150, "almonds": 60}
        codes = told(greens)
        self.assertFalse([code for code in codes if "upper" in code], sorted(codes))

    def test_a_day_that_passes_a_level_of_all_is_said(self):
        found = told(numbers={"whole_day": 1, "day_selenium_ug": 401})
        self.assertEqual(found["day_upper_selenium_ug"].level, "caution")
        self.assertNotIn(
            "day_upper_selenium_ug", told(numbers={"whole_day": 1, "day_selenium_ug": 399})
        )
