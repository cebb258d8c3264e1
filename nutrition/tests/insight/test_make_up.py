"""What a dish is made of."""

from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.profile import Profile
from nutrition.insight.make_up import kinds_of_protein, vegetables_in

FOODS = food_table()


class MadeOf(TestCase):
    def test_vegetables_are_counted_once_and_not_by_the_pinch(self):
        foods = [
            ("carrots-raw", 50),
            ("carrots-cooked", 40),
            ("kale-raw", 20),
            ("tomato-paste-no-salt-added", 30),
            ("chives-raw", 20),
            ("mushrooms-white-raw", 3),
        ]
        self.assertEqual(
            vegetables_in([Ingredient(FOODS[slug], grams) for slug, grams in foods]),
            ["Carrots", "Kale"],
        )

    def test_kinds_of_protein_add_up(self):
        parts = [
            Ingredient(FOODS[slug], grams)
            for slug, grams in (("tofu-firm", 100), ("lentils-cooked", 100), ("lemon-juice", 15))
        ]
        kinds = kinds_of_protein(parts)
        self.assertEqual([name for name, _grams in kinds][:2], ["Tofu, firm", "Lentils"])
        total = Profile.total(part.food.profile(part.grams) for part in parts)["protein_g"].amount
        self.assertAlmostEqual(sum(grams for _name, grams in kinds), total)
