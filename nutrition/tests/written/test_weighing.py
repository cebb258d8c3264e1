"""What an amount weighs: bought or eaten, by eye, in packages of which nobody said the size. Grams
by hand from the portion rows and shares of the table."""

from math import hypot
from unittest import TestCase

from nutrition.composition.foods import food_table
from nutrition.written.as_purchased import weighed_as_bought
from nutrition.written.grammar import read
from nutrition.written.matching import reckon_line

FOODS = food_table()


def weighs(text, **how):
    line = reckon_line(text, **how)
    return (
        round(line.grams, 1),
        round(line.low, 1),
        round(line.high, 1),
    )


class BoughtOrEaten(TestCase):
    def test_what_is_taken_off_after_it_was_weighed(self):
        for text, grams in (
            ("1 pineapple (1.5 kg), peeled and cored", 1500 * 0.51),
            ("2 lb butternut squash, seeded and cubed", 907.2 * 0.84),
            ("500 g cherries, pitted", 500 * 0.88),
            ("150 g banana with skin", 150 * 0.64),
            ("2 avocados (about 500 g), pitted", 500 * 0.74),
            ("1 watermelon (4 kg)", 4000 * 0.52),
            ("600 g leeks, trimmed", 600 * 0.44),
            ("1 kg swiss chard, stems removed", 1000 * 0.72),
            # done before it was weighed, or hardly anything is lost
            ("200 g pitted dates", 200),
            ("500 g peeled pumpkin", 500),
            ("300 g carrots, peeled", 300),
            ("150 g potato, with skin", 150),
            ("1 onion (180 g), chopped", 180),
            ("500 g pineapple, net", 500),
        ):
            with self.subTest(text):
                line = reckon_line(text)
                self.assertAlmostEqual(line.grams, grams, delta=0.01 * grams)

    def test_the_line_shows_both_weights(self):
        line = reckon_line("1 pineapple (1.5 kg), peeled and cored")
        self.assertIn("1,500 g as bought; 51% of it is eaten, 765 g", line.assumed)

    def test_each_share_on_both_sides_of_its_edge(self):
        # eaten: mango 0.71, sweet potato 0.78, okra 0.86; fennel 0.72, leek 0.44
        for text, slug, whole in (
            ("500 g mango, peeled", "mango-raw", True),
            ("500 g sweet potato, peeled", "sweet-potato-raw", False),
            ("1 sweet potato (300 g), peeled", "sweet-potato-raw", True),
            ("1 potato (300 g), peeled", "potato-no-skin-raw", False),
            ("500 g leek, trimmed", "leek-raw", True),
            ("500 g broccoli, trimmed", "broccoli-raw", False),
            # nobody weighs what is left of one melon; of a banana they do
            ("1 melon (600 g)", "cantaloupe-raw", True),
            ("1 banana (118 g)", "banana-raw", False),
            ("1 banana (190 g)", "banana-raw", True),
        ):
            with self.subTest(text):
                reading = read(text)
                grams = reading.terms[0].best
                self.assertEqual(weighed_as_bought(reading, FOODS[slug], grams), whole)


class ByEye(TestCase):
    def test_spoons_ladles_plates_and_what_they_hold(self):
        for text, best, low, high in (
            # mL as filled, best, least and most, of a soup of 248 g a cup; by eye
            ("1 ladle lentil soup", 125.8, 75, 190),
            ("1 plate lentil soup", 419.3, 240, 640),
            ("1 katori lentil soup", 157.2, 110, 215),
            ("1 fist lentil soup", 209.6, 131, 295),
            ("1 bowl lentil soup", 366.9, 240, 500),
            ("1 small bowl lentil soup", 238.5, 155, 330),
            ("1 large bowl lentil soup", 495.3, 330, 680),
            ("1 extra large bowl lentil soup", 587, 390, 800),
        ):
            with self.subTest(text):
                grams, least, most = weighs(text, eaten=True)
                self.assertAlmostEqual(grams, best, delta=1)
                self.assertAlmostEqual(least, low, delta=0.12 * best)
                self.assertAlmostEqual(most, high, delta=0.12 * best)
        self.assertEqual(weighs("1 spoon tahini"), (12.2, 6.0, 22.4))
        self.assertEqual(reckon_line("1 spoon tahini").assumed, ("a spoon taken as 12 mL",))

    def test_a_little_a_wedge_a_pot(self):
        """Best, least and most; the eye adds 0.35 of it, in quadrature."""
        for text, grams, least, most in (
            ("a little salt", 0.5, 0.1, 1.2),
            ("a touch of cumin", 0.3, 0.05, 1.0),
            ("a little parsley", 2, 0.5, 6),
            ("a little olive oil", 4, 1, 10),
            ("a bit of soy milk", 30, 10, 80),
            ("a little tahini", 8, 2, 25),
            ("a little lemon zest", 1, 0.3, 3),
            ("1 pot soy yogurt", 150, 100, 200),
            ("1 lime wedge", 67 / 6, 67 / 8, 67 / 4),
            ("1 slice lemon", 58 / 9, 58 / 14, 58 / 6),
        ):
            with self.subTest(text):
                line, eye = reckon_line(text), 0.35 * grams
                self.assertAlmostEqual(line.grams, grams, delta=0.02 * grams)
                low = max(grams - hypot(grams - least, eye), 0)
                self.assertAlmostEqual(line.low, low, delta=0.02 * grams)
                high = grams + hypot(most - grams, eye)
                self.assertAlmostEqual(line.high, high, delta=0.02 * grams)

    def test_sizes(self):
        medium = FOODS["celeriac-raw"]
        one = next(row.grams for row in medium.measures if row.measure == "medium")
        for size, factor in (("small", 0.65), ("large", 1.4), ("extra large", 1.8)):
            with self.subTest(size):
                self.assertAlmostEqual(weighs(f"1 {size} celeriac")[0], one * factor, delta=0.1)
        # a kind keeps its own weight; a size moves it less
        new = weighs("1 new potato")[0]
        self.assertLess(new, 80)
        self.assertAlmostEqual(weighs("1 small new potato")[0], new * 0.65**0.5, delta=0.1)
        self.assertEqual(weighs("6 apricot halves")[0], 105)
        # two that are halved are two
        self.assertEqual(weighs("2 medium tomatoes, halved")[0], 246)
        self.assertEqual(weighs("1 onion, halved")[0], weighs("1 onion")[0])
        self.assertEqual(weighs("6 apricots, halved")[0], weighs("6 apricots")[0])

    def test_energy_as_an_amount(self):
        almonds = FOODS["almonds"].per_100_g("energy_kcal")
        self.assertAlmostEqual(weighs("300 kcal of almonds")[0], 300 / almonds * 100, delta=0.1)


class Packages(TestCase):
    def test_a_package_of_which_nobody_said_the_size(self):
        for text, low, high in (
            ("1 jar grape leaves", 0.67, 1.4),
            ("1 block firm tofu", 0.69, 1.36),
            ("1 can coconut milk", 0.88, 1.1),
        ):
            grams, least, most = weighs(text)
            with self.subTest(text):
                self.assertAlmostEqual(least / grams, low, delta=0.03)
                self.assertAlmostEqual(most / grams, high, delta=0.03)

    def test_a_cans_milliliters_are_of_all_that_is_in_it(self):
        # 540 mL at 1.03 g/mL, of which 0.6 is left when drained
        grams, _low, _high = weighs("1 (540 ml) can black beans, drained")
        self.assertAlmostEqual(grams, 540 * 1.03 * 0.6, delta=1)

    def test_coarse_salt_spans_what_kinds_weigh(self):
        grams, low, high = weighs("1 tsp kosher salt")
        self.assertEqual(grams, 3.7)
        self.assertLess(low, 2.8)
        self.assertGreater(high, 4.8)
        self.assertEqual(weighs("1 tsp fine salt")[0], 6)

    def test_walnuts_are_halves_and_may_be_chopped(self):
        grams, low, high = weighs("2 cups walnuts")
        self.assertEqual(grams, 200)
        self.assertLess(low, 184)
        self.assertGreater(high, 234)
        self.assertEqual(weighs("2 cups walnuts, chopped")[0], 234)
