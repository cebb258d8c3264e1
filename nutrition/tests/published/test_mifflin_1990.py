"""Mifflin, St Jeor et al., Am J Clin Nutr 51:241 (1990)."""

from unittest import TestCase

from nutrition.targets.energy import mifflin_st_jeor


class MifflinStJeor(TestCase):
    def test_worked_examples(self):
        self.assertAlmostEqual(mifflin_st_jeor("male", 70, 175, 30), 1648.75)
        self.assertAlmostEqual(mifflin_st_jeor("female", 70, 175, 30), 1648.75 - 5 - 161)
        self.assertAlmostEqual(mifflin_st_jeor("female", 60, 165, 30), 1320.25)
