"""The 2021 CKD-EPI creatinine equation.

Inker et al., N Engl J Med 385:1737 (2021). The equation as it is printed by sex and by which side
of the bend creatinine is on, coded apart from ours; and round values of calculators that use it,
from memory."""

from unittest import TestCase

from nutrition.targets.kidney import egfr_ckd_epi_2021, stage_of


def as_printed(creatinine, age, sex):
    if sex == "female":
        if creatinine <= 0.7:
            return 143.704 * (creatinine / 0.7) ** -0.241 * 0.9938**age
        return 143.704 * (creatinine / 0.7) ** -1.200 * 0.9938**age
    if creatinine <= 0.9:
        return 142.0 * (creatinine / 0.9) ** -0.302 * 0.9938**age
    return 142.0 * (creatinine / 0.9) ** -1.200 * 0.9938**age


class CkdEpi2021(TestCase):
    def test_as_it_is_printed(self):
        for sex in ("female", "male"):
            for age in (18, 40, 65, 90):
                for creatinine in (0.4, 0.7, 0.9, 1.2, 2.5, 8.0):
                    self.assertAlmostEqual(
                        egfr_ckd_epi_2021(creatinine, age, sex),
                        as_printed(creatinine, age, sex),
                        places=6,
                    )

    def test_round_values_of_calculators(self):
        """From memory."""
        for creatinine, age, sex, rate in (
            (1.0, 50, "male", 92),
            (1.2, 60, "female", 52),
            (1.5, 70, "male", 50),
            (2.0, 55, "male", 39),
        ):
            self.assertEqual(round(egfr_ckd_epi_2021(creatinine, age, sex)), rate)

    def test_stages_of_kdigo_2012(self):
        for rate, stage in (
            (90, "1"),
            (89.9, "2"),
            (60, "2"),
            (59.9, "3a"),
            (45, "3a"),
            (44.9, "3b"),
            (30, "3b"),
            (29.9, "4"),
            (15, "4"),
            (14.9, "5"),
        ):
            self.assertEqual(stage_of(rate), stage)

    def test_what_cannot_be_is_refused(self):
        for bad in (0.0, -1.0):
            with self.assertRaises(ValueError):
                egfr_ckd_epi_2021(bad, 50, "male")
        with self.assertRaises(KeyError):
            egfr_ckd_epi_2021(1.0, 50, "")
