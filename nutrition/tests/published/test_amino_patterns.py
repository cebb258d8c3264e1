"""Amino-acid patterns of WHO/FAO/UNU 935 (2007) and FAO Paper 92 (2013), and the worked mixture of
FAO Paper 51 (1991), from memory."""

from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.insight.protein_quality import (
    PATTERN_2007,
    PATTERN_2013,
    amino_acid_score,
    score_mixture,
)
from nutrition.targets.amino_needs import needs_g

FOODS = food_table()
# Pre-school pattern of the 1991 paper, the four amino acids its example follows. [mg/g]
PATTERN_1991 = {
    "lysine_g": 58.0,
    "methionine_cystine_g": 25.0,
    "threonine_g": 34.0,
    "tryptophan_g": 11.0,
}


def acids(lysine, sulfur, threonine, tryptophan):
    return dict(zip(PATTERN_1991, (lysine, sulfur, threonine, tryptophan), strict=True))


# Wheat 350 g, chickpea 150 g, milk powder 50 g: protein [g], amino acids [mg/g], digestibility.
MIXTURE = [
    (45.5, acids(25, 35, 30, 11), 0.85),
    (33.0, acids(70, 25, 42, 13), 0.80),
    (17.0, acids(80, 30, 37, 12), 0.95),
]


class Patterns(TestCase):
    def test_check_values(self):
        self.assertEqual((PATTERN_2007["lysine_g"], PATTERN_2013["lysine_g"]), (45, 48))
        self.assertEqual(sum(PATTERN_2007.values()), 277)
        for key, value in PATTERN_2007.items():
            self.assertGreaterEqual(PATTERN_2013[key], value, key)

    def test_the_pattern_of_2007_is_the_need_over_the_protein_need(self):
        """935: needs in mg/kg over the mean protein requirement of 0.66 g/kg."""
        for key, grams in needs_g(1.0).items():
            self.assertAlmostEqual(grams * 1000 / 0.66, PATTERN_2007[key], delta=1.0)

    def test_needs(self):
        needs = needs_g(70)
        self.assertAlmostEqual(needs["lysine_g"], 2.1)
        self.assertAlmostEqual(needs["leucine_g"], 2.73)


class WorkedMixture(TestCase):
    def test_the_paper(self):
        """Lysine 50 mg/g of 58: 0.87; digestibility 0.85; corrected 0.73."""
        found = score_mixture(MIXTURE, PATTERN_1991)
        self.assertEqual(found.limiting, "lysine_g")
        self.assertAlmostEqual(found.mg_per_g["lysine_g"], 50, delta=0.5)
        self.assertAlmostEqual(found.mg_per_g["methionine_cystine_g"], 31, delta=0.5)
        self.assertAlmostEqual(found.mg_per_g["threonine_g"], 35, delta=0.5)
        self.assertAlmostEqual(found.mg_per_g["tryptophan_g"], 12, delta=0.5)
        self.assertAlmostEqual(found.score, 0.86, delta=0.01)
        self.assertAlmostEqual(found.digestibility, 0.85, delta=0.005)
        self.assertAlmostEqual(found.corrected, 0.73, delta=0.01)

    def test_by_the_later_patterns_the_same_mixture_is_whole(self):
        for pattern in (PATTERN_2007, PATTERN_2013):
            of_four = {key: pattern[key] for key in PATTERN_1991}
            self.assertGreater(score_mixture(MIXTURE, of_four).score, 1.0)

    def test_foods_of_the_table(self):
        rice = amino_acid_score([(FOODS["white-rice-cooked"], 200)])
        both = amino_acid_score([(FOODS["white-rice-cooked"], 200), (FOODS["lentils-cooked"], 150)])
        self.assertEqual(rice.limiting, "lysine_g")
        self.assertGreater(both.score, rice.score)
        self.assertIsNone(amino_acid_score([(FOODS["salt"], 5)]))
