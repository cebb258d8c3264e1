"""The change that lets a dish in: oil, cans, salt, what a cook puts in its place, a little left
out."""

import unittest

from nutrition.composition.foods import food_table
from nutrition.safety.cautions import Situation
from nutrition.safety.gate import Gate
from nutrition.swaps.let_in import A_LITTLE, is_the_same_dish, let_in
from nutrition.written.line import Line


def line(slug, grams):
    return Line(text=slug, food=food_table()[slug], grams=grams)


def changes(lines, *avoided, allergies=()):
    gate = Gate(
        situation=Situation(allergies=frozenset(allergies)),
        avoided=dict.fromkeys(avoided, "a school"),
    )
    found = let_in([line(*one) for one in lines], 4.0, gate)
    return None if found is None else [(one.at, one.text, one.words) for one in found]


BEANS, ONION = ("white-beans-cooked", 400.0), ("onion-raw", 100.0)


class LetIn(unittest.TestCase):
    def test_water_goes_into_the_pan_for_oil(self):
        found = changes([BEANS, ("olive-oil", 14.0)], "oil")
        self.assertEqual(found, [(1, "2 tbsp water", "no oil in the pan")])

    def test_beans_are_cooked_from_dry_for_canned(self):
        (found,) = changes([("white-beans-canned-drained", 250.0), ONION], "added salt")
        self.assertEqual(found[0], 0)
        self.assertTrue(found[1].startswith("250 g white beans"), found)
        self.assertIn("cooked from dry for canned", found[2])

    def test_salt_is_left_out(self):
        (found,) = changes([BEANS, ("salt", 2.0)], "added salt")
        self.assertEqual(found[:2], (1, ""))

    def test_what_a_cook_puts_in_its_place_is_none_that_is_held_back(self):
        (found,) = changes([BEANS, ("tahini", 60.0)], allergies={"sesame"})
        self.assertEqual(found[0], 1)
        self.assertNotIn("sesame", found[1])
        self.assertTrue(found[1])

    def test_a_little_is_left_out_and_much_has_nothing_in_its_place(self):
        self.assertEqual(A_LITTLE, 0.05)
        self.assertEqual(changes([BEANS, ("celery-seeds", 5.0)], allergies={"celery"})[0][1], "")
        self.assertIsNone(changes([BEANS, ("mustard-seeds", 60.0)], allergies={"mustard"}))

    def test_with_half_of_its_energy_it_is_still_the_dish(self):
        self.assertTrue(is_the_same_dish(400.0, 200.0))
        self.assertFalse(is_the_same_dish(400.0, 199.0))

    def test_where_nothing_is_held_back_nothing_changes(self):
        self.assertEqual(changes([BEANS, ONION], "oil"), [])


if __name__ == "__main__":
    unittest.main()
