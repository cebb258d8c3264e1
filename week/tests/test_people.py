"""Weeks for sixty invented people, each with a part of the shelf: whatever is proposed keeps what a
person would eat, cook and be safe with, or says where it does not."""

import random
from collections import Counter
from unittest import TestCase

from nutrition.composition.errors import CoreError
from nutrition.composition.ingredient import Ingredient
from nutrition.planning.bounds import day_bounds, eaten_on, total
from nutrition.planning.proposals import offered
from nutrition.planning.rotation import broken
from nutrition.planning.search import plan
from nutrition.portions.work import Work
from nutrition.requests.dishes import RecipeIn
from nutrition.requests.structure import decoded
from nutrition.requests.week import BadWeek, read_week
from nutrition.safety.gate import Gate
from nutrition.tests.thorough import thorough
from recipes.shelf.dishes import shelf

PEOPLE = 60
WORK = 0.3
CONDITIONS = (
    *("hypertension", "diabetes", "insulin", "ckd_3a", "ckd_3b", "ckd_4", "dialysis", "gout"),
    *("warfarin", "iron_deficiency", "high_cholesterol", "celiac", "heart_failure", "ibs"),
    *("kidney_stones", "gastric_bypass", "frail", "levodopa", "thyroid_tablets", "liver_disease"),
)
SCHOOLS = ("", "balanced_plate", "light_starchy", "greens_beans_seeds", "strength", "kidney_gentle")
ALLERGIES = ((), (), (), ("nuts",), ("sesame",), ("soy",), ("gluten",), ("mustard",))
FOODS = (
    *(("walnuts", 28), ("apple-with-skin-raw", 180), ("pear-raw", 178), ("orange-raw", 131)),
    *(("banana-raw", 118), ("soy-milk-unsweetened", 240), ("rye-bread", 64), ("almonds", 28)),
    *(("whole-wheat-bread", 64), ("blueberries-raw", 150)),
)


def person(seeded):
    age, height = seeded.randint(20, 85), seeded.randint(152, 192)
    bmi = seeded.uniform(18.8, 34.0)
    conditions = seeded.sample(CONDITIONS, seeded.choice((0, 0, 1, 1, 2)))
    if "insulin" in conditions and "diabetes" not in conditions:
        conditions.append("diabetes")
    out = {
        "sex": seeded.choice(("female", "male")),
        "age_years": age,
        "height_cm": height,
        "weight_kg": round(bmi * (height / 100) ** 2, 1),
        "conditions": conditions,
        "allergies": list(seeded.choice(ALLERGIES)),
        "meals": seeded.choice(("2", "3", "3", "3_snacks")),
        "activity": seeded.choice(("inactive", "low_active", "active")),
    }
    if "gastric_bypass" in conditions:
        out["surgery_months"] = seeded.choice((3, 8, 18))
    if bmi > 26 and seeded.random() < 0.5:
        aimed = round(25 * (height / 100) ** 2, 1)
        out["goal"] = {"kind": "lose", "target_weight_kg": aimed, "pace_kg_per_week": 0.4}
    school = seeded.choice(SCHOOLS)
    return out | ({"school": school} if school else {})


def recipe_of(dish):
    how = {"method": dish.cooked_by} if dish.cooked_by else {}
    lines = dish.text.splitlines()
    return {"lines": lines, "servings": dish.servings, "title": dish.title, **how}


def asked(seeded):
    some = seeded.sample(shelf(), seeded.choice((15, 25, 40, 60)))
    dishes = [
        {"id": f"dish-{dish.key}", "name": dish.title, "role": dish.role, "recipe": recipe_of(dish)}
        for dish in some
    ]
    dishes += [{"id": f"food-{slug}", "food": slug, "grams": grams} for slug, grams in FOODS]
    return {"person": person(seeded), "dishes": dishes}


def foods_in(given):
    """What one of each dish holds, by its key."""
    out = {}
    for row in given["dishes"]:
        if "recipe" in row:
            facts = decoded(RecipeIn, row["recipe"], BadWeek).reckoned("recipe", str, BadWeek)
            out[row["id"]] = facts.foods()
    return out


@thorough
class People(TestCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.found = []
        for seed in range(PEOPLE):
            given = asked(random.Random(seed))
            try:
                read = read_week(given, str)
            except CoreError as refused:
                cls.found.append((seed, given, None, str(refused)))
                continue
            found = plan(read.week, Work.of(WORK))
            cls.found.append((seed, given, read, found and offered(read.week, found)))

    def each(self):
        for seed, given, read, one in self.found:
            self.seed = seed
            if read is not None and one is not None:
                yield given, read, one

    def _formatMessage(self, msg, standardMsg):  # noqa: N802, N803
        return super()._formatMessage(f"person {getattr(self, 'seed', None)}", standardMsg)

    def test_nearly_everybody_is_planned_for_and_the_rest_hear_why(self):
        planned = [one for _seed, _given, read, one in self.found if read is not None and one]
        self.assertGreaterEqual(len(planned), 0.95 * PEOPLE)
        for _seed, _given, read, said in self.found:
            if read is None:
                self.assertTrue(said)

    def test_each_place_holds_what_may_stand_there_in_halves_of_a_serving(self):
        for _given, read, one in self.each():
            week = read.week
            for slot in week.slots:
                choice = one.planned.get(slot.key)
                if choice is None:
                    continue
                dish = week.by_key[choice.candidate]
                self.assertTrue(slot.takes(dish))
                self.assertAlmostEqual(choice.count * 2, round(choice.count * 2))
                self.assertGreaterEqual(choice.count, 0.5)

    def test_no_dish_comes_twice_a_day_or_too_often_unless_it_is_said(self):
        for _given, read, one in self.each():
            week = read.week
            said = {rule.rule for rule in one.gave_way}
            self.assertEqual(said, {rule.rule for rule in broken(week, one.planned)})
            dinners = Counter()
            for day in range(week.days):
                today = Counter(
                    one.planned[slot.key].candidate
                    for slot in week.slots_of(day)
                    if one.planned.get(slot.key) and slot.varies
                )
                dishes = {key: n for key, n in today.items() if week.by_key[key].dish}
                if "twice on a day" not in said:
                    self.assertLessEqual(max(dishes.values(), default=0), 1)
                dinners.update(
                    {
                        one.planned[slot.key].candidate
                        for slot in week.slots_of(day)
                        if slot.meal == "dinner" and slot.varies and one.planned.get(slot.key)
                    }
                )
            if not said:
                often = {key: n for key, n in dinners.items() if week.by_key[key].dish}
                self.assertLessEqual(max(often.values(), default=0), 3)

    def test_what_is_eaten_of_a_pot_keeps_or_freezes_and_was_cooked_before(self):
        for _given, _read, one in self.each():
            for pot in one.pots:
                for day, _servings in pot.eaten:
                    self.assertGreaterEqual(day, pot.day)
                    late = day > pot.day + pot.prepared.keeps
                    self.assertTrue(pot.prepared.freezes or not late)

    def test_a_day_under_nine_tenths_of_its_least_energy_is_a_draft(self):
        for _given, read, one in self.each():
            week = read.week
            for day in week.planned_days:
                for bound in day_bounds(week, day).fed:
                    at = total(week, eaten_on(week, one.planned, day), bound)
                    if at < bound.limit - 1.0:
                        self.assertIn(day, one.starved)
            self.assertEqual(bool(one.starved or one.planning.warned), one.draft)

    def test_no_day_holds_what_is_to_be_stopped(self):
        for given, read, one in self.each():
            week, holds = read.week, foods_in(given)
            gate = read.gate
            self.assertIsInstance(gate, Gate)
            for day in week.planned_days:
                foods = [
                    Ingredient(food.food, food.grams * choice.count)
                    for slot in week.slots_of(day)
                    if (choice := one.planned.get(slot.key)) is not None
                    for food in holds.get(choice.candidate, ())
                ]
                stops = [bar.why for bar in gate.bars(foods) if bar.stops and not bar.by_amount]
                if day not in one.planning.warned:
                    self.assertEqual(stops, [])

    def test_what_is_pinned_stands_where_it_was_pinned(self):
        tried = 0
        for given, read, one in self.each():
            slot = next(
                (slot for slot in read.week.slots if slot.day == 2 and one.planned.get(slot.key)),
                None,
            )
            if slot is None or slot.optional or tried == 10:
                continue
            tried += 1
            dish = next(row for row in read.week.candidates if slot.takes(row))
            pin = {"day": 2, "meal": slot.meal, "slot": int(slot.key.split("-")[-1])}
            again = read_week(given | {"pinned": [pin | {"dish": dish.key}]}, str)
            found = plan(again.week, Work.of(WORK))
            self.assertEqual(found.planned[slot.key].candidate, dish.key)
        self.assertEqual(tried, 10)
