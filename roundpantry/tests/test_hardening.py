"""Bad input is refused with a sentence, never with a failure; what is stored, however it came
there, can always be opened."""

import json
from datetime import date
from itertools import cycle, product

from django.core.files.uploadedfile import SimpleUploadedFile
from django.urls import reverse

from bowls.models import Bowl, BowlPart
from clients.models import ClientSupplement, Intake, WeighIn
from nutrition.tests.thorough import thorough
from planner.models import Day, DayEntry
from planner.testing import DayCase
from practice.models import Practice
from recipes.models import Recipe, RecipeVersion

BAD = (
    "",
    "²",
    "٣",
    "-1",
    "0",
    "1e400",
    "nan",
    "1e-320",
    "9" * 400,
    "a:b",
    "\x00",
    "1/0",
    "0%",
    "x" * 60_000,
    "12 oz",
    "9223372036854775808",
    "<b>",
)
# For what answers with a whole page: one of each kind; every second of them in turn, so that a
# field meets one half of them and the next the other.
BAD_FEW = ("", "²", "nan", "1e-320", "9" * 400, "\x00", "1/0", "-1")
HALVES = (BAD_FEW[::2], BAD_FEW[1::2])
NEVER = (500,)


def in_turn(fields):
    """Each field with what is bad, one half of it or the other."""
    for field, few in zip(fields, cycle(HALVES), strict=False):
        for bad in few:
            yield field, bad


class Inputs(DayCase):
    def fine(self, response, what):
        self.assertNotIn(response.status_code, NEVER, what)

    @thorough
    def test_every_question_that_an_address_can_ask(self):
        client, bowl, day, recipe = self.client_row.pk, self.bowl.pk, self.day.pk, self.recipe.pk
        asked = (
            ("/pantry/", "q"),
            ("/recipes/", "q"),
            (f"/bowls/{bowl}/", "rim"),
            (f"/bowls/{bowl}/find/", "q"),
            (f"/bowls/{bowl}/find/", "role"),
            (f"/bowls/{bowl}/balance/", "meal"),
            (f"/bowls/{bowl}/balance/", "show"),
            (f"/bowls/{bowl}/swaps/", "meal"),
            (f"/days/{day}/find/", "q"),
            (f"/days/{day}/find/", "meal"),
            (f"/days/{day}/balance/", "show"),
            (f"/days/{day}/swaps/", "meal"),
            (f"/recipes/{recipe}/cook/", "step"),
            (f"/recipes/{recipe}/versions/", "from"),
            (f"/recipes/{recipe}/", "bring"),
            (f"/recipes/{recipe}/swaps/", "meal"),
            (f"/bowls/sauces/{recipe}/", "bowls"),
            ("/compare/", "with"),
            ("/compare/", "basis"),
            ("/compare/", "q"),
            ("/compare/ladder/", "kcal"),
            ("/compare/lesson/", "with"),
            ("/pantry/packages/", "q"),
            ("/pantry/packages/beside/", "one"),
            ("/pantry/packages/beside/", "other"),
            (f"/for/{client}/days/", "removed"),
        )
        for (address, name), bad in in_turn(asked):
            with self.subTest(address, name=name, bad=bad[:30]):
                self.fine(self.client.get(address, {name: bad}), address)
        for kind, bad in product(("recipe", "version", "bowl", "day", "food"), BAD):
            self.fine(
                self.client.get("/compare/", {"with": [f"{kind}-{bad}", "food-walnuts"]}), kind
            )
        scaled = {"to": "servings", "amount": "2", "line": "x"}
        for name, bad in product(scaled, BAD):
            self.fine(self.client.get(f"/recipes/{recipe}/scale/", scaled | {name: bad}), name)
        bench = {
            "volume_ml": "200",
            "bowls": "4",
            "per_bowl_ml": "45",
            "thinner": "water",
            "key": "fat_g",
            "most": "2",
            "density": "1",
        }
        for name, bad in product(bench, BAD):
            self.fine(self.client.get(f"/bowls/sauces/{recipe}/", bench | {name: bad}), name)
        for code in ("a:b", "strength:²", "strength:" + "9" * 30, "x"):
            self.assertEqual(self.client.get(reverse("schools:page", args=[code])).status_code, 404)
            self.assertEqual(
                self.client.post(reverse("schools:copy", args=[code])).status_code, 404
            )
        for pk in ("9" * 30, "9223372036854775808", "0"):
            for address in (
                f"/clients/{pk}/",
                f"/recipes/{pk}/",
                f"/bowls/{pk}/",
                f"/days/{pk}/",
                f"/for/{pk}/recipes/",
            ):
                self.assertEqual(self.client.get(address).status_code, 404, address)

    @thorough
    def test_every_field_that_a_form_can_send(self):
        client, bowl, day, recipe = self.client_row.pk, self.bowl.pk, self.day.pk, self.recipe.pk
        self.client.post("/clients/new/")
        visit = Intake.objects.get().pk
        forms = (
            (f"/bowls/{bowl}/parts/{self.kale.pk}/", {"amount": "60 g", "version": "1"}),
            (f"/bowls/{bowl}/parts/{self.kale.pk}/", {"step": "1"}),
            (f"/bowls/{bowl}/parts/{self.kale.pk}/", {"share": "0.2", "dragging": "1"}),
            (
                f"/bowls/{bowl}/parts/{self.kale.pk}/limits/",
                {"least_g": "1", "most_g": "2"},
            ),
            (
                f"/bowls/{bowl}/add/",
                {"food": "walnuts", "grams": "20", "role": "topping", "recipe": ""},
            ),
            (f"/bowls/{bowl}/settings/", {"name": "x", "vessel_ml": "900", "version": "1"}),
            (f"/bowls/{bowl}/undo/", {"version": "1"}),
            (f"/bowls/{bowl}/balance/", {"take": "1", "grams-1": "20", "version": "1"}),
            (f"/bowls/{bowl}/swaps/", {"change": "x"}),
            (f"/bowls/{bowl}/without/", {"item": "1", "version": "1"}),
            ("/bowls/new/", {"name": "x", "vessel_ml": "900"}),
            (
                f"/days/{day}/add/",
                {"food": "walnuts", "grams": "20", "meal": "lunch", "bowl": "", "recipe": ""},
            ),
            (f"/days/{day}/entries/{self.entry.pk}/", {"amount": "1", "version": "1"}),
            (f"/days/{day}/balance/", {"take": "1", "grams-1": "2"}),
            (f"/days/{day}/settings/", {"date": "2026-11-23", "note": "x", "version": "1"}),
            (f"/for/{client}/days/new/", {"date": "2026-11-29"}),
            (f"/days/{day}/without/", {"item": "1", "version": "1"}),
            (f"/clients/{client}/weigh-in/", {"date": "2026-11-20", "kg": "99"}),
            (f"/clients/{client}/watched/", {"watched": "iron_mg"}),
            (f"/clients/{client}/shares/", {"breakfast": "30", "lunch": "40", "dinner": "30"}),
            (
                f"/clients/{client}/targets/iron_mg/",
                {
                    "low": "1",
                    "aim": "2",
                    "high": "3",
                    "kind": "choice",
                    "reason": "x",
                    "takes_effect": "2026-11-20",
                },
            ),
            (f"/clients/{client}/retarget/", {"takes_effect": "2026-11-20", "why": "x"}),
            (
                f"/clients/{client}/cautions/",
                {"code": "warfarin", "why": "x", "about": "", "next": "/clients/"},
            ),
            (f"/recipes/{recipe}/versions/keep/", {"why": "x"}),
            (
                "/recipes/preview/",
                {
                    "text": "1 cup millet",
                    "servings": "2",
                    "batch_g": "100",
                    "serving_measure": "2 x 1 cup",
                    "method": "Boil.",
                    "cooked_by": "",
                    "reduced": "20",
                    "measures": "us",
                    "grams-1": "2",
                    "line-1": "1 cup millet",
                },
            ),
            (
                f"/recipes/{recipe}/",
                {
                    "title": "x",
                    "role": "dish",
                    "text": "1 cup millet",
                    "servings": "2",
                    "batch_g": "100",
                    "version": "1",
                    "serving_measure": "1/4 of the pan",
                    "claims": "4",
                    "measures": "us",
                    "reduced": "5",
                    "why": "",
                },
            ),
            ("/recipes/import/", {"text": "1 cup millet"}),
            (
                "/practice/",
                {"name": "x", "town": "y", "contact": "z", "measures": "us", "version": "1"},
            ),
            (
                f"/clients/first-visits/{visit}/keep/",
                {
                    "name": "x",
                    "height_cm": "170",
                    "supplements-TOTAL_FORMS": "3",
                    "visit_version": "1",
                },
            ),
        )
        fields = [(address, data, name) for address, data in forms for name in data]
        for (address, data, name), bad in in_turn(fields):
            with self.subTest(address, name=name, bad=bad[:30]):
                self.fine(
                    self.client.post(address, data | {name: bad}, headers={"HX-Request": "true"}),
                    address,
                )

    def test_bounds(self):
        address = reverse("clients:edit", args=[self.client_row.pk])
        many = {"supplements-TOTAL_FORMS": "99999", "supplements-INITIAL_FORMS": "0"}
        page = self.client.post(address, {"name": "x"} | many)
        self.assertLess(len(page.content), 400_000, "rows are bounded")
        self.assertEqual(
            self.client.post(address, {f"f{n}": "x" for n in range(1500)}).status_code, 400
        )
        self.client.post("/clients/new/")
        visit = reverse("clients:intake", args=[Intake.objects.get().pk])
        self.client.post(visit, many | {"later": "1"})
        self.assertLess(len(self.client.get(visit).content), 400_000)
        live = self.client.post(
            "/recipes/preview/",
            {
                "text": "\n".join(["1 cup millet"] * 5000),
                "servings": "1",
                "method": "Boil. " * 200_000,
            },
        )
        self.assertIn(live.status_code, (200, 400))

    def test_what_does_not_fit_is_refused_and_not_cut(self):
        why = "x" * 301
        told = self.client.post(
            reverse("clients:dismiss", args=[self.client_row.pk]),
            {"code": "no_b12_supplement", "why": why, "about": ""},
            follow=True,
        )
        self.assertContains(told, "over 300 characters")
        self.assertContains(told, why)
        told = self.client.post(
            reverse("recipes:keep", args=[self.recipe.pk]), {"why": "x" * 201}, follow=True
        )
        self.assertContains(told, "over 200 characters")
        self.assertFalse(RecipeVersion.objects.exists())
        for grams in ("12 oz", "6000", "-3"):
            page = self.post(
                reverse("bowls:add", args=[self.bowl.pk]),
                {"food": "walnuts", "grams": grams},
                htmx=True,
            )
            self.assertContains(page, "was not added")
        self.assertEqual(self.bowl.parts.count(), 3)


class Imports(DayCase):
    def take(self, text, name=""):
        data = (
            {"file": SimpleUploadedFile(name, text.encode("utf-8", "surrogatepass"))}
            if name
            else {"text": text}
        )
        return self.client.post(reverse("recipes:import"), data, follow=True)

    def test_what_broke_pages_for_good(self):
        rows = (
            "field,text,food,grams",
            "line,1 cup millet,,{grams}",
            "servings,{servings},,",
            "measured_g,{weight},,",
            "serving_measure,{measure},,",
        )
        head = "\r\n".join(rows)
        odd = (
            '{{"@type": "Recipe", "recipeIngredient": ["1 cup millet"], '
            '"additionalProperty": [{{"name": "{name}", "value": {value}}}]}}'
        )
        usual = {"grams": "", "servings": "2", "weight": "", "measure": ""}
        cases = [
            head.format(**usual | {name: bad})
            for name, bad in product(
                usual, ("1e-320", "nan", "inf", "1e309", "0% of the pan", "1/0 of the pan", "²")
            )
        ]
        cases += [
            json.dumps(
                {
                    "@type": "Recipe",
                    "name": "\ud800 x",
                    "recipeIngredient": ["1 cup \udfff millet"],
                    "recipeYield": "9" * 5000,
                }
            ),
            odd.format(name="servings", value="9" * 5000),
            odd.format(name="batch_g", value="NaN"),
            "<?xml version='1.0'?>",
            "<!doctype html",
            "# servings: 1e-320\n1 cup millet",
            "# servings: -2\n1 cup millet",
            "a pinch of salt",
        ]
        for text in cases:
            with self.subTest(text[:80]):
                self.assertIn(
                    self.take(text, "r.json" if text.startswith("{") else "").status_code,
                    (200, 400),
                )
        for recipe in Recipe.objects.all():
            bowl = Bowl.objects.create(practice=self.practice, name=recipe.title[:100])
            BowlPart.objects.create(bowl=bowl, role="base", recipe=recipe, grams=50)
            for address in (
                f"/recipes/{recipe.pk}/",
                f"/bowls/sauces/{recipe.pk}/",
                f"/bowls/{bowl.pk}/",
                f"/recipes/{recipe.pk}/cook/",
            ):
                self.assertEqual(self.client.get(address).status_code, 200, address)
        self.assertEqual(self.client.get("/bowls/").status_code, 200)

    def test_too_much_is_refused_and_what_is_cut_is_said(self):
        refused = self.take("\n".join(f"{n} g millet" for n in range(1, 301)))
        self.assertContains(refused, "300 ingredient lines", status_code=400)
        self.assertContains(self.take("1 cup " + "x" * 500), "over 400 characters", status_code=400)
        told = self.take(
            json.dumps(
                {
                    "@type": "Recipe",
                    "name": "T" * 200,
                    "recipeIngredient": ["1 cup millet"],
                    "recipeYield": "4",
                }
            )
        )
        self.assertContains(
            told, "its title has 200 characters, and 160 can be kept", status_code=400
        )
        both = self.client.post(
            reverse("recipes:import"),
            {"text": "1 cup millet", "file": SimpleUploadedFile("a.txt", b"1 cup oats")},
        )
        self.assertContains(both, "one after the other", status_code=400)
        told = self.take("# title: Odd\n# role: starter\n# my own remark\n1 cup buckwheat, dry")
        self.assertContains(told, "“starter” is no part of a bowl")
        self.assertIn("Note: my own remark", Recipe.objects.get(title="Odd").method)

    def test_pasted_from_somewhere(self):
        rows = (
            "Dill millet",
            "Serves 4",
            "Ingredients",
            "1 &frac12; cups millet, dry",
            "2 &#189; tbsp dill",
            "",
            "Method",
            "1. Boil the millet.",
        )
        text = "\n".join((*rows, "2. Fold in the dill."))
        self.take(text)
        recipe = Recipe.objects.get(title="Dill millet")
        self.assertEqual((recipe.servings, recipe.claims), (4, ""))
        self.assertEqual(recipe.text, "1 ½ cups millet, dry\n2 ½ tbsp dill")
        self.assertEqual(recipe.method, "Boil the millet.\nFold in the dill.")
        asked = self.take(text)
        self.assertContains(asked, "already: Dill millet", status_code=400)
        self.assertEqual(Recipe.objects.filter(text=recipe.text).count(), 1)

    def test_a_plain_table(self):
        self.take('ingredient,quantity,unit\nmillet,1.5,cup\n"dill, chopped",2,tbsp\n', "list.csv")
        self.assertEqual(
            Recipe.objects.order_by("-pk").first().text, "1.5 cup millet\n2 tbsp dill, chopped"
        )
        self.take("Menge;x\n", "odd.csv")
        self.take("Quantity;Unit;Ingredient\n200;g;buckwheat\n", "list.csv")
        self.assertEqual(Recipe.objects.order_by("-pk").first().text, "200 g buckwheat")

    def test_numbers_of_an_unsettled_recipe_say_at_least(self):
        recipe = Recipe.objects.create(
            practice=self.practice,
            title="Half read",
            text="100 g walnuts\n1 ladle of it",
            servings=1,
        )
        out = json.loads(
            self.client.get(reverse("recipes:export", args=[recipe.pk, "json"])).content
        )
        self.assertRegex(out["nutrition"]["calories"], r"^at least [\d.]+ kcal$")

    def test_two_equal_lines_have_a_decision_each(self):
        text = "1 handful walnuts\n1 handful walnuts"
        choices = {
            "line-1": "1 handful walnuts",
            "grams-1": "50",
            "line-2": "1 handful walnuts",
            "grams-2": "90",
        }
        data = {"title": "Twice", "role": "dish", "text": text, "servings": "1"}
        self.client.post("/recipes/new/", data | choices)
        recipe = Recipe.objects.get(title="Twice")
        page = self.client.get(reverse("recipes:page", args=[recipe.pk]))
        self.assertEqual([line.grams for line in page.context["facts"].lines], [50, 90])
        unknown = self.client.post(
            "/recipes/new/",
            data | {"title": "Third", "line-1": "1 handful walnuts", "food-1": "unicorn"},
        )
        self.assertContains(unknown, "not in the table", status_code=400)


@thorough
class Stored(DayCase):
    """Records as they were stored before there were limits."""

    def test_all_of_them_can_be_opened(self):
        recipes = []
        for bad in (
            {"servings": 1e-320},
            {"servings": 1e300},
            {"servings": 0.0},
            {"servings": -3.0},
            {"batch_g": 1e309},
            {"batch_g": 1e-9},
            {"serving_measure": "0% of the pan"},
            {"serving_measure": "1/0 of the pan"},
            {"serving_measure": "0 x 1 cup"},
            {"text": ""},
            {"choices": {"1 cup millet": {"food": "gone", "grams": 1e300}}},
            {"text": "1 cup millet\n" * 250},
            {"reduced": 1.0},
            {"claims": "²"},
        ):
            number = len(recipes) + 1
            recipe = Recipe.objects.create(
                practice=self.practice, title=f"Bad {number}", text="1 cup millet", role="sauce"
            )
            Recipe.objects.filter(pk=recipe.pk).update(**bad)
            recipes.append(recipe)
            BowlPart.objects.create(
                bowl=self.bowl, role="sauce", recipe=recipe, grams=20, place=number
            )
            DayEntry.objects.create(day=self.day, meal="dinner", recipe=recipe, amount=1)
        ClientSupplement.objects.create(
            client=self.client_row, key="vitamin_b12_ug", dose=1e308, per_week=7
        )
        ClientSupplement.objects.create(client=self.client_row, key="gone_mg", dose=1, per_week=7)
        WeighIn.objects.create(client=self.client_row, date=date(9999, 12, 31), kg=101)
        edges = [
            Day.objects.create(practice=self.practice, client=self.client_row, date=on)
            for on in (date.min, date.max, date(1, 1, 3), date(9999, 12, 29))
        ]
        DayEntry.objects.create(day=edges[0], meal="lunch", food="walnuts", amount=30)
        DayEntry.objects.create(day=self.day, meal="snack", food="no-longer-there", amount=30)
        pages = [f"/recipes/{recipe.pk}/" for recipe in recipes] + [
            f"/bowls/sauces/{recipe.pk}/" for recipe in recipes
        ]
        pages += [f"/days/{day.pk}/" for day in edges] + [
            f"/handouts/days/{day.pk}/" for day in edges
        ]
        pages += [
            "/recipes/",
            "/bowls/",
            f"/bowls/{self.bowl.pk}/",
            f"/bowls/{self.bowl.pk}/balance/",
            f"/days/{self.day.pk}/",
            f"/days/{self.day.pk}/balance/",
            f"/days/{self.day.pk}/swaps/",
            f"/clients/{self.client_row.pk}/",
            "/clients/",
            self.for_client("/days/"),
            f"/clients/{self.client_row.pk}/edit/",
            f"/handouts/bowls/{self.bowl.pk}/",
            self.for_client("/compare/ladder/"),
        ]
        for address in pages:
            with self.subTest(address):
                self.assertEqual(self.client.get(address).status_code, 200)
        self.assertEqual(Practice.objects.count(), 2)
