"""A plan keeps under what its page stops at."""

import unittest

from nutrition.composition.foods import food_table
from nutrition.composition.profile import Profile
from nutrition.planning.candidates import _under_the_stops, aims_of_day
from nutrition.planning.held_against import held_against
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


class HeldAgainst(unittest.TestCase):
    def held(self, shares, planned, taken=None):
        day = day_targets(Person(sex="female", age_years=40, height_cm=165, weight_kg=62))
        taken = Profile.empty() if taken is None else taken
        return held_against(
            day, ("iron_mg", "energy_kcal"), lambda _key: 1.0, shares, planned, HEART, taken
        )

    def test_a_day_that_is_planned_in_part_has_aims_of_its_own(self):
        found = self.held({0: 0.0, 1: 0.1, 2: 0.5, 3: 0.998, 4: 0.999, 5: 1.0}, [1, 2, 3, 4, 5])
        self.assertEqual(list(found.on_day), [1, 2, 3])
        whole = next(one for one in found.aims if one.key == "energy_kcal")
        half = next(one for one in found.on_day[2] if one.key == "energy_kcal")
        self.assertAlmostEqual(half.aim, whole.aim / 2)
        stopped = next(one for one in found.on_day[2] if one.key == "potassium_mg")
        self.assertEqual((stopped.high, stopped.firm_high), (4700.0, True))

    def test_the_average_is_of_the_days_that_are_planned(self):
        weekly = self.held({0: 1.0, 1: 1.0}, [0, 1]).over_week
        self.assertTrue(weekly)
        for shares, planned, share in (
            ({0: 1.0, 1: 0.5}, [0, 1], 0.75),
            ({0: 1.0, 1: 0.5}, [1], 0.5),
            ({0: 0.0, 1: 0.0}, [], 1.0),
        ):
            found = self.held(shares, planned).over_week
            self.assertEqual([one.key for one in found], [one.key for one in weekly])
            for one, whole in zip(found, weekly, strict=True):
                self.assertAlmostEqual(one.low, whole.low * share)

    def test_a_tablet_that_passes_a_level_is_no_matter_of_the_plate(self):
        tablet = food_table()["pumpkin-seeds"].profile(800.0)
        self.assertGreater(tablet["zinc_mg"].amount, 40.0)
        self.assertIn("zinc_mg", {one.key for one in self.held({0: 1.0}, [0]).aims})
        held = self.held({0: 1.0}, [0], tablet)
        self.assertNotIn("zinc_mg", {one.key for one in held.aims})
        self.assertAlmostEqual(held.base["zinc_mg"], tablet["zinc_mg"].amount)
