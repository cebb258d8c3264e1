"""A plan keeps under what its page stops at."""

import unittest

from nutrition.planning.candidates import _under_the_stops, aims_of_day
from nutrition.targets.aim import Aim
from nutrition.targets.day import day_targets
from nutrition.targets.person import Person

HEART = {"potassium_mg": 4700.0}


class UnderTheStops(unittest.TestCase):
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
        (limit,) = potassium(HEART)
        self.assertEqual((limit.high, limit.firm_high, limit.weight), (4700.0, True, 0.0))
        (watched,) = potassium(HEART, ("potassium_mg",))
        self.assertEqual((watched.high, watched.firm_high), (4700.0, True))
        self.assertGreater(watched.weight, 0.0)

    def test_a_stricter_most_of_their_own_stays(self):
        for high, held, firm in (
            (3000.0, 3000.0, False),
            (4700.0, 4700.0, False),
            (6000.0, 4700.0, True),
        ):
            own = Aim(key="potassium_mg", low=2000.0, aim=2500.0, high=high, weight=2.0)
            (aim,) = _under_the_stops([own], {"potassium_mg": 4700.0})
            self.assertEqual((aim.high, aim.firm_high, aim.low), (held, firm, 2000.0))
        open_ = Aim(key="potassium_mg", low=5000.0, aim=5500.0, high=None)
        (aim,) = _under_the_stops([open_], {"potassium_mg": 4700.0})
        self.assertEqual((aim.low, aim.aim, aim.high), (4700.0, 4700.0, 4700.0))
