"""Rolls (2005): bands of calorie density, under 0.6, 0.6 to 1.5, 1.6 to 3.9, 4 to 9 kcal/g; from
memory."""

from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.insight.indices import density_band, kcal_per_gram


class Bands(TestCase):
    def test_edges(self):
        for density, band in (
            (0.0, "very low"),
            (0.59, "very low"),
            (0.6, "low"),
            (1.5, "low"),
            (1.6, "medium"),
            (3.9, "medium"),
            (4.0, "high"),
            (9.0, "high"),
        ):
            with self.subTest(density):
                self.assertEqual(density_band(density), band)

    def test_foods_the_book_places(self):
        for slug, band in (
            ("cucumber-with-peel-raw", "very low"),
            ("strawberries-raw", "very low"),
            ("lentils-cooked", "low"),
            ("brown-rice-cooked", "low"),
            ("whole-wheat-bread", "medium"),
            ("walnuts", "high"),
            ("olive-oil", "high"),
        ):
            with self.subTest(slug):
                self.assertEqual(density_band(kcal_per_gram(food_table()[slug].profile(100))), band)
