"""What a recipe takes for its lines."""

from unittest import TestCase

from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import reckon


class Lines(TestCase):
    def test_a_list_and_a_text_are_the_same_as_a_tuple(self):
        lines = ("1 cup white beans, cooked", "100 g kale")
        for given in (lines, list(lines), "\n".join(lines)):
            with self.subTest(given=type(given).__name__):
                recipe = Recipe(given)
                self.assertEqual((recipe.lines, hash(recipe)), (lines, hash(Recipe(lines))))
                self.assertEqual(len(reckon(recipe).lines), 2)
        self.assertEqual(Recipe("1 cup white beans, cooked").lines, lines[:1])

    def test_what_is_no_line_is_refused_in_words(self):
        for given, what in ((7, "int"), ([1, 2], "list"), (None, "NoneType"), ({"a": 1}, "dict")):
            with self.subTest(given=given), self.assertRaisesRegex(TypeError, f"texts, not {what}"):
                Recipe(given)
