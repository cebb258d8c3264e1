"""A meal eaten out: words and a guess, the rest unknown."""

from unittest import TestCase

from nutrition.composition.restaurant_meal import eaten_out, guessed_profile
from nutrition.written.guess import UnreadableGuess, read_guess


class Guesses(TestCase):
    def test_as_people_say_them(self):
        for text, words, numbers in (
            ("noodles, about 700 kcal, 500 to 1,000", "noodles", (700, 500, 1000)),
            ("noodles at the pier (500-1000 kcal)", "noodles at the pier", (750, 500, 1000)),
            ("eaten out: soup, around 400 calories", "soup", (400, 260, 540)),
            ("Ate out: soup, around 400 calories", "soup", (400, 260, 540)),
            ("buffet, between 900 and 1.500 kcal", "buffet", (1200, 900, 1500)),
            ("a table for 2 to 4", "a table for 2 to 4", (None, None, None)),
            ("wedding dinner", "wedding dinner", (None, None, None)),
        ):
            with self.subTest(text):
                guess = read_guess(text)
                self.assertEqual(guess.words, words)
                self.assertEqual((guess.kcal, guess.low, guess.high), numbers)

    def test_what_cannot_be_is_refused_in_words(self):
        for text in (
            "700 kcal",
            "feast, about 10,001 kcal",
            "soup, about 300 kcal, 400 to 600",
            "x" * 201,
        ):
            with self.subTest(text[:30]), self.assertRaises(UnreadableGuess):
                read_guess(text)
        self.assertEqual(read_guess("feast, about 10,000 kcal, 9,000 to 10,000").kcal, 10000)
        self.assertEqual(len(read_guess("x" * 200).words), 200)

    def test_it_says_what_it_is(self):
        self.assertEqual(
            read_guess("stew, about 700 kcal, 500 to 1,000").said, "about 700 kcal, 500 to 1,000"
        )
        self.assertEqual(read_guess("stew").said, "energy unknown")


class WhatItBrings(TestCase):
    def test_energy_between_its_ends_and_nothing_else_known(self):
        profile = guessed_profile(700, 500, 1000)
        energy = profile["energy_kcal"]
        self.assertAlmostEqual(energy.amount, 700)
        self.assertAlmostEqual(energy.low, 500, delta=1)
        self.assertAlmostEqual(energy.high, 1000, delta=1)
        self.assertFalse(profile["protein_g"].complete)
        self.assertEqual(profile["protein_g"].known, 0)

    def test_a_plate_s_weight_is_guessed_by_its_energy(self):
        self.assertAlmostEqual(guessed_profile(600, 400, 800).grams, 400)

    def test_without_a_guess_nothing_is_known(self):
        self.assertFalse(guessed_profile(None, None, None)["energy_kcal"].complete)

    def test_no_proposal_changes_it(self):
        portion = eaten_out("1", "stew", 700, 500, 1000)
        self.assertTrue(portion.locked)
        self.assertEqual(portion.limits.least, portion.limits.most)
