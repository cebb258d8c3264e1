"""How hard words are to read."""

import unittest

from nutrition.written.reading_level import grade, sentences_in, syllables

PLAIN = (
    "Soak the beans in a big pot of cold water. Let them sit all night. In the morning pour the "
    "water off. Add fresh water and cook the beans till they are soft. Taste one to see."
)


class Reading(unittest.TestCase):
    def test_syllables(self):
        for word, count in {"bean": 1, "kettle": 2, "potato": 3, "potassium": 4}.items():
            with self.subTest(word=word):
                self.assertLessEqual(abs(syllables(word) - count), 1)

    def test_the_formula_written_out(self):
        # 37 words in 5 sentences, with as many syllables as are counted
        sentences = sentences_in(PLAIN)
        self.assertEqual(len(sentences), 5)
        words = [word.strip(".,") for one in sentences for word in one.split()]
        spoken = sum(syllables(word) for word in words)
        self.assertEqual(len(words), 37)
        self.assertAlmostEqual(grade(sentences), 0.39 * 37 / 5 + 11.8 * spoken / 37 - 15.59)

    def test_plain_words_read_easier_than_long_ones(self):
        hard = (
            "Administration of supplementation necessitates individualized consideration of "
            "nutritional requirements, particularly regarding pharmacological interactions and "
            "comorbidities affecting gastrointestinal absorption of micronutrients throughout "
            "longitudinal observation, notwithstanding contraindications previously "
            "documented by collaborating clinicians and "
            "practitioners."
        )
        self.assertLess(grade(sentences_in(PLAIN)), 4)
        self.assertGreater(grade(sentences_in(hard)), 15)

    def test_too_little_tells_nothing(self):
        self.assertIsNone(grade(["word " * 29]))
        self.assertIsNotNone(grade(["word " * 30]))
