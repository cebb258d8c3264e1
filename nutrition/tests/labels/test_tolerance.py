"""What the law tolerates between a label and what is in the package: 21 CFR 101.9(g), and the
European guidance of December 2012, from memory."""

from unittest import TestCase

from nutrition.labels.rounding import Printed
from nutrition.labels.tolerance import tolerated


def band(kind, key, amount):
    found = tolerated(kind, key, Printed(amount, amount, amount))
    return round(found.low, 3), round(found.high, 3)


class Tolerance(TestCase):
    def test_the_united_states(self):
        for key, amount, low, high in (
            # at least 80 % of what nature put in; the other side by good practice
            ("protein_g", 10, 8, 11),
            ("potassium_mg", 200, 160, 220),
            ("fiber_g", 5, 4, 5.5),
            # at most 120 % of what is watched
            ("energy_kcal", 100, 90, 120),
            ("sodium_mg", 500, 450, 600),
            ("saturated_fat_g", 2, 1.8, 2.4),
        ):
            with self.subTest(key):
                self.assertEqual(band("us", key, amount), (low, high))

    def test_the_european_union_on_both_sides_of_its_edges(self):
        for key, amount, low, high in (
            ("fat_g", 9.9, 8.4, 11.4),
            ("fat_g", 10.1, 8.08, 12.12),
            ("fat_g", 39, 31.2, 46.8),
            ("fat_g", 41, 33, 49),
            ("sodium_mg", 480, 330, 630),
            ("sodium_mg", 600, 480, 720),
            ("iron_mg", 10, 6.5, 14.5),
            ("vitamin_c_mg", 10, 6.5, 15),
            ("energy_kcal", 100, 85, 115),
        ):
            with self.subTest(key, amount=amount):
                self.assertEqual(band("europe", key, amount), (low, high))

    def test_what_the_union_holds_alike(self):
        for key in ("carbohydrate_g", "sugars_g", "protein_g", "fiber_g"):
            for amount, low, high in (
                (9.9, 7.9, 11.9),
                (10.1, 8.08, 12.12),
                (39, 31.2, 46.8),
                (41, 33, 49),
            ):
                with self.subTest(key, amount=amount):
                    self.assertEqual(band("europe", key, amount), (low, high))
        for key in ("saturated_fat_g", "monounsaturated_fat_g", "polyunsaturated_fat_g"):
            for amount, low, high in ((3.9, 3.1, 4.7), (4.1, 3.28, 4.92), (60, 48, 72)):
                with self.subTest(key, amount=amount):
                    self.assertEqual(band("europe", key, amount), (low, high))

    def test_rounding_that_hides_more_stays(self):
        found = tolerated("us", "fat_g", Printed(0.5, 0.25, 0.75))
        self.assertEqual((found.low, found.high), (0.25, 0.75))
        nothing = Printed(0.0, 0.0, 0.5)
        self.assertEqual(tolerated("us", "fat_g", nothing), nothing)
