"""What stands exactly on an edge of the labels, written out: the side it falls on."""

import unittest
from unittest.mock import patch

import numpy as np

from nutrition.composition.foods import food_table
from nutrition.composition.nutrients import KEYS
from nutrition.composition.profile import INDEX
from nutrition.labels import claims, like_kind, own_food
from nutrition.labels.item_list import items_in
from nutrition.labels.printed_value import _between_steps
from nutrition.labels.rounding import Printed


class Limits(unittest.TestCase):
    def test_on_the_limit(self):
        """Under 3 g does not hold 3 g, at most 3 g does; by what is printed."""
        three = Printed(3.0, 2.75, 3.25)
        self.assertFalse(claims._within(three, 3.0, strict=True))
        self.assertTrue(claims._within(Printed(2.99, 2.5, 3.5), 3.0, strict=True))
        self.assertTrue(claims._within(three, 3.0, strict=False))
        self.assertFalse(claims._within(Printed(3.01, 2.5, 3.5), 3.0, strict=False))

    def test_over_it_what_is_printed_may_hide_either(self):
        for limit, printed, verdict in (
            ("under", Printed(3.0, 2.75, 3.25), claims.OPEN),
            ("under", Printed(3.5, 3.0, 3.75), claims.FAILS),
            ("most", Printed(3.5, 3.0, 3.75), claims.OPEN),
            ("most", Printed(3.5, 3.01, 3.75), claims.FAILS),
            ("most", Printed(3.0, 2.75, 3.25), claims.HOLDS),
        ):
            read = type("Read", (), {"per_serving": {"fat_g": printed}})()
            found, _words = claims._limit(limit, "fat_g", 3.0, read, small=False)
            self.assertEqual(found, verdict, (limit, printed))


class Lists(unittest.TestCase):
    def test_a_point_after_one_letter_parts_nothing(self):
        self.assertEqual(len(list(items_in("Vitamin B. complex, salt"))), 2)
        self.assertEqual(len(list(items_in("Oats. Salt"))), 2)


class Values(unittest.TestCase):
    def test_a_fiftieth_of_a_step_is_on_it(self):
        for value, between in ((10.019, False), (10.021, True), (9.979, True), (9.981, False)):
            self.assertEqual(_between_steps(value, 1.0), between, value)

    def test_however_alike_a_kind_another_may_be_three_twentieths_from_it(self):
        """Six foods with a milligram of iron in each gram of dry matter; 40 g of it."""
        known = np.full(len(KEYS), np.nan)
        known[INDEX["water_g"]] = 60.0
        peers = list(food_table())[:6]
        with patch.object(like_kind, "_ratio", lambda _food, _key, _per: 1.0):
            done = like_kind.fill(known, known, known, peers, None)
        at = INDEX["iron_mg"]
        np.testing.assert_allclose(
            [done.low[at], done.values[at], done.high[at]], [34.0, 40.0, 46.0]
        )

    def test_ash_is_between_a_fifth_of_a_gram_and_four(self):
        """Of 10, 5 and 30 g: 53.5 g of water, 51 to 54.8."""
        values, low, high = (np.full(len(KEYS), np.nan) for _ in range(3))
        for key, grams in (("protein_g", 10.0), ("fat_g", 5.0), ("carbohydrate_g", 30.0)):
            for side in (values, low, high):
                side[INDEX[key]] = grams
        own_food._water(values, low, high)
        at = INDEX["water_g"]
        np.testing.assert_allclose([low[at], values[at], high[at]], [51.0, 53.5, 54.8])
