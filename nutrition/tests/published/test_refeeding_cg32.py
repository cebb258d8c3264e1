"""NICE guideline CG32, nutrition support for adults: who is at a high risk of refeeding problems;
from memory."""

from unittest import TestCase

from nutrition.targets.day import day_targets
from nutrition.targets.person import Person, Referred
from nutrition.targets.refeeding import refeeding_risk


class Criteria(TestCase):
    def test_one_of_the_graver_is_enough(self):
        self.assertTrue(refeeding_risk(15.9, frozenset()))
        for code in ("lost_15_percent", "little_eaten_10_days", "low_electrolytes"):
            self.assertTrue(refeeding_risk(24, frozenset({code})))

    def test_of_the_lesser_two_are(self):
        for code in ("lost_10_percent", "little_eaten_5_days", "alcohol_misuse", "insulin"):
            self.assertFalse(refeeding_risk(24, frozenset({code})))
            self.assertTrue(refeeding_risk(18, frozenset({code})))
        self.assertTrue(refeeding_risk(24, frozenset({"lost_10_percent", "little_eaten_5_days"})))
        self.assertFalse(refeeding_risk(24, frozenset({"insulin", "diuretic"})), "one criterion")
        self.assertFalse(refeeding_risk(18, frozenset()))
        self.assertTrue(refeeding_risk(16.2, frozenset({"eating_disorder_history"})))

    def test_no_energy_is_computed_and_the_referral_says_why(self):
        for kg, codes in ((44.5, ()), (70, ("little_eaten_10_days",)), (50, ("alcohol_misuse",))):
            with self.subTest(kg), self.assertRaises(Referred) as caught:
                day_targets(
                    Person(
                        sex="female",
                        age_years=22,
                        height_cm=168,
                        weight_kg=kg,
                        goal="gain",
                        conditions=frozenset(codes),
                    )
                )
            for words in ("No energy is computed", "5 to 10 kcal per kg with thiamine", "CG32"):
                self.assertIn(words, str(caught.exception))
            self.assertIn("hospital nutrition team", caught.exception.refer_to)
