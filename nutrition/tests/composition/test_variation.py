"""How far a row may be off where its source says nothing: as far as two tables' rows of one plant
lie apart, by data/variation.csv."""

import math
from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.composition.profile import INDEX
from nutrition.insight.derivation import row_of
from nutrition.written.matching import reckon_line

FOODS = food_table()


def off(slug, key):
    """How far the most lies above the value, as the logarithm of their ratio."""
    food, at = FOODS[slug], INDEX[key]
    return math.log(food.high[at] / food.values[at])


class Variation(TestCase):
    def test_a_row_without_a_spread_has_that_of_its_kind(self):
        for slug, key, apart in (
            # medians of the pairs of SR Legacy and Foundation Foods, by kind
            ("carrots-raw", "potassium_mg", 0.166),
            ("carrots-raw", "energy_kcal", 0.090),
            ("walnuts", "protein_g", 0.044),
            ("quinoa-dry", "iron_mg", 0.317),
            ("navy-beans-dry", "potassium_mg", 0.093),
            ("navy-beans-dry", "protein_g", 0.018),
        ):
            with self.subTest(slug, key=key):
                self.assertAlmostEqual(off(slug, key), apart, places=2)
                food, at = FOODS[slug], INDEX[key]
                self.assertAlmostEqual(math.log(food.values[at] / food.low[at]), apart, places=2)

    def test_hardly_any_is_off_by_a_floor(self):
        for slug, key, floor in (
            ("cauliflower-raw", "selenium_ug", 0.3),
            ("banana-raw", "sodium_mg", 3),
            ("apple-no-skin-raw", "calcium_mg", 1),
            ("apple-no-skin-boiled", "vitamin_c_mg", 0.5),
        ):
            food, at = FOODS[slug], INDEX[key]
            self.assertAlmostEqual(food.high[at] - food.values[at], floor, places=2)

    def test_where_a_range_is_from_is_said(self):
        said = row_of(FOODS["carrots-raw"], "potassium_mg").notes
        self.assertIn("range: as far as SR Legacy and Foundation Foods lie apart", said)
        for slug, key in (("tofu-firm", "protein_g"), ("salt", "sodium_mg")):
            self.assertNotIn("range: as far", row_of(FOODS[slug], key).notes)

    def test_what_is_one_substance_does_not_vary(self):
        for slug, key in (("salt", "sodium_mg"), ("olive-oil", "energy_kcal")):
            self.assertAlmostEqual(off(slug, key), 0.0)

    def test_a_spread_of_the_rows_own_stands(self):
        """Tofu by its labels; a borrowed amino acid by how far donors differ."""
        at, tofu = INDEX["protein_g"], FOODS["tofu-firm"]
        self.assertAlmostEqual(tofu.values[at], 9.41, delta=0.2)
        self.assertLess(tofu.low[at], 8.5)
        self.assertGreater(tofu.high[at], 12)
        at = INDEX["lysine_g"]
        for slug, low, high in (("lentils-cooked", 0.65, 1.6), ("chia-seeds", 0.9, 1.1)):
            food = FOODS[slug]
            self.assertAlmostEqual(food.low[at] / food.values[at], low, delta=0.02)
            self.assertAlmostEqual(food.high[at] / food.values[at], high, delta=0.02)

    def test_what_is_derived_carries_the_range_of_what_it_is_from(self):
        """Cooked, canned, of parts: a borrowed amino acid stays as unsure as it was."""
        at = INDEX["lysine_g"]
        for slug in ("adzuki-beans-canned-drained", "black-lentils-dry", "cranberry-beans-cooked"):
            food = FOODS[slug]
            self.assertLess(food.low[at] / food.values[at], 0.80, slug)
            self.assertGreater(food.high[at] / food.values[at], 1.2, slug)
        # the second source's own rows, which give none: a seventh
        food = FOODS["finger-millet-dry"]
        self.assertAlmostEqual(math.log(food.high[at] / food.values[at]), 0.15, places=2)

    def test_a_serving_shows_the_food_and_the_measure_together(self):
        """60 g of kale, weighed to 2 %: potassium off by 0.166 of the food besides, in
        quadrature."""
        line = reckon_line("60 g kale")
        amount = line.food.profile(line.grams, line.low, line.high)["potassium_mg"]
        up = math.hypot(0.02, math.exp(0.166) - 1)
        self.assertAlmostEqual(amount.high / amount.amount - 1, up, delta=0.01)


class OfAVegan(TestCase):
    """What carries a vegan's ALA, lysine and leucine. US government composition data, from
    memory. [g per 100 g]"""

    def test_families_that_stay_whole(self):
        for slug, key, value in (
            ("flaxseed", "ala_g", 22.8),
            ("flaxseed", "linoleic_g", 5.9),
            ("flaxseed", "polyunsaturated_fat_g", 28.7),
            ("flaxseed", "monounsaturated_fat_g", 7.5),
            ("chia-seeds", "lysine_g", 0.97),
            ("almonds", "leucine_g", 1.47),
            ("sunflower-seeds", "lysine_g", 0.94),
            ("sesame-seeds", "leucine_g", 1.36),
            ("tempeh", "lysine_g", 0.91),
            ("walnuts", "ala_g", 9.08),
            ("hemp-seeds-hulled", "ala_g", 8.68),
        ):
            with self.subTest(slug, key=key):
                self.assertAlmostEqual(FOODS[slug].per_100_g(key), value, delta=0.06 * value)

    def test_what_a_plant_has_not_is_nothing_and_not_unknown(self):
        for slug, key in (
            ("kale-raw", "vitamin_b12_ug"),
            ("lentils-dry", "vitamin_b12_ug"),
            ("brown-rice-dry", "vitamin_c_mg"),
            ("rolled-oats-dry", "vitamin_c_mg"),
            ("olive-oil", "vitamin_b12_ug"),
        ):
            with self.subTest(slug, key=key):
                self.assertEqual(FOODS[slug].per_100_g(key), 0.0)
        # what was fortified may hold it, and says so or is unknown
        self.assertGreater(FOODS["nutritional-yeast-fortified"].per_100_g("vitamin_b12_ug"), 5)
        at = INDEX["ala_g"]
        for slug in ("broccoli-raw", "lima-beans-cooked", "rolled-oats-cooked"):
            food = FOODS[slug]
            self.assertIsNotNone(food.per_100_g("ala_g"))
            self.assertLess(food.low[at], food.high[at])

    def test_salt_that_makers_add_or_leave_out(self):
        at, peas = INDEX["sodium_mg"], FOODS["green-peas-frozen"]
        self.assertEqual((peas.low[at], peas.high[at]), (0.0, 115.0))
        self.assertLess(FOODS["chickpeas-no-salt-added-canned"].per_100_g("sodium_mg"), 20)
        dry = FOODS["chickpeas-no-salt-added-canned"].per_100_g("protein_g")
        self.assertAlmostEqual(dry / FOODS["chickpeas-canned-drained"].per_100_g("protein_g"), 1, 0)
        self.assertEqual(FOODS["potato-with-skin-baked"].per_100_g("potassium_mg"), 533)
