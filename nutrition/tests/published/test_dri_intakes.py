"""National Academies, Dietary Reference Intakes: RDA, AI and upper levels of every adult life-stage
group.

Values from memory, written here a second time by nutrient and group, not copied from the table.
"""

from unittest import TestCase

from nutrition.composition.nutrients import NUTRIENT
from nutrition.targets.reference_intakes import reference_intakes

# key: men 19-30, 31-50, 51-70, over 70; women the same; pregnancy 19-30, 31-50; nursing 19-30,
# 31-50
TABLE = {
    "calcium_mg": "1000 1000 1000 1200 1000 1000 1200 1200 1000 1000 1000 1000",
    "iron_mg": "8 8 8 8 18 18 8 8 27 27 9 9",
    "magnesium_mg": "400 420 420 420 310 320 320 320 350 360 310 320",
    "phosphorus_mg": "700 700 700 700 700 700 700 700 700 700 700 700",
    "potassium_mg": "3400 3400 3400 3400 2600 2600 2600 2600 2900 2900 2800 2800",
    "zinc_mg": "11 11 11 11 8 8 8 8 11 11 12 12",
    "copper_mg": "0.9 0.9 0.9 0.9 0.9 0.9 0.9 0.9 1.0 1.0 1.3 1.3",
    "manganese_mg": "2.3 2.3 2.3 2.3 1.8 1.8 1.8 1.8 2.0 2.0 2.6 2.6",
    "selenium_ug": "55 55 55 55 55 55 55 55 60 60 70 70",
    "iodine_ug": "150 150 150 150 150 150 150 150 220 220 290 290",
    "vitamin_a_rae_ug": "900 900 900 900 700 700 700 700 770 770 1300 1300",
    "vitamin_c_mg": "90 90 90 90 75 75 75 75 85 85 120 120",
    "vitamin_d_ug": "15 15 15 20 15 15 15 20 15 15 15 15",
    "vitamin_e_mg": "15 15 15 15 15 15 15 15 15 15 19 19",
    "vitamin_k_ug": "120 120 120 120 90 90 90 90 90 90 90 90",
    "thiamin_mg": "1.2 1.2 1.2 1.2 1.1 1.1 1.1 1.1 1.4 1.4 1.4 1.4",
    "riboflavin_mg": "1.3 1.3 1.3 1.3 1.1 1.1 1.1 1.1 1.4 1.4 1.6 1.6",
    "niacin_mg": "16 16 16 16 14 14 14 14 18 18 17 17",
    "vitamin_b6_mg": "1.3 1.3 1.7 1.7 1.3 1.3 1.5 1.5 1.9 1.9 2.0 2.0",
    "vitamin_b12_ug": "2.4 2.4 2.4 2.4 2.4 2.4 2.4 2.4 2.6 2.6 2.8 2.8",
    "pantothenic_acid_mg": "5 5 5 5 5 5 5 5 6 6 7 7",
    "folate_ug": "400 400 400 400 400 400 400 400 600 600 500 500",
    "choline_mg": "550 550 550 550 425 425 425 425 450 450 550 550",
    "linoleic_g": "17 17 14 14 12 12 11 11 13 13 13 13",
    "ala_g": "1.6 1.6 1.6 1.6 1.1 1.1 1.1 1.1 1.4 1.4 1.3 1.3",
    "carbohydrate_g": "130 130 130 130 130 130 130 130 175 175 210 210",
}
GROUPS = [(sex, age, "adult") for sex in ("male", "female") for age in (25, 40, 60, 75)] + [
    ("female", age, stage) for stage in ("pregnant_2", "lactating_0_6") for age in (25, 40)
]
UPPER = {
    "calcium_mg": (2500, 2000),
    "phosphorus_mg": (4000, 3000),
    "iodine_ug": (1100, 1100),
    "selenium_ug": (400, 400),
    "iron_mg": (45, 45),
    "zinc_mg": (40, 40),
    "vitamin_d_ug": (100, 100),
    "vitamin_c_mg": (2000, 2000),
}  # noqa: E501


class ReferenceIntakes(TestCase):
    def test_every_adult_group(self):
        self.assertGreaterEqual(len(TABLE), 20)
        for group, person in enumerate(GROUPS):
            intakes = reference_intakes(*person)
            self.assertEqual(set(intakes), set(TABLE))
            for key, row in TABLE.items():
                with self.subTest(key, person=person):
                    self.assertEqual(intakes[key].value, float(row.split()[group]))

    def test_upper_levels_young_and_old(self):
        young, old = reference_intakes("female", 25), reference_intakes("female", 75)
        for key, (first, last) in UPPER.items():
            with self.subTest(key):
                self.assertEqual((young[key].upper, old[key].upper), (first, last))
        self.assertIsNone(young["magnesium_mg"].upper, "the upper level is for supplements only")
        self.assertEqual(reference_intakes("female", 25, "pregnant_2")["phosphorus_mg"].upper, 3500)

    def test_age_bounds(self):
        for age, value in ((50, 1000), (51, 1200), (50.9, 1000)):
            self.assertEqual(reference_intakes("female", age)["calcium_mg"].value, value)

    def test_units_are_the_tables(self):
        for row in reference_intakes("male", 30).values():
            self.assertIn(row.key, NUTRIENT)
            self.assertIn(row.kind, ("RDA", "AI"))
