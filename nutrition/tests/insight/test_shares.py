"""What each food has in the amino-acid score and in the glycemic load."""

from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.insight.glycemic import glycemic_load
from nutrition.insight.protein_quality import amino_acid_score
from nutrition.insight.shares import glycemic_shares, protein_shares

FOODS = food_table()
PLATE = [
    (FOODS["lentils-cooked"], 150.0),
    (FOODS["brown-rice-cooked"], 100.0),
    (FOODS["lentils-cooked"], 50.0),
    (FOODS["salt"], 1.0),
]


class Shares(TestCase):
    def test_the_loads_of_the_foods_are_the_load(self):
        shares = glycemic_shares(PLATE)
        self.assertEqual([one.food.slug for one in shares][0], "brown-rice-cooked")
        self.assertEqual(len(shares), 2, "one row a food, none for salt")
        self.assertAlmostEqual(
            sum(one.load or 0.0 for one in shares), glycemic_load(PLATE).load, places=6
        )
        lentils = shares[1]
        self.assertEqual((lentils.grams, lentils.index), (200.0, 32.0))
        self.assertIn("Atkinson", lentils.source)

    def test_a_food_of_unknown_index_stands_last_and_has_no_load(self):
        shares = glycemic_shares([*PLATE, (FOODS["celeriac-raw"], 900.0)])
        unknown = [one for one in shares if one.index is None]
        self.assertEqual(unknown, shares[len(shares) - len(unknown) :])
        for one in unknown:
            self.assertIsNone(one.load)
            self.assertEqual(one.source, "")

    def test_the_proteins_make_the_score(self):
        score = amino_acid_score(PLATE)
        shares = protein_shares(PLATE, score.limiting)
        self.assertEqual([one.food.slug for one in shares], ["lentils-cooked", "brown-rice-cooked"])
        protein = sum(one.protein_g for one in shares)
        self.assertAlmostEqual(
            sum(one.protein_g * one.acid_mg_per_g for one in shares) / protein,
            score.mg_per_g[score.limiting],
            places=6,
        )
        self.assertAlmostEqual(
            sum(one.protein_g * one.digestibility for one in shares) / protein,
            score.digestibility,
            places=6,
        )
        self.assertEqual([one.digestibility for one in shares], [0.78, 0.75])
