"""Conditions and medicines in pairs, with the schools going round: what is proposed for a bowl and
a day is nothing that its own page stops. A sample, another one in each of the turns."""

from itertools import cycle, product
from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.profile import Profile
from nutrition.portions.problem import BadProblem
from nutrition.requests.balance import read_problem
from nutrition.requests.balance_answer import solve
from nutrition.requests.person import read_asked
from nutrition.safety.caution_rules import LEVELS
from nutrition.safety.cautions import cautions_in
from nutrition.safety.situations import PlannedDay, day_numbers, planned_situation
from nutrition.targets.conditions import conditions
from nutrition.targets.day import day_targets
from nutrition.targets.person import Referred
from nutrition.targets.schools import schools
from nutrition.tests.thorough import thorough

FOODS = food_table()
BOWL = {
    "barley-pearled-cooked": 180,
    "white-beans-cooked": 130,
    "kale-cooked": 100,
    "carrots-cooked": 80,
    "tahini": 15,
}
DAY = {
    "rolled-oats-cooked": 240,
    "soy-milk-unsweetened": 240,
    "banana-raw": 118,
    "lentils-cooked": 200,
    "white-rice-cooked": 180,
    "tofu-firm": 140,
    "potato-boiled": 200,
    "broccoli-cooked": 140,
    "walnuts": 15,
}
# Every so many-th pair is looked at: prime to the number of medicines, so that all come round.
EVERY = 97


def pairs():
    kinds = conditions()
    ill = [code for code, one in kinds.items() if one.kind != "medicine" and not one.from_years]
    medicines = [code for code, one in kinds.items() if one.kind == "medicine"]
    around = cycle([None, *schools()])
    for at, (code, medicine) in enumerate(product(ill, medicines)):
        school = next(around)
        if at % EVERY == 0:
            yield code, medicine, school


def person_of(code, medicine, school):
    carries = code in ("gestational_diabetes", "twin_pregnancy")
    asked = {
        "sex": "female",
        "age_years": 31 if carries else 58,
        "height_cm": 168,
        "weight_kg": 70,
        "conditions": [code, medicine],
    }
    if carries:
        asked |= {"life_stage": "pregnant_2", "weight_before_kg": 64}
    return asked | ({"school": school} if school else {})


def stops(day, portions, whole_day):
    parts = [Ingredient(FOODS[slug], grams) for slug, grams in portions.items() if grams > 0]
    numbers = {}
    if whole_day:
        profile = Profile.total(part.food.profile(part.grams) for part in parts)
        numbers = day_numbers(PlannedDay(profile, parts, 3))
    found = cautions_in(planned_situation(day, numbers=numbers, foods=parts or None))
    return {one.code for one in found if one.level == LEVELS[0]}


class Pairs(TestCase):
    @thorough
    def test_nothing_is_proposed_that_its_own_page_stops(self):
        looked_at = 0
        for code, medicine, school in pairs():
            person = person_of(code, medicine, school)
            asked = read_asked(person)
            try:
                day = day_targets(asked.person, asked.school)
            except Referred:
                continue
            for meal, portions in (("lunch", BOWL), ("day", DAY)):
                parts = [{"id": slug, "food": slug, "grams": g} for slug, g in portions.items()]
                problem = read_problem({"parts": parts, "person": person, "meal": meal}, str)
                try:
                    after = solve(problem).portions
                except BadProblem:
                    continue
                new = stops(day, after, meal == "day") - stops(day, portions, meal == "day")
                with self.subTest(code, medicine=medicine, school=school, meal=meal):
                    self.assertEqual(new, set())
                looked_at += 1
        self.assertGreater(looked_at, 20)


class NothingLeft(TestCase):
    def test_where_nearly_all_is_left_out_nothing_is_proposed(self):
        person = person_of("texture_pureed", "insulin", None)

        def asked(portions):
            parts = [{"id": slug, "food": slug, "grams": g} for slug, g in portions.items()]
            asked = {"parts": parts, "person": person, "meal": "day"}
            return solve(read_problem(asked, str)).data()

        with self.assertRaises(BadProblem) as caught:
            asked(DAY)
        self.assertIn("begin with other foods", str(caught.exception))
        # 190 kcal of pears and walnuts beside 620 of what is smooth: under three quarters
        self.assertTrue(asked({"hummus": 260, "avocado-raw": 150, "pear-raw": 100, "walnuts": 20}))
