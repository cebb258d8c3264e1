"""What is added where energy or protein is missing: to which meals, for whom, and beside what."""

import unittest

from nutrition.planning.additions import (
    ADDED_PLACE,
    additions,
    eats_between,
    is_added,
    kind_added,
    places_for,
    with_additions,
    words_of,
)
from nutrition.planning.week import Candidate, Slot
from nutrition.safety.cautions import Situation
from nutrition.safety.gate import OPEN, Gate


def slot(meal, kind, day=0, **more):
    return Slot(key=f"{day}-{meal}-{kind}", day=day, meal=meal, kind=kind, **more)


def added(gate=OPEN, candidates=(), large=False):
    return {one.key: one for one in with_additions(candidates, gate, ["protein_g"], large)}


class Additions(unittest.TestCase):
    def test_every_one_is_in_the_table_and_says_what_it_is(self):
        self.assertGreaterEqual(len(additions()), 15)
        self.assertTrue(all(one.words for one in additions()))
        self.assertEqual(words_of("food-tahini"), "a richer dressing")
        self.assertEqual(words_of("recipe-3"), "")

    def test_what_somebody_must_not_have_is_not_added(self):
        self.assertIn("food-tahini", added())
        sesame = Gate(situation=Situation(allergies=frozenset({"sesame"})))
        self.assertNotIn("food-tahini", added(sesame))

    def test_energy_and_little_else_is_for_whom_the_kidneys_limit(self):
        self.assertNotIn("food-white-rice-cooked", added())
        kidneys = Gate(situation=Situation(conditions=frozenset({"ckd_4"})))
        self.assertIn("food-white-rice-cooked", added(kidneys))

    def test_a_large_eater_may_have_two_helpings(self):
        self.assertEqual(added()["food-banana-raw"].counts, (1.0,))
        self.assertEqual(added(large=True)["food-banana-raw"].counts, (1.0, 2.0))
        # bread is eaten by the slice anyway, and seeds by two spoons
        self.assertEqual(added()["food-rye-bread"].counts, (1.0, 2.0))
        self.assertEqual(added(large=True)["food-sunflower-seeds"].counts, (2.0,))

    def test_what_stands_among_the_dishes_may_be_added_too(self):
        liked = Candidate(
            key="food-walnuts", name="walnuts", kinds=frozenset({"seeds"}), amounts={}, grams=30.0
        )
        found = added(candidates=[liked])["food-walnuts"]
        self.assertLessEqual({"seeds", kind_added("breakfast"), kind_added("snack")}, found.kinds)

    def test_it_goes_by_no_rotation(self):
        self.assertFalse(any(one.dish for one in added().values()))


class Places(unittest.TestCase):
    def test_one_at_every_planned_meal_and_between_where_that_is_wished(self):
        slots = [slot("lunch", "soup"), slot("lunch", "bread"), slot("dinner", "main", day=1)]
        self.assertEqual(
            [one.key for one in places_for(slots, False)], ["0-lunch-19", "1-dinner-19"]
        )
        with_snacks = {(one.day, one.meal) for one in places_for(slots, True)}
        self.assertEqual(with_snacks, {(0, "lunch"), (0, "snack"), (1, "dinner"), (1, "snack")})
        self.assertEqual(ADDED_PLACE, 19)
        self.assertTrue(all(is_added(one.kind) and one.optional for one in places_for(slots, True)))

    def test_who_eats_twice_a_day_eats_nothing_between(self):
        self.assertEqual(
            [eats_between(meals) for meals in (1, 2, 3, 5)], [False, False, True, True]
        )

    def test_no_bread_beside_bread_and_no_fruit_beside_fruit(self):
        by_key = added()
        (place,) = places_for([slot("lunch", "soup"), slot("lunch", "bread")], False)
        self.assertFalse(place.takes(by_key["food-rye-bread"]))
        self.assertTrue(place.takes(by_key["food-white-beans-cooked"]))
        (place,) = places_for([slot("snack", "fruit")], False)
        self.assertFalse(place.takes(by_key["food-banana-raw"]))
        self.assertTrue(place.takes(by_key["food-walnuts"]))

    def test_to_a_packed_meal_only_what_travels(self):
        (place,) = places_for([slot("lunch", "soup", packed=True)], False)
        self.assertTrue(place.packed)


if __name__ == "__main__":
    unittest.main()
