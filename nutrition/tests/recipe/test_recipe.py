"""Recipes worked by hand, and laws that hold for all of them."""

import json
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from nutrition.composition.foods import food_table
from nutrition.formats.recipe_files import read_recipe
from nutrition.recipe.model import Recipe, UnreadableRecipe
from nutrition.recipe.reckoning import reckon
from nutrition.requests.recipe_answer import as_text, report

LINES = [
    "200 g firm tofu",
    "1 1/2 cups cooked buckwheat",
    "2 medium carrots, grated",
    "1 cup freekeh, dry",
    "2 tsp dijon mustard",
    "1/4 cup sunflower seeds",
    "a handful of parsley",
    "3 tbsp lemon juice",
]


def reckon_lines(*lines, servings=1.0, batch_g=None):
    return reckon(Recipe(tuple(lines), title="", servings=servings, batch_g=batch_g))


class HandWorked(TestCase):
    def test_two_lines_by_hand(self):
        """100 g walnuts and 50 g raw kale: the table's rows added with a pencil."""
        facts = reckon_lines("100 g walnuts", "50 g raw kale", servings=2)
        walnuts, kale = food_table()["walnuts"], food_table()["kale-raw"]
        for key in ("energy_kcal", "protein_g", "fiber_g", "potassium_mg", "iron_mg"):
            with self.subTest(key):
                by_hand = walnuts.per_100_g(key) * 1.0 + kale.per_100_g(key) * 0.5
                self.assertAlmostEqual(facts.batch[key].amount, by_hand)
                self.assertAlmostEqual(facts.serving[key].amount, by_hand / 2)
        # 654 kcal and 15.23 g protein in 100 g of walnuts, 35 kcal and 2.92 g in 100 g of kale: the
        # source's rows
        self.assertAlmostEqual(facts.batch["energy_kcal"].amount, 654 + 17.5, delta=1)
        self.assertAlmostEqual(facts.batch["protein_g"].amount, 15.23 + 1.46, delta=0.02)
        self.assertEqual(facts.batch.grams, 150)

    def test_ranges_add_in_quadrature(self):
        """300 g and 400 g each weighed within 2 %: 6 g and 8 g make 10 g."""
        weight = reckon_lines("300 g carrots", "400 g kohlrabi").batch.weight
        self.assertAlmostEqual(weight.high - weight.amount, 10.0)
        self.assertAlmostEqual(weight.amount - weight.low, 10.0)

    def test_the_unknown_is_not_zero(self):
        facts = reckon_lines("100 g fava bean flour", "100 g walnuts")
        phosphorus = facts.batch["phosphorus_mg"]
        self.assertAlmostEqual(
            phosphorus.amount, food_table()["walnuts"].per_100_g("phosphorus_mg")
        )
        self.assertAlmostEqual(phosphorus.known, 0.5)
        self.assertEqual(
            (phosphorus.unknown_lines, phosphorus.lines, phosphorus.complete), (1, 2, False)
        )

    def test_an_unsettled_line_makes_everything_at_least(self):
        facts = reckon_lines("100 g walnuts", "1 ladle of the red stuff")
        self.assertEqual([line.text for line in facts.unresolved], ["1 ladle of the red stuff"])
        energy = facts.batch["energy_kcal"]
        self.assertEqual((energy.missing, energy.complete, energy.unknown_lines), (1, False, 1))
        self.assertEqual(energy.known, 1.0)

    def test_a_weighed_batch_beats_the_sum_of_the_lines(self):
        facts = reckon_lines("200 g pearl barley, dry", servings=4, batch_g=600)
        self.assertEqual(
            (facts.computed_g, facts.batch.grams, facts.serving.grams), (200, 600, 150)
        )
        dry = food_table()["barley-pearled-dry"].per_100_g("energy_kcal")
        self.assertAlmostEqual(facts.per_100_g["energy_kcal"].amount, dry * 200 / 600)

    def test_servings_and_batch_must_be_above_zero(self):
        for bad in ({"servings": 0}, {"servings": -1}, {"batch_g": 0}):
            with self.subTest(bad), self.assertRaises(ValueError):
                reckon_lines("100 g walnuts", **bad)

    def test_which_lines_bring_it(self):
        rows = reckon_lines("100 g walnuts", "50 g raw kale", "5 g salt").brings("sodium_mg")
        self.assertEqual(rows[0][0].food.slug, "salt")
        self.assertAlmostEqual(sum(share for _line, _amount, share in rows), 1.0)


class Laws(TestCase):
    @settings(max_examples=25, deadline=None)
    @given(st.permutations(LINES))
    def test_the_order_of_lines_does_not_matter(self, lines):
        mixed, straight = reckon_lines(*lines).batch, reckon_lines(*LINES).batch
        for key in ("energy_kcal", "phosphorus_mg", "lysine_g"):
            for part in ("amount", "low", "high", "known"):
                self.assertAlmostEqual(getattr(mixed[key], part), getattr(straight[key], part))

    @settings(max_examples=25, deadline=None)
    @given(
        st.lists(st.sampled_from(LINES), min_size=1, max_size=8),
        st.lists(st.sampled_from(LINES), min_size=1, max_size=8),
    )
    def test_batches_add(self, some, others):
        together = reckon_lines(*some, *others).batch
        apart = reckon_lines(*some).batch + reckon_lines(*others).batch
        for key in ("energy_kcal", "protein_g", "oxalate_mg"):
            self.assertAlmostEqual(together[key].amount, apart[key].amount)
            self.assertAlmostEqual(together[key].high, apart[key].high)
        self.assertAlmostEqual(together.grams, apart.grams)

    @settings(max_examples=25, deadline=None)
    @given(st.floats(0.25, 40))
    def test_scaling_is_linear(self, servings):
        whole, serving = reckon_lines(*LINES).batch, reckon_lines(*LINES, servings=servings).serving
        for key in ("energy_kcal", "sodium_mg"):
            for part in ("amount", "low", "high"):
                self.assertAlmostEqual(
                    getattr(serving[key], part) * servings, getattr(whole[key], part), places=5
                )
            self.assertAlmostEqual(serving[key].known, whole[key].known)


class Files(TestCase):
    def test_plain_text_with_headers(self):
        recipe = read_recipe(
            "# title: Pot\n# servings: 4\n# batch: 620 g\n\n100 g walnuts\n# a remark\n1 cup kale\n"
        ).recipe
        self.assertEqual((recipe.title, recipe.servings, recipe.batch_g), ("Pot", 4, 620))
        self.assertEqual(recipe.lines, ("100 g walnuts", "1 cup kale"))

    def test_schema_org(self):
        data = {
            "@graph": [
                {"@type": "WebPage"},
                {
                    "@type": ["Recipe"],
                    "name": "Pot",
                    "recipeYield": ["serves 4"],
                    "recipeIngredient": ["100 g walnuts"],
                },
            ]
        }
        recipe = read_recipe(json.dumps(data)).recipe
        self.assertEqual(
            (recipe.title, recipe.servings, recipe.lines), ("Pot", 4, ("100 g walnuts",))
        )

    def test_what_is_no_recipe_says_why(self):
        for text, why in (
            ("", "no ingredient"),
            ("# servings: none\n1 cup kale", "number above zero"),
            ("{", "not JSON"),
            ("{}", "no schema.org Recipe"),
            ('{"@type": "Recipe"}', "no recipeIngredient"),
        ):
            with self.subTest(text), self.assertRaisesRegex(UnreadableRecipe, why):
                read_recipe(text)

    def test_published_keys_of_the_data(self):
        facts = reckon_lines("100 g walnuts", "kale from the garden", servings=2)
        data = json.loads(json.dumps(report(facts).data()))
        self.assertEqual(
            set(data), {"title", "servings", "batch", "serving", "yield", "lines", "unresolved"}
        )
        self.assertEqual(
            set(data["serving"]["indices"]),
            {
                "kcal_per_gram",
                "kcal_per_pound",
                "protein_per_100_kcal",
                "protein_energy_percent",
                "pral_meq",
            },
        )
        self.assertEqual(
            set(data["serving"]["nutrients"]["protein_g"]),
            {"amount", "low", "high", "unit", "known"},
        )
        self.assertEqual(
            set(data["lines"][0]),
            {
                "text",
                "food",
                "name",
                "sure",
                "grams",
                "low",
                "high",
                "bought_grams",
                "basis",
                "cooked_grams",
                "assumptions",
            },
        )
        self.assertEqual(data["unresolved"][0]["text"], "kale from the garden")
        self.assertIn("kale-raw", data["unresolved"][0]["candidates"])
        for key in ("energy_kcal", "saturated_fat_g", "vitamin_b12_ug", "ala_g"):
            self.assertIn(key, data["batch"]["nutrients"])
        self.assertIn("not counted: kale from the garden", as_text(facts))
