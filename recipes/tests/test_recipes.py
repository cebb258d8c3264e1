"""The two-sided recipe page, live and without JavaScript, and its command."""

import json
import tempfile
from io import StringIO
from pathlib import Path

from django.core.management import CommandError, call_command
from django.test import SimpleTestCase
from django.urls import reverse

from recipes.facts import facts_of
from recipes.models import Recipe
from recipes.testing import RecipeCase


class RecipePage(RecipeCase):
    def form(self, **changes):
        return {
            "title": "Dill barley",
            "role": "base",
            "servings": "4",
            "batch_g": "",
            "method": "",
            "text": self.recipe.text,
            "version": 1,
        } | changes

    def address(self):
        return f"/recipes/{self.recipe.pk}/"

    def test_write_and_save(self):
        response = self.client.post(
            "/recipes/new/", self.form(title="Millet pot", text="1 cup dry millet\n2 cups water")
        )
        recipe = Recipe.objects.get(title="Millet pot")
        self.assertRedirects(response, f"/recipes/{recipe.pk}/")
        self.assertEqual(facts_of(recipe).batch.grams, 200 + 474)

    def test_live_reading(self):
        response = self.client.post(
            "/recipes/preview/",
            self.form(text="1 cup millet\n1 ladle of the red stuff"),
            headers={"HX-Request": "true"},
        )
        for text in (
            "Millet, dry",
            "“stuff” is not accounted for",
            "1 line not counted",
            'hx-swap-oob="true"',
        ):
            self.assertContains(response, text)
        self.assertEqual(Recipe.objects.count(), 1, "reading saves nothing")

    def test_a_choice_for_a_line_is_kept_with_it(self):
        text = "1 cup millet\nsalt to taste"
        choices = {
            "line-1": "1 cup millet",
            "food-1": "millet-cooked",
            "grams-1": "",
            "line-2": "salt to taste",
            "food-2": "salt",
            "grams-2": "1,5",
        }
        self.client.post(self.address(), self.form(text=text) | choices)
        self.recipe.refresh_from_db()
        facts = facts_of(self.recipe)
        self.assertEqual(
            [(line.food.slug, line.grams) for line in facts.lines],
            [("millet-cooked", 174), ("salt", 1.5)],
        )
        page = self.client.get(self.address())
        self.assertContains(page, 'id="food-1" value="millet-cooked"')
        self.client.post(
            self.address(), self.form(text="2 cups millet\nsalt to taste", version=2) | choices
        )
        self.recipe.refresh_from_db()
        self.assertEqual(
            facts_of(self.recipe).lines[0].food.slug, "millet-dry", "a changed line is read anew"
        )

    def test_the_practices_cups_and_spoons(self):
        us = facts_of(self.recipe).batch.grams
        self.assertEqual(
            self.client.post("/practice/", {"name": "", "measures": "metric"}).status_code, 400
        )
        self.client.post(
            "/practice/",
            {"name": "Tern Point Wellness", "town": "", "contact": "", "measures": "metric"},
        )
        self.assertAlmostEqual(
            facts_of(Recipe.objects.get(pk=self.recipe.pk)).batch.grams,
            us,
            msg="what is written keeps its cups",
        )
        self.client.post(self.address(), self.form(text=self.recipe.text, measures="metric"))
        self.assertAlmostEqual(
            facts_of(Recipe.objects.get(pk=self.recipe.pk)).batch.grams,
            us + 200 * (250 / 236.588 - 1),
            delta=0.1,
        )
        live = self.client.post("/recipes/preview/", {"text": "1 cup millet", "servings": "1"})
        self.assertContains(live, 'placeholder="211.3"')

    def test_refused_input_keeps_what_was_typed(self):
        text = "1 cup millet"
        response = self.client.post(
            self.address(),
            self.form(text=text, servings="0") | {"line-1": text, "food-1": "", "grams-1": "lots"},
        )
        self.assertContains(response, "“lots” is not a weight in grams.", status_code=400)
        self.assertContains(response, text, status_code=400)
        self.assertContains(response, "greater than or equal to 0.1", status_code=400)
        response = self.client.post(self.address(), self.form(text=" \n "))
        self.assertEqual(response.status_code, 400)
        self.recipe.refresh_from_db()
        self.assertEqual(self.recipe.version, 1)

    def test_reckon_without_saving_for_browsers_without_javascript(self):
        response = self.client.post(
            self.address(), self.form(text="100 g walnuts") | {"reckon": "1"}
        )
        self.assertContains(response, "Walnuts")
        self.recipe.refresh_from_db()
        self.assertIn("pearl barley", self.recipe.text)

    def test_a_stale_save_is_refused_and_loses_nothing(self):
        self.client.post(self.address(), self.form(title="First"))
        refused = self.client.post(self.address(), self.form(title="Second", text="100 g walnuts"))
        for text in ("saved by someone else", "First", "100 g walnuts", "pearl barley"):
            self.assertContains(refused, text, status_code=409)
        self.recipe.refresh_from_db()
        self.assertEqual(self.recipe.title, "First")

    def test_hostile_text_is_only_text(self):
        response = self.client.post(
            "/recipes/preview/", self.form(text='1 cup <script>alert("x")</script>')
        )
        self.assertNotContains(response, "<script>alert")

    def test_which_lines_bring_what_was_chosen(self):
        response = self.client.post("/recipes/preview/", self.form(bring="sodium_mg"))
        self.assertEqual(response.context["brings"][0][0].food.slug, "salt")
        self.assertEqual(
            self.client.post("/recipes/preview/", self.form(bring="nonsense")).context["chosen"],
            "protein_g",
        )

    def test_the_list(self):
        page = self.client.get("/recipes/?q=dill")
        self.assertContains(page, "Dill barley")
        self.assertContains(self.client.get("/recipes/?q=zzz"), "No recipe is found")


class ReckonCommand(SimpleTestCase):
    def run_on(self, text, *options):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "recipe.txt"
            path.write_text(text, encoding="utf-8")
            out = StringIO()
            try:
                call_command("reckon", str(path), *options, stdout=out)
                status = 0
            except SystemExit as stop:
                status = stop.code
            return status, out.getvalue()

    def test_json_and_exit_status(self):
        status, out = self.run_on(
            "# title: Pot\n100 g walnuts\n", "--json", "--servings", "2", "--batch-grams", "120"
        )
        data = json.loads(out)
        self.assertEqual(
            (
                status,
                data["title"],
                data["servings"],
                data["batch"]["grams"],
                data["serving"]["grams"],
            ),
            (0, "Pot", 2, 120, 60),
        )
        status, out = self.run_on("1 tbsp unicorn dust\n", "--json")
        self.assertEqual(status, 1)
        self.assertEqual(json.loads(out)["unresolved"][0]["text"], "1 tbsp unicorn dust")

    def test_text(self):
        status, out = self.run_on("100 g walnuts\n")
        self.assertEqual(status, 0)
        self.assertRegex(out, r"Protein \[g\] +15\.2")

    def test_what_is_no_recipe(self):
        for text in ("", "# servings: many\n1 cup kale", "{"):
            with self.subTest(text), self.assertRaises(CommandError):
                self.run_on(text)
        with self.assertRaises(CommandError):
            call_command("reckon", "/nowhere/at/all.txt")


class PartsInsideParts(RecipeCase):
    def recipe_of(self, title, text, **more):
        return Recipe.objects.create(
            practice=self.practice, title=title, text=text, servings=4, **more
        )

    def test_a_recipe_by_grams_volume_and_servings(self):
        sauce = self.recipe_of("Dill sauce", "1/2 cup tahini\n2 tbsp white miso\n1/4 cup gochujang")
        own = facts_of(sauce)
        pot = facts_of(
            self.recipe_of(
                "Pot",
                "100 g [recipe: Dill sauce]\n1 serving [recipe: dill sauce]\n1/4 cup [recipe: Dill "
                "sauce]\n100 g kale",
            )
        )
        self.assertEqual(pot.unresolved, ())
        share = 100 / own.batch.grams
        self.assertAlmostEqual(
            pot.cooked[0].profile["sodium_mg"].amount, own.batch["sodium_mg"].amount * share
        )
        self.assertAlmostEqual(pot.lines[1].grams, own.serving.grams)
        self.assertAlmostEqual(
            pot.lines[2].grams, own.batch.grams / own.volume_ml * 236.588 / 4, delta=0.5
        )
        # what is unknown of the part stays unknown of the whole, and its allergens come along
        self.assertLess(pot.batch["protein_g"].known, 1.0)
        self.assertIn("sesame", {name for part in pot.foods() for name in part.food.allergens})

    def test_a_change_flows_upward(self):
        sauce = self.recipe_of("Dill sauce", "1/2 cup tahini")
        self.recipe_of("Middle", "100 g [recipe: Dill sauce]")
        top = self.recipe_of("Top", "100 g [recipe: Middle]\n100 g kale")
        before = facts_of(top).batch["energy_kcal"].amount
        sauce.text = "1/2 cup lemon juice"
        sauce.save()
        self.assertLess(
            facts_of(Recipe.objects.get(pk=top.pk)).batch["energy_kcal"].amount, before / 3
        )

    def test_a_loop_is_refused_with_the_way_round(self):
        self.recipe_of("First", "100 g [recipe: Second]")
        second = self.recipe_of("Second", "100 g millet")
        form = {
            "title": "Second",
            "role": "dish",
            "servings": "4",
            "text": "50 g [recipe: First]",
            "version": second.version,
        }
        refused = self.client.post(reverse("recipes:page", args=[second.pk]), form)
        self.assertContains(
            refused, "It would contain itself: second → first → second", status_code=400
        )
        self.assertContains(refused, "50 g [recipe: First]", status_code=400)
        # and if one is there all the same, nothing runs in circles
        Recipe.objects.filter(pk=second.pk).update(text="50 g [recipe: First]")
        line = facts_of(Recipe.objects.get(pk=second.pk)).lines[0]
        self.assertEqual(line.food.name, "First")

    def test_a_part_that_is_not_there(self):
        facts = facts_of(
            self.recipe_of("Pot", "100 g [recipe: Nobody's sauce]\n[recipe: Dill barley]")
        )
        self.assertEqual(
            [line.why for line in facts.lines],
            ["there is no recipe “Nobody's sauce”", "no amount given"],
        )
