"""What measures weigh, line by line, and how grams are said, written out beside in edge_lines.tsv
and edge_words.tsv; and both sides of what is taken at all."""

import unittest
from pathlib import Path

from nutrition.composition.foods import food_table
from nutrition.tests.written_out import rows_of
from nutrition.written.basis import basis_range
from nutrition.written.guess import UnreadableGuess, read_guess
from nutrition.written.household import count_words, fraction, spoken, step_g
from nutrition.written.matching import reckon_line
from nutrition.written.serving_words import counted
from nutrition.written.typed_amounts import UnreadableAmount, read_amount

HERE = Path(__file__).parent
TABLE = food_table()


def said(value):
    return "" if value is None else f"{value:.4g}"


class Lines(unittest.TestCase):
    def test_what_each_measure_weighs_with_its_range(self):
        rows = rows_of(HERE / "edge_lines.tsv")
        self.assertGreater(len(rows), 120)
        for line, system, food, *grams in rows:
            with self.subTest(line, system=system):
                read = reckon_line(line, system=system)
                slug = read.food.slug if read.food and read.grams else ""
                found = [slug, *map(said, (read.grams, read.low, read.high))]
                self.assertEqual(found, [food, *grams])

    def test_how_far_an_amount_can_be_off(self):
        for basis, share in (
            ("weighed", 0.02),
            ("label", 0.04),
            ("leveled measure", 0.06),
            ("measure of a dish", 0.12),
            ("by eye", 0.35),
        ):
            low, high = basis_range(100.0, basis)
            self.assertAlmostEqual(low, 100.0 * (1 - share))
            self.assertAlmostEqual(high, 100.0 * (1 + share))


class Words(unittest.TestCase):
    def test_how_grams_are_said(self):
        for slug, grams, words in rows_of(HERE / "edge_words.tsv"):
            with self.subTest(slug, grams=grams):
                found = spoken(TABLE[slug], float(grams))
                self.assertEqual(found.words.replace("\xa0", " ") if found else "", words)

    def test_nothing_and_a_ton_are_not_said(self):
        millet = TABLE["millet-cooked"]
        self.assertIsNone(spoken(millet, 0.0))
        self.assertIsNotNone(spoken(millet, 999_999.0))
        self.assertIsNone(spoken(millet, 1_000_001.0))

    def test_fractions(self):
        for value, words in (
            (0.11, "0"),
            (0.14, "¼"),
            (0.28, "¼"),
            (0.30, "⅓"),
            (0.41, "⅓"),
            (0.42, "½"),
            (0.58, "½"),
            (0.59, "⅔"),
            (0.70, "⅔"),
            (0.71, "¾"),
            (0.87, "¾"),
            (0.88, "1"),
            (1.5, "1½"),
        ):
            self.assertEqual(fraction(value)[1], words, value)

    def test_one_and_many(self):
        self.assertEqual(count_words(1.0, "bowl").replace("\xa0", " "), "1 bowl")
        self.assertEqual(count_words(1.5, "bowl").replace("\xa0", " "), "1½ bowls")

    def test_a_kitchen_sized_step(self):
        """A piece of two grams and more, else a quarter cup, or a tablespoon."""
        self.assertEqual(step_g(TABLE["walnuts"]), 2.0)
        self.assertAlmostEqual(step_g(TABLE["millet-cooked"]), 43.5)


class Taken(unittest.TestCase):
    def test_an_amount_that_is_typed_is_up_to_five_kilograms(self):
        kale = TABLE["kale-raw"]
        self.assertEqual(read_amount("5000", kale).grams, 5000.0)
        for text in ("5001", "0", "some of it"):
            with self.assertRaises(UnreadableAmount):
                read_amount(text, kale)

    def test_a_guess_is_50_to_10000_kcal_in_200_letters(self):
        found = read_guess("pasta at the inn, 800 kcal")
        self.assertEqual(found.kcal, 800.0)
        self.assertAlmostEqual(found.low, 800.0 * 0.65)
        self.assertAlmostEqual(found.high, 800.0 * 1.35)
        self.assertEqual(read_guess("pasta, 9000 kcal, 8000 to 10000").high, 10_000.0)
        self.assertEqual(read_guess("a table for 2 to 49, 700 kcal").low, 700.0 * 0.65)
        self.assertEqual(read_guess("pasta, 20 to 50 kcal").low, 20.0)
        self.assertEqual(read_guess("x" * 200).words, "x" * 200)
        for text in ("pasta, 9000 kcal, 8000 to 10001", "x" * 201, "pasta, 0 kcal"):
            with self.assertRaises(UnreadableGuess):
                read_guess(text)

    def test_a_batch_of_a_tenth_to_a_thousand_servings(self):
        for text, count in (("0.1 x 1 cup", 0.1), ("1000 x 1 cup", 1000.0), ("5 x 1 cup", 5.0)):
            self.assertEqual(counted(text)[0], count)
        for text in ("0.09 x 1 cup", "1001 x 1 cup"):
            self.assertIsNone(counted(text)[0])
