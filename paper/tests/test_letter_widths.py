"""How wide words are in print, held against another reader of the same typeface."""

from pathlib import Path

from django.contrib.staticfiles import finders
from django.test import SimpleTestCase
from fontTools.ttLib import TTFont

from paper.letter_widths import BOLD, lines_of, width_of


class Widths(SimpleTestCase):
    def test_the_widths_that_the_typeface_gives(self):
        font = TTFont(Path(finders.find("vendor/atkinson-latin.woff2")))
        across, names = font["hmtx"], font.getBestCmap()
        for words in ("n", "millet", "12", "."):
            with self.subTest(words=words):
                ems = sum(across[names[ord(one)]][0] for one in words) / font["head"].unitsPerEm
                # the regular weight; 72 points are an inch
                self.assertAlmostEqual(width_of(words, 72), ems * 25.4, delta=0.5)
                self.assertGreater(width_of(words, 72, BOLD), 0)
        self.assertGreater(width_of("millet", 72, BOLD), width_of("millet", 72))

    def test_a_line_is_broken_between_words_behind_a_hyphen_and_in_what_is_too_long(self):
        wide = width_of("Red lentil and", 20, BOLD)
        self.assertEqual(lines_of("Red lentil and", wide + 0.1, 20, BOLD), 1)
        self.assertEqual(lines_of("Red lentil and", wide - 0.1, 20, BOLD), 2)
        self.assertEqual(lines_of("Red lentil and carrot soup", wide + 0.1, 20, BOLD), 2)
        hyphen = width_of("Tempeh with juniper-", 20) + 0.1
        self.assertEqual(lines_of("Tempeh with juniper-style cabbage", hyphen, 20), 2)
        self.assertEqual(lines_of("cabbage" * 3, width_of("cabbage", 20) + 0.1, 20), 3)
        self.assertEqual(lines_of("", 50, 20), 1)
