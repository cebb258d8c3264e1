"""The star of a dish, allergens, and the room a food takes."""

from dataclasses import replace
from unittest import TestCase

from nutrition.composition.allergies import found_in
from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.portion import food_portion, star_of

FOODS = food_table()


class Portions(TestCase):
    def test_the_star_is_the_chosen_or_the_largest_that_is_not_the_base(self):
        def part(role, volume, star=False):
            whole = food_portion(FOODS["kale-raw"], 50.0, role=role)
            return replace(whole, volume_ml=volume, star=star)

        parts = [part("base", 400), part("vegetable", 150), part("protein", 200)]
        self.assertEqual(star_of(parts), 2)
        self.assertEqual(star_of([*parts, part("greens", 10, True)]), 3)
        self.assertIsNone(star_of([part("base", 400)]))

    def test_allergens(self):
        parts = [Ingredient(FOODS[slug], 50.0) for slug in ("tahini", "tofu-firm", "kale-raw")]
        self.assertEqual(found_in(parts, ["sesame", "gluten"]), {"sesame": ["Tahini"]})

    def test_room_taken(self):
        self.assertAlmostEqual(FOODS["quinoa-cooked"].volume_ml(185), 236.588)
        self.assertLess(FOODS["spinach-raw"].volume_ml(30), 236.588)
