"""Every caution fires where it should and is silent where it should be."""

import tomllib
from dataclasses import replace
from pathlib import Path
from unittest import TestCase

from nutrition.composition.food_names import food_names
from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.profile import Profile
from nutrition.composition.supplements import Supplement, per_day
from nutrition.labels.label import Label
from nutrition.labels.own_food import own_food
from nutrition.safety.caution_rules import LEVELS, rules
from nutrition.safety.cautions import Situation, cautions_in
from nutrition.safety.situations import (
    PlannedDay,
    plan_numbers,
    plan_words,
    situation,
    tablet_numbers,
    week_numbers,
)
from nutrition.targets.conditions import conditions
from nutrition.targets.day import day_targets
from nutrition.targets.orders import Order
from nutrition.targets.person import GOAL_WORDS, Person
from nutrition.targets.schools import schools

FOODS = food_table()
CASES = tomllib.loads((Path(__file__).parent / "caution_cases.toml").read_text(encoding="utf-8"))


def package(listed):
    """A food made of a label with this ingredient list."""
    label = Label(
        name="A package",
        serving_size="30 g",
        printed={"energy_kcal": "100", "protein_g": "2"},
        ingredients=listed,
    )
    return own_food("own-1", label, FOODS, food_names()).food


def read(case):
    foods = case.get("foods")
    if "packages" in case:
        foods = [Ingredient(package(listed), 30.0) for listed in case["packages"]]
    elif foods is not None:
        foods = [Ingredient(FOODS[slug], grams) for slug, grams in foods.items()]
    return Situation(
        conditions=frozenset(case.get("conditions", ())),
        life_stage=case.get("life_stage", "adult"),
        goal=case.get("goal", "hold"),
        school=case.get("school", ""),
        allergies=frozenset(case.get("allergies", ())),
        dislikes=tuple(case.get("dislikes", ())),
        numbers=case.get("numbers", {}),
        foods=foods,
        lines=tuple(case.get("lines", ())),
        words=case.get("words", {}),
    )


class EveryRule(TestCase):
    def test_each_has_a_case_that_fires_and_one_that_does_not(self):
        self.assertEqual(set(CASES), {rule.code for rule in rules()})
        self.assertGreaterEqual(len(CASES), 50)
        for code, case in CASES.items():
            with self.subTest(code):
                fired = {caution.code: caution for caution in cautions_in(read(case["fires"]))}
                self.assertIn(code, fired)
                self.assertNotIn("{", fired[code].text)
                self.assertNotIn(
                    code,
                    {caution.code for caution in cautions_in(read(case["fires"] | case["silent"]))},
                )

    def test_nothing_is_said_of_nobody(self):
        self.assertEqual(cautions_in(Situation()), [])

    def test_rules_name_what_exists(self):
        known, built_in = set(conditions()), set(schools())
        for rule in rules():
            with self.subTest(rule.code):
                self.assertLessEqual(
                    rule.any_condition | rule.all_condition | rule.no_condition, known
                )
                self.assertLessEqual(set(rule.school), built_in)
                self.assertLessEqual(set(rule.goal), set(GOAL_WORDS))
                self.assertTrue(rule.text and rule.why and rule.refer_to and rule.source)

    def test_the_gravest_stand_first(self):
        found = cautions_in(
            read(
                CASES["low_sugar_medicine_and_less_food"]["fires"] | {"foods": {"psyllium-husk": 5}}
            )
        )
        order = [LEVELS.index(caution.level) for caution in found]
        self.assertEqual(order, sorted(order))
        self.assertEqual(found[0].level, "stop and ask", "the gravest first")

    def test_the_foods_are_named_with_what_is_in_them(self):
        found = cautions_in(
            read({"allergies": ["sesame"], "foods": {"tahini": 10, "kale-raw": 10}})
        )
        self.assertEqual([caution.about for caution in found], ["Tahini (sesame)"])


class Numbers(TestCase):
    def codes(self, person, school=None, orders=()):
        day = day_targets(person, school, orders)
        words = plan_words(day, orders)
        told = situation(
            day.person, school.code if school else "", plan_numbers(day, orders, -0.9), words=words
        )
        return {caution.code for caution in cautions_in(told)}

    def test_of_a_plan(self):
        woman = Person(
            sex="female",
            age_years=70,
            height_cm=160,
            weight_kg=70,
            activity="inactive",
            goal="lose",
            target_weight_kg=45,
        )
        found = self.codes(woman, schools()["greens_beans_seeds"])
        for code in ("target_weight_too_low", "loss_over_65", "losing_too_fast"):
            self.assertIn(code, found)
        self.assertNotIn("pace_above_guidance", found, "no loss is planned to such a target")
        found = self.codes(replace(woman, target_weight_kg=60), schools()["greens_beans_seeds"])
        for code in ("pace_above_one_percent", "lifted_to_the_floor"):
            self.assertIn(code, found)
        heavy = replace(woman, weight_kg=120, target_weight_kg=80)
        self.assertIn("pace_above_guidance", self.codes(heavy, schools()["greens_beans_seeds"]))
        self.assertNotIn("underweight", found)

    def test_a_loss_that_is_held_has_no_pace_to_warn_of(self):
        thin = Person(
            sex="female",
            age_years=30,
            height_cm=170,
            weight_kg=50,
            goal="lose",
            pace_kg_per_week=1.5,
        )
        found = self.codes(thin)
        self.assertIn("underweight", found)
        self.assertNotIn("pace_above_guidance", found)

    def test_numbers_by_hand_against_a_condition(self):
        person = Person(
            sex="male", age_years=50, height_cm=180, weight_kg=80, conditions=frozenset({"ckd_4"})
        )
        for kind, code in (
            ("order", "order_opens_a_limit"),
            ("choice", "choice_against_a_condition"),
        ):
            with self.subTest(kind):
                self.assertIn(
                    code,
                    self.codes(
                        person,
                        None,
                        [Order(key="protein_g", low=80, aim=90, high=100, kind=kind, reason="x")],
                    ),
                )
                self.assertNotIn(
                    code,
                    self.codes(
                        person,
                        None,
                        [Order(key="protein_g", low=44, aim=46, high=48, kind=kind, reason="x")],
                    ),
                )
                self.assertNotIn(
                    code,
                    self.codes(
                        person,
                        None,
                        [Order(key="fiber_g", low=20, aim=25, high=None, kind=kind, reason="x")],
                    ),
                )

    def test_supplements_count_and_weigh_nothing(self):
        taken = [
            Supplement("vitamin_b12_ug", 1000, "cyanocobalamin", 2),
            Supplement("iron_mg", 65, "sulfate", 7),
        ]
        self.assertAlmostEqual(tablet_numbers(taken)["tablet_vitamin_b12_ug"], 2000 / 7)
        self.assertAlmostEqual(tablet_numbers(taken)["tablet_binding_mg"], 65)
        food = FOODS["kale-raw"].profile(100)
        day = food + per_day(taken)
        self.assertEqual(
            (day.grams, day.lines, day["protein_g"].amount), (100, 1, food["protein_g"].amount)
        )
        self.assertAlmostEqual(day["iron_mg"].amount, food["iron_mg"].amount + 65)
        self.assertEqual(day["iodine_ug"].known, food["iodine_ug"].known)
        self.assertEqual(
            taken[0].words, "Vitamin B12 1000 µg (cyanocobalamin), 2 times a week: 286 µg a day"
        )

    def test_a_week(self):
        def day(*foods):
            parts = [Ingredient(FOODS[slug], grams) for slug, grams in foods]
            return PlannedDay(
                Profile.total(part.food.profile(part.grams) for part in parts),
                parts,
                2 if parts else 0,
            )

        little, much = (
            day(("white-rice-cooked", 200), ("carrots-raw", 50)),
            day(("kale-raw", 200), ("flaxseed-ground", 10)),
        )
        numbers = week_numbers([little, much, day()], [Supplement("iodine_ug", 150, "", 7)])
        self.assertEqual(
            (numbers["week_days"], numbers["week_iodine_sources"], numbers["week_omega_3_sources"]),
            (2, 1, 1),
        )
        self.assertGreater(numbers["week_vitamin_k_swing"], 5)
        self.assertEqual(week_numbers([day()]), {"week_days": 0.0})
