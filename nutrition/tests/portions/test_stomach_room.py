"""A meal after gastric surgery keeps to what the stomach holds, drinks apart."""

from dataclasses import replace
from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.composition.portion import food_portion
from nutrition.portions.problem import Problem, Room, name_of
from nutrition.portions.serving_limits import limits_around
from nutrition.portions.serving_rules import servable
from nutrition.portions.solver import balance
from nutrition.portions.stomach_room import is_drunk, rooms_of
from nutrition.targets.aim import Aim
from nutrition.targets.day import day_targets
from nutrition.targets.person import Person

FOODS = food_table()


def part(slug, grams):
    food = FOODS[slug]
    whole = food_portion(food, grams)
    return replace(whole, key=slug, limits=limits_around(servable(food, food.role), grams))


def person(*conditions, **more):
    return Person(
        sex="female",
        age_years=45,
        height_cm=168,
        weight_kg=78,
        conditions=frozenset(conditions),
        **more,
    )


class Rooms(TestCase):
    def test_only_after_surgery_and_without_drinks(self):
        meal = [part("lentils-cooked", 200), part("soy-milk-unsweetened", 200)]
        self.assertTrue(is_drunk(meal[1]))
        self.assertEqual(rooms_of(day_targets(person()), [meal]), ())
        early = day_targets(person("gastric_sleeve", surgery_months=4))
        self.assertEqual(rooms_of(early, [meal]), (Room(frozenset({"lentils-cooked"}), 200.0),))

    def test_balance_keeps_to_it(self):
        parts = tuple(
            part(slug, 80.0) for slug in ("lentils-cooked", "tofu-firm", "carrots-cooked")
        )
        aim = Aim(key="protein_g", low=60.0, aim=60.0, high=None, weight=3.0)
        free = balance(Problem(parts=parts, aims=(aim,)))
        self.assertGreater(sum(free.portions.values()), 260)
        room = Room(frozenset(one.key for one in parts), 260.0)
        kept = balance(Problem(parts=parts, aims=(aim,), rooms=(room,)))
        self.assertLessEqual(sum(kept.portions.values()), 260 + 1e-6)
        self.assertEqual(name_of("stomach"), "what a stomach holds after surgery")
