"""What stands in brackets is read and written back, however it was typed."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from nutrition.composition.cooking_methods import METHOD_WORDS
from nutrition.recipe.model import Recipe
from nutrition.recipe.notation import (
    as_written,
    counted_lines,
    naming_part,
    not_counted,
    noted,
)
from nutrition.recipe.reckoning import reckon


class Notation(TestCase):
    def test_however_it_is_typed(self):
        for text in (
            "2 carrots [method: roasted]",
            "2 carrots [Method: Roasted]",
            "2 carrots  [ METHOD : roasted ] ",
        ):
            with self.subTest(text):
                self.assertEqual((noted(text).text, noted(text).method), ("2 carrots", "roasted"))

    @given(
        st.sampled_from(["1/2 cup tamari", "200 g kale, chopped"]),
        st.sampled_from(["", *METHOD_WORDS, "soaked, then boiled_drained"]),
        st.sampled_from([0.0, 0.25, 0.6, 1.0]),
    )
    def test_written_is_read_back(self, bare, method, left):
        said = noted(as_written(bare, method, left))
        self.assertEqual((said.text, said.method), (bare, method))
        self.assertAlmostEqual(said.left, left)

    def test_several_methods_in_turn(self):
        for said in ("soaked, then boiled", "Soaked and then boiled", "soaked, boiled"):
            with self.subTest(said):
                self.assertEqual(
                    noted(f"200 g chickpeas, dry [method: {said}]").method,
                    "soaked, then boiled",
                )
        self.assertEqual(noted("1 cup rice [method: boiled, then moon]").method, "")
        one, both = (
            reckon(Recipe((f"200 g chickpeas, dry [method: {said}]",))).batch["potassium_mg"].amount
            for said in ("boiled", "soaked, then boiled")
        )
        self.assertLess(both, one)

    def test_a_part_is_called_by_another_name(self):
        line = "1/2 cup [Recipe: Dill Sauce] [left: half]"
        self.assertEqual(
            naming_part(line, "dill sauce", "Harbor sauce"),
            "1/2 cup [recipe: Harbor sauce] [left: half]",
        )
        self.assertEqual(naming_part(line, "miso sauce", "Harbor sauce"), line)

    def test_an_equal_recipe_is_reckoned_once(self):
        one, other = (Recipe(("100 g kale", "2 tbsp tahini"), servings=2.0) for _ in range(2))
        self.assertEqual(hash(one), hash(other))
        self.assertIs(reckon(one), reckon(other))
        self.assertIsNot(reckon(one), reckon(Recipe(one.lines, servings=3.0)))


class LeftOut(TestCase):
    def test_a_line_that_is_not_counted_keeps_its_reason(self):
        self.assertEqual(
            not_counted("1 ladle of it [not counted: nobody eats it]"),
            ("1 ladle of it", "nobody eats it"),
        )
        self.assertEqual(
            not_counted("1 bay leaf [Not Counted: ]"), ("1 bay leaf", "no reason given")
        )
        self.assertIsNone(not_counted("1 cup barley [method: boiled]"))
        self.assertEqual(
            counted_lines(["100 g kale", "1 ladle of it [not counted: x]"]), ("100 g kale",)
        )
