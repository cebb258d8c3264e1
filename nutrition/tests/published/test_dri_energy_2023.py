"""National Academies, Dietary Reference Intakes for Energy (2023), adult equations; coefficients
from memory."""

from unittest import TestCase

from nutrition.targets.energy import eer_2023, eer_2023_pregnant, life_stage_kcal


class Requirement(TestCase):
    def test_worked_examples(self):
        """A woman of 30, 165 cm, 60 kg; a man of 40, 180 cm, 80 kg: each equation worked with a
        pencil."""
        for activity, woman, man in (
            ("inactive", 584.90 - 210.30 + 943.80 + 702.60, 753.07 - 433.20 + 1170.00 + 1128.00),
            ("low_active", 575.77 - 210.30 + 1089.00 + 728.40, 581.47 - 433.20 + 1494.00 + 1195.20),
            ("active", 710.25 - 210.30 + 1079.10 + 740.40, 1004.82 - 433.20 + 1173.60 + 1272.80),
            (
                "very_active",
                511.83 - 210.30 + 1496.55 + 753.60,
                -517.88 - 433.20 + 2809.80 + 1528.80,
            ),
        ):
            with self.subTest(activity):
                self.assertAlmostEqual(eer_2023("female", 30, 165, 60, activity), woman)
                self.assertAlmostEqual(eer_2023("male", 40, 180, 80, activity), man)

    def test_more_activity_never_costs_less(self):
        for sex in ("female", "male"):
            for weight in (50, 75, 110):
                needs = [
                    eer_2023(sex, 45, 172, weight, level)
                    for level in ("inactive", "low_active", "active", "very_active")
                ]
                self.assertEqual(needs, sorted(needs), (sex, weight))

    def test_pregnancy_and_nursing(self):
        self.assertEqual(
            [
                life_stage_kcal(stage)
                for stage in ("adult", "pregnant_1", "pregnant_2", "pregnant_3")
            ],
            [0, 0, 340, 452],
        )
        self.assertEqual(
            [life_stage_kcal(stage) for stage in ("lactating_0_6", "lactating_7_12")], [400, 380]
        )

    def test_pregnancy_equations(self):
        """30 years, 165 cm, 65 kg now, week 20, low active, worked with a pencil; later and heavier
        never costs less."""
        by_hand = 693.35 - 61.20 + 945.45 + 663.00 + 183.20 + 200.00
        self.assertAlmostEqual(eer_2023_pregnant(30, 165, 65, "low_active", 20), by_hand)
        for activity in ("inactive", "low_active", "active", "very_active"):
            with self.subTest(activity):
                before = eer_2023("female", 30, 165, 62, activity)
                self.assertGreater(eer_2023_pregnant(30, 165, 66, activity, 20), before + 100)
                self.assertGreater(
                    eer_2023_pregnant(30, 165, 72, activity, 34),
                    eer_2023_pregnant(30, 165, 66, activity, 20),
                )
