"""What somebody says they ate, in pieces."""

from unittest import TestCase

from nutrition.follow_up.kitchen_line import (
    ALL,
    INSTEAD,
    LEFT_OUT,
    by_meal,
    named_in,
    pieces,
)

DISHES = (
    "Split mung stew with fennel",
    "Dill barley with white beans",
    "Rice and beans bowl",
    "Miso and ginger dressing",
    "Buckwheat porridge",
    "Red lentil stew",
)


class Pieces(TestCase):
    def words(self, text):
        return [one.words for one in pieces(text, DISHES)]

    def test_the_line_of_the_manual(self):
        found = pieces("half the stew, an apple, 2 handfuls walnuts", DISHES)
        self.assertEqual([one.words for one in found], ["stew", "an apple", "2 handfuls walnuts"])
        self.assertEqual((found[0].share, found[0].low, found[0].high), (0.5, 0.4, 0.6))
        self.assertIsNone(found[1].share)

    def test_shares(self):
        for text, share in (
            ("a third of the stew", 0.333),
            ("three quarters of the stew", 0.75),
            ("3/4 of the stew", 0.75),
            ("½ the stew", 0.5),
            ("most of my stew", 0.8),
            ("two servings of stew", 2.0),
            ("a bowl of stew", 1.0),
            ("one and a half servings of stew", 1.5),
            ("twice the stew", 2.0),
            ("the whole stew", 1.0),
        ):
            found = pieces(text, DISHES)
            self.assertEqual(len(found), 1, text)
            self.assertAlmostEqual(found[0].share, share, places=2, msg=text)
            self.assertEqual(found[0].words, "stew", text)
            self.assertLess(found[0].low, found[0].share, text)
            self.assertGreater(found[0].high, found[0].share, text)

    def test_left_out_and_instead(self):
        found = pieces("no porridge; rye toast instead of the barley", DISHES)
        self.assertEqual([one.kind for one in found], [LEFT_OUT, INSTEAD])
        self.assertEqual(found[1].instead_of, "barley")
        self.assertEqual(found[1].line, "rye toast")
        self.assertEqual(pieces("didn't eat the stew")[0].kind, LEFT_OUT)
        self.assertEqual(pieces("as planned")[0].kind, ALL)

    def test_and_parts_things_but_not_a_name(self):
        self.assertEqual(self.words("an apple and a banana"), ["an apple", "a banana"])
        self.assertEqual(self.words("most of the rice and beans bowl"), ["rice and beans bowl"])
        self.assertEqual(self.words("toast with 2 tbsp hummus"), ["toast", "2 tbsp hummus"])
        self.assertEqual(self.words("toast with jam"), ["toast with jam"])

    def test_meals(self):
        self.assertEqual(by_meal("an apple"), [("", "an apple")])
        said = by_meal("tea. Lunch: half the stew, bread; for supper - soup\nsnacks: dates")
        self.assertEqual([meal for meal, _words in said], ["", "lunch", "dinner", "snack"])
        self.assertIn("half the stew", said[1][1])
        self.assertEqual(by_meal("lunch salad"), [("", "lunch salad")])

    def test_a_decimal_comma_parts_nothing(self):
        self.assertEqual(self.words("1,5 l water, tea"), ["1,5 l water", "tea"])

    def test_nothing_and_too_much(self):
        self.assertEqual(pieces("  ,; \n"), [])
        self.assertEqual(len(pieces("an apple\n" * 200)), 200, "none is dropped here")


class Names(TestCase):
    def found(self, words):
        return [DISHES[at] for at in named_in(words, DISHES)]

    def test_every_word_must_be_in_it(self):
        self.assertEqual(self.found("mung stew"), [DISHES[0]])
        self.assertEqual(self.found("stew"), [DISHES[0], DISHES[5]], "two: it asks")
        self.assertEqual(self.found("barley salad"), [])
        self.assertEqual(self.found("the"), [])

    def test_plurals_and_slips(self):
        self.assertEqual(self.found("lentils stew"), [DISHES[5]])
        self.assertEqual(self.found("buckweat porridge"), [DISHES[4]])
        self.assertEqual(self.found("porridges"), [DISHES[4]])
