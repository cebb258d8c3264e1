"""The room of a dish in a cup: from its weight as eaten and its kind. Weights of a cup by hand:
a cup is 236.6 mL."""

from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.recipe.dish_volume import eaten_g_per_ml
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon

FOODS = food_table()


def in_a_cup(*lines, **how):
    facts = reckon(Recipe(lines, **how))
    return facts.batch.grams / facts.computed_ml * 236.6


class DishVolume(TestCase):
    def test_a_cup_of_each_kind(self):
        for lines, how, grams in (
            # a soup: 237 g whatever stands in it
            (("1 cup red lentils", "6 cups water", "1 cup carrots"), {"method": "simmered"}, 237),
            (("1 cup red lentils", "1 cup spinach"), {"title": "Lentil soup"}, 237),
            (("1/4 cup tahini", "2 tbsp lemon juice"), {"title": "Dill sauce"}, 237),
            (("1 kg potatoes",), {"title": "Potato mash", "method": "boiled"}, 237),
            # cooked barley: a cup of the cooked row is 157 g
            (("1 cup pearl barley",), {"method": "boiled_drained"}, 157),
            # cooked leaves: 180 g, raw ones 30 g
            (("500 g kale",), {"method": "steamed"}, 180),
            (("500 g kale",), {}, 30),
            # half barley and half carrots, in pieces, mixed: 0.9 of the sum of their cups
            (("200 g cooked barley", "200 g carrots"), {}, 172),
        ):
            with self.subTest(lines, **how):
                self.assertAlmostEqual(in_a_cup(*lines, **how), grams, delta=0.03 * grams)

    def test_raw_leaves_that_shrink_in_the_pot_do_not_fill_cups(self):
        """500 g of raw kale are 24 cups, and under 3 once steamed."""
        facts = reckon(Recipe(("500 g kale",), method="steamed", servings=1))
        self.assertLess(facts.volume_ml, 3 * 236.6)

    def test_what_is_eaten_in_pieces_is_not_measured_by_the_cup(self):
        facts = reckon(Recipe(("200 g chickpeas", "50 g oats"), title="Chickpea patties"))
        self.assertIsNone(facts.volume_ml)

    def test_what_the_cook_measured_stands_over_it(self):
        facts = reckon(
            Recipe(("1 cup pearl barley",), method="boiled_drained", serving_measure="4 x 1 cup")
        )
        self.assertAlmostEqual(facts.volume_ml, 4 * 236.6, delta=1)

    def test_wet_enough_for_a_soup_on_both_sides_of_its_edge(self):
        beans = "700 g cooked white beans"
        # 925 mL of beans and 280 of water fill 0.9 of their sum: 980 g in 1,084 mL
        for water, grams in ((280, 214), (320, 237)):
            with self.subTest(water=water):
                cup = in_a_cup(beans, f"{water} g water")
                self.assertAlmostEqual(cup, grams, delta=0.03 * grams)

    def test_foods_by_their_own_cup_where_they_are_ready(self):
        for slug, heated, grams in (
            ("quinoa-dry", True, 185),
            ("carrots-raw", True, 156),
            ("lentils-cooked", False, 198),
            ("olive-oil", False, 218),
            ("whole-wheat-bread", False, 45),
        ):
            with self.subTest(slug):
                self.assertAlmostEqual(
                    eaten_g_per_ml(FOODS[slug], heated) * 236.6, grams, delta=0.05 * grams
                )

    def test_foods_without_a_cup_of_their_own_by_their_kind(self):
        for slug, heated, g_per_ml in (
            ("kale-raw", False, 0.127),
            ("kale-raw", True, 0.76),
            ("basil-fresh", False, 0.25),
            ("amaranth-black-dry", True, 0.75),
            ("amaranth-flour", False, 0.75),
            ("pasta-white-dry", True, 0.59),
            ("black-soybeans-dry", True, 0.75),
            ("acorn-squash-raw", True, 0.68),
            ("agar-raw", False, 0.63),
            ("apple-fuji-raw", False, 0.63),
            ("edamame-raw", True, 0.85),
            ("almonds", False, 0.6),
            ("apricots-dried", False, 0.6),
            ("panko-breadcrumbs", False, 0.19),
            ("salt", False, 1.0),
        ):
            with self.subTest(slug, heated=heated):
                self.assertAlmostEqual(eaten_g_per_ml(FOODS[slug], heated), g_per_ml, places=3)
