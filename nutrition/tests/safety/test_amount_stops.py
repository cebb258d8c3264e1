"""From how much of a nutrient on a person is stopped, and what a plan makes of that."""

import unittest

from nutrition.planning.candidates import aims_of_day
from nutrition.safety.amount_stops import stops_by_amount
from nutrition.safety.cautions import Situation
from nutrition.targets.day import day_targets
from nutrition.targets.person import Person


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

    def test_a_day_is_planned_under_them(self):
        person = Person(
            sex="male",
            age_years=63,
            height_cm=170,
            weight_kg=76,
            conditions=frozenset({"heart_failure"}),
        )
        day = day_targets(person)

        def potassium(stopped, watched=("energy_kcal",)):
            aims = aims_of_day(day, watched, lambda _key: 1.0, stops=stopped)
            return [one for one in aims if one.key == "potassium_mg"]

        self.assertEqual(potassium(None), [])
        (limit,) = potassium(stops("heart_failure"))
        self.assertEqual((limit.high, limit.firm_high, limit.weight), (4700.0, True, 0.0))
        (watched,) = potassium(stops("heart_failure"), ("potassium_mg",))
        self.assertEqual((watched.high, watched.firm_high), (4700.0, True))
        self.assertGreater(watched.weight, 0.0)
        # a stricter most of the person's own stays
        (own,) = potassium({"potassium_mg": 4700.0}, ("potassium_mg",))
        self.assertEqual(own.low, watched.low)
