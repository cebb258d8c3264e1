"""A calorie density is said without what is drunk beside the food."""

from unittest import TestCase

from nutrition.composition.amounts import DENSITY, amount_of
from nutrition.composition.drinks import beside_the_food, is_drink
from nutrition.composition.foods import food_table
from nutrition.composition.portion import food_portion
from nutrition.composition.profile import Profile

FOODS = food_table()


def served(slug, grams):
    return beside_the_food(food_portion(FOODS[slug], grams))


def density(*portions):
    return amount_of(Profile.total(one.profile for one in portions), DENSITY).amount


class Drinks(TestCase):
    def test_what_is_drunk_by_itself(self):
        for slug in ("water", "orange-juice", "soy-milk-unsweetened", "coffee-brewed"):
            with self.subTest(slug):
                self.assertTrue(is_drink(FOODS[slug]))
        for slug in ("kale-raw", "vegetable-broth", "tomato-passata", "lemon-juice"):
            with self.subTest(slug):
                self.assertFalse(is_drink(FOODS[slug]))

    def test_a_glass_beside_a_plate_changes_no_density(self):
        plate = served("barley-pearled-cooked", 200)
        for glass in (served("water", 300), served("orange-juice", 250)):
            with self.subTest(glass.name):
                self.assertAlmostEqual(density(plate, glass), density(plate))
                whole = plate.profile + glass.profile
                self.assertAlmostEqual(whole.drunk_g, glass.profile.grams)
                self.assertAlmostEqual(
                    whole["energy_kcal"].amount,
                    plate.profile["energy_kcal"].amount + glass.profile["energy_kcal"].amount,
                )

    def test_what_is_only_drunk_has_its_own(self):
        glass = served("orange-juice", 250)
        self.assertTrue(glass.profile.only_drunk)
        self.assertAlmostEqual(
            density(glass), glass.profile["energy_kcal"].amount / glass.profile.grams
        )
        self.assertEqual(glass.is_food, 0.0)
        self.assertEqual(glass.toward(DENSITY), 0.0)
        self.assertEqual(served("kale-raw", 50).is_food, 1.0)
