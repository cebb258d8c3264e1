"""Drawings as images: with their colors, their hatches, their words."""

import base64
import re

import tinyhtml5
from django.test import SimpleTestCase

from paper.pictures import put_in_images, style_of_drawings

SHEET = (
    ":root { --rim: #1e3a7b } @layer components { .round .vessel { stroke: var(--rim); "
    "margin: 1px } .base { fill: var(--none, #d9b36c) } } @media print { .bar { fill: #123456 } }"
    " @media (max-width: 40em) { .bar { fill: red } }"
)
PAGE = (
    '<body><svg viewBox="0 0 8 8"><defs><pattern id="h" patternUnits="userSpaceOnUse"></pattern>'
    '</defs></svg><p>before <svg class="swatch" aria-label="Barley"><circle fill="url(#h)"/></svg>'
    " after</p></body>"
)


class Pictures(SimpleTestCase):
    def test_the_style_has_what_bears_on_drawings_without_variables(self):
        style = style_of_drawings(SHEET, gray=False)
        self.assertIn(".round .vessel { stroke: #1e3a7b }", style)
        self.assertIn("fill: #d9b36c", style)
        self.assertIn(".bar { fill: #123456 }", style)
        self.assertNotIn("red", style)
        self.assertNotIn("margin", style)

    def test_without_color_the_areas_are_white(self):
        self.assertIn("fill: #ffffff", style_of_drawings(SHEET, gray=True))
        self.assertNotIn("fill: #ffffff", style_of_drawings(SHEET, gray=False))

    def test_a_drawing_becomes_an_image_with_its_words_and_the_hatch_it_uses(self):
        tree = tinyhtml5.parse(PAGE, namespace_html_elements=False)
        put_in_images(tree, "circle { fill: red }")
        images = list(tree.iter("img"))
        self.assertEqual([one.get("alt") for one in images], ["", "Barley"])
        self.assertEqual(images[1].tail, " after")
        packed = re.fullmatch(r"data:image/svg\+xml;base64,(.*)", images[1].get("src"))[1]
        drawing = base64.b64decode(packed).decode()
        self.assertIn('patternUnits="userSpaceOnUse"', drawing)
        self.assertIn("circle { fill: red }", drawing)
