"""From how much of a nutrient on a person is stopped."""

import unittest

from nutrition.safety.amount_stops import stops_by_amount
from nutrition.safety.cautions import Situation


def stops(*conditions):
    return stops_by_amount(Situation(conditions=frozenset(conditions)))


class Stops(unittest.TestCase):
    def test_potassium_where_something_holds_it_back_and_phosphorus_in_kidney_disease(self):
        self.assertEqual(stops(), {})
        self.assertEqual(stops("heart_failure"), {"potassium_mg": 4700.0})
        self.assertEqual(stops("potassium_raising"), {"potassium_mg": 4700.0})
        self.assertEqual(stops("ckd_4"), {"potassium_mg": 4700.0, "phosphorus_mg": 2000.0})
        # sugar in diabetes is a caution that names the food, and no stop
        self.assertEqual(stops("diabetes", "insulin"), {})
