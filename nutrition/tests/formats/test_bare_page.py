"""Recipes of saved pages that carry no data: by marks, by the list under its heading."""

import unittest

from nutrition.formats.web_page import read_web_page
from nutrition.recipe.model import UnreadableRecipe

LIST = """<!doctype html><html><head><title>Harbor cooking</title></head><body>
<nav><ul><li>Home</li><li>About</li></ul></nav>
<h1>Barley with fennel</h1><p>My aunt made it.</p><p>Serves 4</p>
<h2>Ingredients</h2><ul><li>1 cup pearl barley</li><li><span>2</span> bulbs fennel, sliced</li></ul>
<h2>Method</h2><ol><li>Simmer the barley.</li><li>Fold in the fennel.</li></ol>
<h2>Comments</h2><p>Lovely!</p></body></html>"""
MARKED = """<html><body itemscope itemtype="https://schema.org/Recipe">
<h1 itemprop="name">Millet with dill</h1>
<ul><li itemprop="recipeIngredient">1 cup millet</li>
<li itemprop="recipeIngredient">2 tbsp dill</li>
</ul><div itemprop="recipeInstructions"><p>Boil it.</p><p>Add the dill.</p></div></body></html>"""
BOLD = """<html><body><h1>Lupini salad</h1><p><strong>Ingredients:</strong></p>
<p>2 cups lupini beans</p><p>1 red onion</p><p><strong>Directions</strong></p><p>Mix.</p>
</body></html>"""


class BarePages(unittest.TestCase):
    def test_the_list_under_its_heading(self):
        read = read_web_page(LIST)
        self.assertEqual(read.recipe.title, "Barley with fennel")
        self.assertEqual(read.recipe.servings, 4)
        self.assertEqual(read.recipe.lines, ("1 cup pearl barley", "2 bulbs fennel, sliced"))
        self.assertIn("Simmer the barley.", read.instructions)
        self.assertNotIn("Lovely", read.instructions)
        self.assertIn("carries no data", read.told[-1])

    def test_the_marks_of_its_elements(self):
        read = read_web_page(MARKED)
        self.assertEqual(read.recipe.title, "Millet with dill")
        self.assertEqual(read.recipe.lines, ("1 cup millet", "2 tbsp dill"))
        self.assertIn("Boil it.", read.instructions)

    def test_headings_in_bold(self):
        read = read_web_page(BOLD)
        self.assertEqual(read.recipe.lines, ("2 cups lupini beans", "1 red onion"))
        self.assertIn("Mix.", read.instructions)

    def test_a_page_without_a_recipe(self):
        for page in (
            "<html><body><h1>News</h1><p>Nothing</p></body></html>",
            "<html><body><h2>Ingredients</h2><ul><li>one alone</li></ul></body></html>",
        ):
            with self.assertRaises(UnreadableRecipe):
                read_web_page(page)
