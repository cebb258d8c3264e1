"""Versions with reasons, going back, and a recipe made larger or smaller."""

from django.urls import reverse

from nutrition.insight.whole_food import whole_food
from nutrition.recipe.changes import side_by_side
from nutrition.recipe.model import Recipe as CoreRecipe
from nutrition.recipe.reckoning import reckon
from nutrition.recipe.scaling import (
    factor_for_packages,
    factor_for_portion,
    factor_for_stock,
    scale,
)
from nutrition.targets.schools import schools
from recipes.models import Recipe
from recipes.testing import RecipeCase


class Versions(RecipeCase):
    def address(self, name, *args):
        return reverse(f"recipes:{name}", args=[self.recipe.pk, *args])

    def save(self, text, why, version):
        data = {
            "title": "Dill barley",
            "role": "base",
            "servings": "4",
            "text": text,
            "version": version,
            "why": why,
        }
        return self.client.post(self.address("page"), data)

    def test_a_change_with_its_reason_and_back_again(self):
        before = self.recipe.text
        self.assertEqual(
            self.save(
                before.replace("1/4 tsp salt", "1/8 tsp salt"), "half the salt: sodium", 1
            ).status_code,
            302,
        )
        self.assertEqual(
            [row.why for row in self.recipe.versions.all()], ["half the salt: sodium", "as it was"]
        )
        page = self.client.get(self.address("versions"))
        for text in (
            "half the salt: sodium",
            "1/4 tsp salt",
            "1/8 tsp salt",
            "\u221273 mg",
            "the same",
        ):
            self.assertContains(page, text)
        self.client.post(self.address("back", 1))
        self.recipe.refresh_from_db()
        self.assertEqual((self.recipe.text, self.recipe.versions.count()), (before, 3))
        self.assertContains(
            self.client.get(self.address("versions")), "back to version 1: as it was"
        )

    def test_grams_set_by_hand_are_a_change_and_as_it_was_is_from_before_it(self):
        text = "200 g carrots\n1 tsp salt"
        self.save(text, "as written", 1)
        data = {
            "title": "Dill barley",
            "role": "base",
            "servings": "4",
            "text": text,
            "version": Recipe.objects.get().version,
            "why": "less salt",
            "line-2": "1 tsp salt",
            "food-2": "",
            "grams-2": "2",
        }
        self.client.post(self.address("page"), data)
        rows = {row.why: row for row in self.recipe.versions.all()}
        newest = rows["less salt"]
        older = rows["as written"]
        page = self.client.get(
            self.address("versions"), {"from": older.number, "to": newest.number}
        )
        self.assertContains(page, "set by hand: 2 g")
        sodium = page.content.decode().split("Sodium", 1)[1][:900]
        self.assertNotIn("the same", sodium.split("</tr>")[0])

    def test_going_back_keeps_what_was_not_kept(self):
        self.client.post(self.address("keep"), {"why": "the good one"})
        self.save("100 g walnuts", "", 1)
        self.client.post(self.address("back", 1))
        self.assertEqual(
            [row.why for row in self.recipe.versions.all()][1:],
            ["changed: ingredients", "the good one"],
        )
        self.client.post(self.address("keep"), {"why": " "})
        self.assertEqual(self.recipe.versions.count(), 3)

    def test_a_version_follows_how_it_was_cooked(self):
        Recipe.objects.filter(pk=self.recipe.pk).update(cooked_by="boiled_drained")
        self.client.post(self.address("keep"), {"why": "boiled"})
        self.assertEqual(self.recipe.versions.get().as_recipe().core().method, "boiled_drained")


class Scaled(RecipeCase):
    def test_the_page(self):
        address = reverse("recipes:scale", args=[self.recipe.pk])
        page = self.client.get(address, {"to": "servings", "amount": "10"})
        for text in (
            "2.5 times, 10 servings",
            "2½\xa0cups",
            "three quarters of it first",
            "Pan:",
            "Rounding",
        ):
            self.assertContains(page, text)
        self.assertContains(
            self.client.get(address, {"to": "stock", "amount": "90"}), "Choose the line"
        )
        self.assertContains(
            self.client.get(address, {"to": "stock", "amount": "200", "line": "100 g leeks"}),
            "2 times, 8 servings",
        )
        self.assertContains(
            self.client.get(address, {"to": "servings", "amount": "4000"}), "is outside 0.05 to 40"
        )

    def test_measures_a_person_can_use(self):
        facts = reckon(
            CoreRecipe(
                ("1 cup pearl barley, dry", "1/4 tsp salt", "200 g leeks", "1 ladle of it"),
                servings=4,
            )
        )
        third = scale(facts, 1 / 3)
        self.assertEqual([row.words for row in third.lines], ["⅓\xa0cup", "⅛\xa0tsp", "67 g"])
        self.assertEqual(third.unsettled, ("1 ladle of it",))
        self.assertLess(abs(third.effect["protein_g"]), 0.05)
        self.assertAlmostEqual(factor_for_stock(facts, "200 g leeks", 300), 1.5)
        self.assertAlmostEqual(factor_for_packages(facts, "200 g leeks", 150), 0.75)
        wanted = factor_for_portion(facts, 300)
        self.assertAlmostEqual(scale(facts, wanted).lines[0].exact_g, 200 * wanted)
        self.assertAlmostEqual(facts.serving["energy_kcal"].amount * wanted, 300)
        for bad in (0.001, 100):
            with self.assertRaises(ValueError):
                scale(facts, bad)


class Core(RecipeCase):
    def test_what_each_change_did(self):
        before = reckon(
            CoreRecipe(("100 g kale", "2 tbsp white miso", "1 tbsp olive oil"), servings=2)
        )
        after = reckon(
            CoreRecipe(("100 g kale", "1 tbsp white miso", "3 tbsp lemon juice"), servings=2)
        )
        changes = side_by_side(before, after)
        self.assertEqual(
            [change.kind for change in changes], ["same", "changed", "left out", "added"]
        )
        self.assertLess(changes[1].effect["sodium_mg"], -150)
        for key in ("energy_kcal", "fat_g"):
            total = sum(change.effect[key] or 0.0 for change in changes)
            self.assertAlmostEqual(total, after.serving[key].amount - before.serving[key].amount)

    def test_the_whole_food_view(self):
        facts = reckon(
            CoreRecipe(
                (
                    "1 tbsp olive oil",
                    "1/2 tsp salt",
                    "1 tbsp maple syrup",
                    "2 eggs, beaten",
                    "1 cup oat milk",
                ),
                servings=2,
            )
        )
        found = {row.heading: row for row in whole_food(facts, schools()["light_starchy"])}
        self.assertEqual([part.name for part in found["Added oil"].parts], ["Olive oil"])
        self.assertTrue(found["Added oil"].against_the_school)
        self.assertGreater(found["Added salt"].total, 500)
        self.assertEqual(len(found["Added sugar"].parts), 1)
        self.assertEqual([part.text for part in found["Animal products"].parts], ["2 eggs, beaten"])
        self.assertEqual(found["Refined flour or grain"].parts, ())
