"""Recipes in and out: nothing is lost on the way, and what is no recipe is refused with the
reason."""

import json

from django.core.files.uploadedfile import SimpleUploadedFile
from django.urls import reverse

from nutrition.formats.recipe_files import read_recipe
from nutrition.recipe.model import UnreadableRecipe
from recipes.models import KEPT, Recipe
from recipes.testing import RecipeCase

PAGE = """<!doctype html><html><head><script type="application/ld+json">
{"@context": "https://schema.org", "@graph": [
{"@type": "WebPage"},
{"@type": "Recipe", "name": "Harbor lentils", "recipeYield": ["4", "4 to 6 servings"],
"recipeIngredient": ["1 cup lentils, dry", "1 onion"],
"recipeInstructions": [
{"@type": "HowToSection",
"itemListElement": [{"@type": "HowToStep", "text": "Boil <b>the lentils</b>."}]},
{"@type": "HowToStep", "text": "Add the onion."}]}]}
</script></head><body><p>Hello</p></body></html>"""


class Exchange(RecipeCase):
    def setUp(self):
        super().setUp()
        self.recipe.reduced, self.recipe.measures = 0.5, "australian"
        self.recipe.text = (
            "1 cup pearl barley, dry\n100 g leeks [method: roasted]\n1/4 tsp "
            'salt\n2 tbsp "white" miso, or red'
        )
        self.recipe.batch_g, self.recipe.cooked_by, self.recipe.method = (
            812.5,
            "boiled_drained",
            'Boil, "gently".\nFold in; done.',
        )
        self.recipe.claims, self.recipe.serving_measure = "4 to 6", "1/2 cup heaping"
        self.recipe.choices = {
            "1/4 tsp salt": {"food": "salt-iodized", "grams": 1.5},
            "1 cup pearl barley, dry": {"grams": 190.0},
        }
        self.recipe.save()

    def take(self, **data):
        return self.client.post(reverse("recipes:import"), data, follow=True)

    def test_a_round_trip_loses_nothing(self):
        for kind in ("json", "txt", "csv"):
            with self.subTest(kind):
                out = self.client.get(reverse("recipes:export", args=[self.recipe.pk, kind]))
                self.assertIn(f"dill-barley.{kind}", out["Content-Disposition"])
                again = self.client.post(
                    reverse("recipes:import"),
                    {"file": SimpleUploadedFile(f"dill.{kind}", out.content)},
                )
                self.assertContains(
                    again, "the same ingredients already: Dill barley", status_code=400
                )
                self.take(file=SimpleUploadedFile(f"dill.{kind}", out.content), again="on")
                back = Recipe.objects.order_by("-pk").first()
                self.assertNotEqual(back.pk, self.recipe.pk)
                for name in KEPT[1:]:
                    self.assertEqual(getattr(back, name), getattr(self.recipe, name), name)
                self.assertRegex(
                    back.title,
                    r"^Dill barley \(\d\)$",
                    "two of one title would be taken for each other",
                )

    def test_json_ld_carries_the_nutrition(self):
        data = json.loads(
            self.client.get(reverse("recipes:export", args=[self.recipe.pk, "json"])).content
        )
        self.assertEqual(
            (data["@type"], data["nutrition"]["@type"], len(data["recipeIngredient"])),
            ("Recipe", "NutritionInformation", 4),
        )
        self.assertRegex(data["nutrition"]["calories"], r"^\d+(\.\d)? kcal$")
        self.assertEqual(
            self.client.get(reverse("recipes:export", args=[self.recipe.pk, "exe"])).status_code,
            404,
        )

    def test_a_saved_web_page(self):
        page = self.take(file=SimpleUploadedFile("harbor.html", PAGE.encode()))
        self.assertContains(page, "Harbor lentils is yours now. Every line was read.")
        recipe = Recipe.objects.get(title="Harbor lentils")
        self.assertEqual((recipe.servings, recipe.text), (4, "1 cup lentils, dry\n1 onion"))
        self.assertEqual(recipe.method, "Boil  the lentils .\nAdd the onion.")

    def test_pasted_text(self):
        page = self.take(text="# title: Pot\n# servings: 3\n1 cup millet\n1 ladle of it\n-- Boil.")
        self.assertContains(page, "1 line could not be counted")
        self.assertEqual(Recipe.objects.get(title="Pot").method, "Boil.")

    def test_what_is_no_recipe_is_refused_with_the_reason_and_kept(self):
        before = Recipe.objects.count()
        for name, content, why in (
            ("a.json", b"hello", "its name says JSON"),
            ("a.csv", b"hello", "begins with the columns"),
            ("a.html", b"hello", "its name says web page"),
            ("a.html", b"<html><p>no data</p></html>", "no schema.org Recipe"),
            ("a.txt", b"\xff\xfe\x00", "not text in UTF-8"),
            ("a.txt", b"x\x00y", "not text"),
            ("a.json", b"[" * 60_000, "nested deeper"),
            ("a.txt", b"x" * 2_100_000, "over 2 MB"),
            ("a.csv", b'field,text,food,grams\r\nline,"1 cup', "cannot be read"),
            ("a.json", b'{"@type": "Recipe", "recipeIngredient": 7}', "no recipeIngredient"),
        ):
            with self.subTest(why):
                refused = self.client.post(
                    reverse("recipes:import"),
                    {"file": SimpleUploadedFile(name, content), "text": ""},
                )
                self.assertContains(refused, why, status_code=400)
        self.assertContains(
            self.client.post(reverse("recipes:import"), {"text": "{oops"}), "{oops", status_code=400
        )
        self.assertContains(
            self.client.post(reverse("recipes:import"), {"text": " "}),
            "Paste a recipe",
            status_code=400,
        )
        self.assertEqual(Recipe.objects.count(), before)

    def test_what_comes_in_cannot_reach_further_than_a_recipe(self):
        evil = {
            "@type": "Recipe",
            "name": "<script>x</script>" * 8,
            "recipeIngredient": ["1 cup <img src=x onerror=y>"],
            "recipeYield": -4,
            "additionalProperty": [
                {
                    "name": "choices",
                    "value": {
                        "1 cup <img src=x onerror=y>": {"food": "chicken-breast-raw", "grams": 1e99}
                    },
                },
                {"name": "cooked_by", "value": "enchanted"},
                {"name": "role", "value": ["x"]},
                {"name": "batch_g", "value": True},
                7,
            ],
        }
        page = self.take(text=json.dumps(evil))
        self.assertNotContains(page, "<script>x")
        recipe = Recipe.objects.order_by("-pk").first()
        self.assertEqual(
            (recipe.choices, recipe.cooked_by, recipe.role, recipe.batch_g), ({}, "", "dish", None)
        )

    def test_pasted_titles_and_headings_are_no_ingredients(self):
        for text, title, servings in (
            (
                "Kohlrabi slaw\nMakes 4 servings\n\nFor the slaw:\n2 kohlrabi, grated\n1 carrot",
                "Kohlrabi slaw",
                4,
            ),
            ("Slaw (serves 6)\n2 kohlrabi, grated\n1 carrot", "Slaw", 6),
            ("Slaw \u2014 yields 8\nIngredients:\n2 kohlrabi, grated\n1 carrot", "Slaw", 8),
            ("Slaw\nIngredients (3 servings):\n2 kohlrabi, grated\n1 carrot", "Slaw", 3),
            ("<ul><li>2 kohlrabi, grated</li>\n<li>1 <b>carrot</b></li></ul>", "", 1),
        ):
            with self.subTest(text):
                found = read_recipe(text).recipe
                self.assertEqual(
                    [line.replace("  ", " ") for line in found.lines],
                    ["2 kohlrabi, grated", "1 carrot"],
                )
                self.assertEqual((found.title, found.servings), (title, servings))

    def test_read_recipe_tells_by_the_content(self):
        self.assertEqual(read_recipe("1 cup millet").recipe.lines, ("1 cup millet",))
        with self.assertRaises(UnreadableRecipe):
            read_recipe("x" * 1_000_001)
