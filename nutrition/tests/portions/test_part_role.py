"""What a part is, by what it is called or what is in it."""

import unittest

from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.profile import Profile
from nutrition.portions.part_role import role_of
from nutrition.portions.serving_limits import limits_around
from nutrition.portions.serving_rules import servable

FOODS = food_table()


def role(name="", said="", **grams):
    foods = [Ingredient(FOODS[slug.replace("_", "-")], one) for slug, one in grams.items()]
    profile = Profile.total(one.food.profile(one.grams) for one in foods)
    return role_of(name, foods, profile, said)


class Role(unittest.TestCase):
    def test_a_name_tells(self):
        beans = {"white_beans_cooked": 100.0}
        for name, wanted in (
            ("Lemon dressing", "sauce"),
            ("Fennel soup", "dish"),
            ("White beans in dill sauce", "protein"),
            ("Barley porridge", "dish"),
            ("Hazel and seed topping", "topping"),
            ("Rye bread", "base"),
        ):
            with self.subTest(name=name):
                self.assertEqual(role(name, **beans), wanted)

    def test_what_somebody_said_stands_and_a_dish_is_no_role(self):
        self.assertEqual(role("Lemon dressing", "topping", tahini=20.0), "topping")
        self.assertEqual(role("Lemon dressing", "dish", tahini=20.0), "sauce")

    def test_by_what_is_in_it(self):
        for wanted, grams in (
            ("sauce", {"soy_sauce": 30.0, "sesame_oil": 5.0, "water": 15.0}),
            ("sauce", {"olive_oil": 40.0, "lemon_juice": 15.0}),
            ("sauce", {"tahini": 30.0, "lemon_juice": 15.0, "water": 20.0}),
            ("dish", {"red_lentils_cooked": 120.0, "water": 300.0, "salt": 2.0}),
            ("base", {"spaghetti_cooked": 200.0, "olive_oil": 5.0})
            if "spaghetti-cooked" in FOODS
            else ("base", {"millet_cooked": 200.0, "olive_oil": 5.0}),
            ("protein", {"white_beans_cooked": 160.0, "onion_cooked": 40.0}),
            ("vegetable", {"carrots_cooked": 100.0, "fennel_bulb_raw": 60.0}),
            ("greens", {"kale_cooked": 100.0, "garlic_raw": 5.0}),
            ("topping", {"pumpkin_seeds": 30.0, "sunflower_seeds": 20.0}),
            ("dish", {"white_beans_cooked": 100.0, "millet_cooked": 100.0}),
        ):
            with self.subTest(grams=grams):
                self.assertEqual(role(**grams), wanted)

    def test_the_edges(self):
        # forty parts of water in a hundred make a soup
        self.assertEqual(role(olive_oil=61.0, water=39.0), "sauce")
        self.assertEqual(role(olive_oil=60.0, water=40.0), "dish")
        # saltier than any dish: 700 mg of sodium in 100 g; salt has 38.8 g of it in 100 g
        beans = 100.0
        self.assertEqual(role(white_beans_cooked=beans, salt=1.75), "protein")
        self.assertEqual(role(white_beans_cooked=beans, salt=1.9), "sauce")
        # six parts in ten make it what they are
        self.assertEqual(role(white_beans_cooked=60.0, millet_cooked=40.0), "protein")
        self.assertEqual(role(white_beans_cooked=59.0, millet_cooked=41.0), "dish")
        # half of it sour or salty
        self.assertEqual(role(vinegar_red_wine=50.0, cucumber_with_peel_raw=50.0), "sauce")
        self.assertEqual(role(vinegar_red_wine=49.0, cucumber_with_peel_raw=51.0), "dish")


class Shrinks(unittest.TestCase):
    def test_a_sauce_may_shrink_to_nothing_and_keeps_its_own_portion_among_the_steps(self):
        for grams in (27.0, 50.0, 8.0):
            limits = limits_around(servable(None, "sauce"), grams)
            self.assertEqual(limits.least, 0.0)
            self.assertTrue(limits.first and limits.last)
            self.assertAlmostEqual(grams / limits.step, round(grams / limits.step))
        base = limits_around(servable(None, "base"), 200.0)
        self.assertEqual((base.least, base.first), (100.0, False))

    def test_a_bowl_of_granola_and_a_spread_stay_what_they_are(self):
        for slug, most in (("granola", 75.0), ("hummus", 120.0)):
            self.assertEqual(servable(FOODS[slug], FOODS[slug].role).most_g, most)

    def test_what_goes_first(self):
        first = {
            slug
            for slug in (
                *("orange-juice", "fruit-jam", "potato-chips", "olive-oil", "salt", "soy-sauce"),
                *("sugar-white", "red-wine", "white-bread", "dark-chocolate-60-69-cocoa"),
                *("lentils-cooked", "rolled-oats-cooked", "kale-raw", "whole-wheat-bread"),
                *("tofu-firm", "walnuts", "avocado-raw", "lemon-juice", "soy-milk-unsweetened"),
            )
            if servable(FOODS[slug], FOODS[slug].role).first
        }
        self.assertEqual(
            first,
            {
                *("orange-juice", "fruit-jam", "potato-chips", "olive-oil", "salt", "soy-sauce"),
                *("sugar-white", "red-wine", "white-bread", "dark-chocolate-60-69-cocoa"),
            },
        )
        # bread is left a half of, the rest may go
        self.assertGreaterEqual(
            limits_around(servable(FOODS["white-bread"], "base"), 100.0).least, 50
        )
        self.assertEqual(limits_around(servable(FOODS["soy-sauce"], "sauce"), 20.0).least, 0.0)
