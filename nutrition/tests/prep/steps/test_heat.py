"""Oven heats in both scales, as cooks pair them."""

import unittest

from nutrition.prep.steps.heat import Heat, heat_in
from nutrition.tests.prep.steps.dish import by_text, work_of


class Heats(unittest.TestCase):
    def test_both_scales_as_cooks_pair_them(self):
        for fahrenheit, celsius in ((340, 170), (350, 180), (375, 190), (400, 200), (430, 220)):
            self.assertEqual(heat_in(f"bake at {fahrenheit} °F"), celsius)
            self.assertEqual(heat_in(f"bake at {celsius} °C"), celsius)

    def test_however_it_is_written(self):
        for text, celsius in (
            ("at 400F", 200),
            ("350 degrees F", 180),
            ("220C/425F", 220),
            ("180 °C (350 °F)", 180),
            ("at 375", 190),
            ("at 200 degrees", 200),
            ("at 220 for 10 minutes", 220),
            ("gas mark 4", 180),
            ("gas 6", 200),
            ("in a hot oven", 220),
            ("in a very hot oven", 230),
            ("in a moderate oven", 180),
            ("in a low oven", 150),
            ("in a very low oven", 120),
        ):
            self.assertEqual(heat_in(text), celsius, text)

    def test_no_heat(self):
        for text in ("add 200 g kale", "bake 40 minutes", "at 900 °C", "at 250 g a piece"):
            self.assertIsNone(heat_in(text), text)

    def test_what_will_do(self):
        self.assertEqual(
            Heat(celsius=200, spread=20, written=True).choices, (180, 190, 200, 210, 220)
        )
        self.assertEqual(Heat(celsius=250, spread=20, written=True).choices, (230, 240, 250, 260))
        self.assertEqual(Heat(celsius=60, spread=20, written=True).choices, (50, 60, 70, 80))

    def test_the_oven_that_was_set_holds_for_what_comes(self):
        work = work_of(
            ["4 bell peppers", "1 cup cooked freekeh"],
            ["Preheat the oven to 400°F.", "Fill the peppers.", "Bake covered 35 minutes."],
        )
        self.assertEqual(by_text(work, "Bake").heat.celsius, 200)

    def test_what_rises_takes_another_heat_less_well(self):
        roots = work_of(["4 parsnips"], ["Bake the parsnips at 190 °C for 40 minutes."])
        bread = work_of(["2 cups rye flour"], ["Bake the flour at 190 °C for 40 minutes."])
        loaf = work_of(["2 cups cooked lentils"], ["Bake 40 minutes at 190 °C."], "Lentil loaf")
        spreads = [by_text(one, "Bake").heat.spread for one in (roots, bread, loaf)]
        self.assertEqual(spreads, [20, 10, 10])

    def test_none_is_written_where_a_usual_one_is_filled_in(self):
        for words, celsius in (("Roast", 200), ("Bake", 180)):
            heat = by_text(work_of(["4 parsnips"], [f"{words} the parsnips."]), words).heat
            self.assertEqual((heat.celsius, heat.written), (celsius, False))
