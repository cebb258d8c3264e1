"""Indices of a profile."""

from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.composition.profile import Profile
from nutrition.insight import indices

FOODS = food_table()


class Indices(TestCase):
    def test_density_and_protein(self):
        profile = FOODS["olive-oil"].profile(50)
        self.assertAlmostEqual(indices.kcal_per_gram(profile), 8.84, places=2)
        self.assertAlmostEqual(indices.kcal_per_pound(profile), 8.84 * 453.59237, delta=1)
        self.assertAlmostEqual(
            indices.protein_per_100_kcal(FOODS["kale-raw"].profile(10)), 2.92 / 35 * 100
        )
        self.assertAlmostEqual(
            indices.protein_energy_percent(FOODS["kale-raw"].profile(10)), 2.92 * 4 / 35 * 100
        )

    def test_nothing_has_no_density(self):
        self.assertEqual(
            [
                indices.kcal_per_gram(Profile.empty()),
                indices.protein_per_100_kcal(FOODS["salt"].profile(5)),
            ],
            [None, None],
        )

    def test_acid_load_says_how_much_is_known(self):
        mixed = FOODS["walnuts"].profile(50) + FOODS["fava-bean-flour"].profile(50)
        self.assertAlmostEqual(indices.acid_load(mixed).known, 0.5)
