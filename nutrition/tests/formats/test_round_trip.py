"""What goes out and comes back has lost nothing: every field of a recipe, in every format."""

from __future__ import annotations

from dataclasses import fields
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from nutrition.composition.cooking_methods import METHOD_WORDS
from nutrition.composition.foods import food_table
from nutrition.formats.recipe_csv import to_csv
from nutrition.formats.recipe_files import read_recipe
from nutrition.formats.recipe_text import to_text
from nutrition.formats.schema_org import to_json_ld
from nutrition.formats.shared import Shared
from nutrition.recipe.model import BATCH_G, LINE_G, REDUCED, SERVINGS, Recipe, choice_keys
from nutrition.recipe.reckoning import reckon
from nutrition.tests.thorough import thorough
from nutrition.written.line import Choice
from nutrition.written.units import SYSTEM_WORDS

SLUGS = [food.slug for food in food_table() if not food.comparator]
WORDS = st.text(
    st.characters(blacklist_categories=("Cc", "Cs", "Zl", "Zp", "Zs"), blacklist_characters="\x85")
    | st.sampled_from(list(' #-:,;"\\[]&<>=/½')),
    max_size=40,
).map(lambda text: " ".join(text.split(" ")).strip())
AWKWARD = st.sampled_from(
    [
        "# a remark",
        "-- a step",
        "\\# twice",
        "Serves 4",
        "Method:",
        "For the sauce:",
        "Ingredients",
        "prep time: 5 minutes",
        "1 cup barley => more",
        "2 &frac12; cups millet",
        "A &amp;lt; B",
        "{",
        "field,text",
        "# title: no",
        "# ingredients:",
        "# line 1: salt",
        "1 cup oats [method: Roasted]",
        "2 tbsp oil [left: 60 %]",
    ]
)
LINES = st.lists(AWKWARD | WORDS.filter(bool), min_size=1, max_size=6)


def number(limits):
    return st.floats(*limits, allow_subnormal=False)


@st.composite
def recipes(draw):
    lines = tuple(draw(LINES))
    choices = {
        key: Choice(
            draw(st.none() | st.sampled_from(SLUGS)),
            draw(st.none() | number(LINE_G)),
        )
        for key in choice_keys(lines)
        if draw(st.booleans())
    }
    return Shared(
        recipe=Recipe(
            lines,
            title=draw(WORDS | AWKWARD),
            servings=draw(number(SERVINGS)),
            batch_g=draw(st.none() | number(BATCH_G)),
            choices={key: one for key, one in choices.items() if one.food or one.grams},
            method=draw(st.sampled_from(["", *METHOD_WORDS])),
            reduced=draw(st.none() | number(REDUCED) | st.sampled_from([0.0, 0.07, 0.29, 0.5])),
            claimed=draw(WORDS),
            serving_measure=draw(WORDS | st.just("5 x 1/2 cup heaping")),
        ),
        role=draw(st.sampled_from(["dish", "sauce", "base"])),
        instructions="\n".join(draw(st.lists(WORDS | AWKWARD, max_size=4))),
        measures=draw(st.sampled_from(list(SYSTEM_WORDS))),
    )


class RoundTrip(TestCase):
    def same(self, back: Shared, was: Shared) -> None:
        for one in fields(Recipe):
            self.assertEqual(getattr(back.recipe, one.name), getattr(was.recipe, one.name), one)
        for name in ("role", "instructions", "measures"):
            self.assertEqual(getattr(back, name), getattr(was, name), name)
        self.assertEqual(back.told, ())

    @thorough
    @settings(deadline=None, max_examples=300)
    @given(recipes())
    def test_text(self, was):
        self.same(read_recipe(to_text(was), "a.txt"), was)

    @thorough
    @settings(deadline=None, max_examples=300)
    @given(recipes())
    def test_csv(self, was):
        self.same(read_recipe(to_csv(was), "a.csv"), was)

    @settings(deadline=None, max_examples=150)
    @given(recipes())
    def test_json_ld(self, was):
        self.same(read_recipe(to_json_ld(reckon(was.recipe), was), "a.json"), was)

    def test_reduced_by_half_stays_so_and_so_does_nothing_boiled_away(self):
        lines = ("700 g canned tomatoes", "200 g onions", "600 ml water")
        for share in (0.5, 0.0):
            was = Shared(recipe=Recipe(lines, method="simmered", reduced=share))
            grams = reckon(was.recipe).batch.grams
            for out in (to_text(was), to_csv(was), to_json_ld(reckon(was.recipe), was)):
                with self.subTest(share=share, out=out[:20]):
                    self.assertAlmostEqual(reckon(read_recipe(out).recipe).batch.grams, grams)
