"""Bowls: parts added, typed, stepped, dragged, undone; live and without JavaScript."""

from django.urls import reverse

from bowls.bowl import reckon_bowl
from bowls.models import Bowl, BowlPart
from bowls.testing import BowlCase
from recipes.facts import facts_of


class Bowls(BowlCase):
    def change(self, part, htmx=True, **data):
        return self.post(reverse("bowls:change", args=[self.bowl.pk, part.pk]), data, htmx)

    def grams(self, part):
        return BowlPart.objects.get(pk=part.pk).grams

    def test_the_bowl_is_the_sum_of_its_parts(self):
        reckoned = reckon_bowl(self.bowl)
        facts = facts_of(self.recipe)
        base = facts.batch["protein_g"].amount * 150 / facts.batch.grams
        self.assertAlmostEqual(reckoned.parts[0].profile["protein_g"].amount, base)
        self.assertAlmostEqual(
            reckoned.profile["protein_g"].amount,
            sum(part.profile["protein_g"].amount for part in reckoned.parts),
        )
        self.assertAlmostEqual(
            sum(reckoned.share(part, "protein_g") for part in reckoned.parts), 1.0
        )
        self.assertEqual([part.name for part in reckoned.parts if part.star], ["Tofu, firm"])
        self.assertEqual(reckoned.vegetables, ["Kale", "Leek"])

    def test_type_an_amount(self):
        page = self.change(self.tofu, amount="1/2 cup")
        self.assertEqual(self.grams(self.tofu), 126)
        self.assertContains(page, 'hx-swap-oob="true"')
        self.change(self.base, amount="2 servings")
        self.assertAlmostEqual(self.grams(self.base), facts_of(self.recipe).serving.grams * 2)

    def test_a_bad_amount_is_refused_beside_the_field(self):
        for htmx, status in ((True, 200), (False, 400)):
            page = self.change(self.tofu, htmx, amount="a bit")
            self.assertContains(page, "“a bit” is not an amount", status_code=status)
            self.assertContains(page, 'value="a bit"', status_code=status)
        self.assertEqual(self.grams(self.tofu), 150)

    def test_a_new_bowl_says_which_meal_it_is_judged_as_and_asks_once(self):
        page = self.client.get(self.for_client(reverse("bowls:page", args=[self.bowl.pk])))
        self.assertContains(page, "Which meal is it?")
        # what is in it does not move what it is judged as
        self.bowl.parts.update(grams=900)
        again = self.client.get(self.for_client(reverse("bowls:page", args=[self.bowl.pk])))
        self.assertEqual(again.context["strip_meal"], page.context["strip_meal"])
        self.assertEqual(again.context["strip_meal"].key, "lunch")
        self.post(self.for_client(reverse("bowls:meal", args=[self.bowl.pk])), {"meal": "dinner"})
        said = self.client.get(self.for_client(reverse("bowls:page", args=[self.bowl.pk])))
        self.assertNotContains(said, "Which meal is it?")
        self.assertEqual(said.context["strip_meal"].key, "dinner")

    def test_step(self):
        self.change(self.tofu, step="1")
        self.assertAlmostEqual(self.grams(self.tofu), 150 + 84, msg="a slice more")
        for _ in range(9):
            self.change(self.kale, step="-1")
        self.assertGreater(self.grams(self.kale), 0, "never to nothing by stepping")

    def test_drag_to_a_share_of_the_volume(self):
        self.change(self.tofu, share="0.5")
        reckoned = reckon_bowl(Bowl.objects.get(pk=self.bowl.pk))
        tofu = next(part for part in reckoned.parts if part.pk == self.tofu.pk)
        self.assertAlmostEqual(tofu.volume_ml / reckoned.volume_ml, 0.5)
        before = self.grams(self.tofu)
        for bad in ("1.0", "-1", "x", "nan"):
            self.change(self.tofu, share=bad)
        self.assertEqual(self.grams(self.tofu), before)

    def test_a_whole_drag_is_one_undo(self):
        self.change(self.tofu, share="0.5")
        self.change(self.tofu, share="0.6", dragging="1")
        self.post(reverse("bowls:undo", args=[self.bowl.pk]), {}, htmx=True)
        self.assertEqual(self.grams(self.tofu), 150)

    def test_everything_can_be_undone(self):
        self.change(self.kale, amount="100 g")
        self.change(self.kale, remove="1")
        self.change(self.tofu, star="1")
        self.assertEqual(self.bowl.parts.count(), 2)
        undo = reverse("bowls:undo", args=[self.bowl.pk])
        for _ in range(3):
            self.post(undo, {}, htmx=True)
        self.assertEqual((self.grams(self.kale), self.bowl.parts.count()), (60, 3))
        self.assertFalse(BowlPart.objects.get(pk=self.tofu.pk).star)
        self.assertEqual(
            self.post(undo, {}, htmx=True).status_code, 200, "nothing left to undo is no error"
        )

    def test_add_a_food_and_a_recipe(self):
        add = reverse("bowls:add", args=[self.bowl.pk])
        self.post(add, {"food": "lemon-juice"}, htmx=True)
        self.post(add, {"recipe": self.recipe.pk, "role": "protein"}, htmx=True)
        lemon, recipe = self.bowl.parts.order_by("-pk")[1], self.bowl.parts.order_by("-pk")[0]
        self.assertEqual((lemon.role, recipe.role), ("sauce", "protein"))
        self.assertAlmostEqual(recipe.grams, facts_of(self.recipe).serving.grams, places=0)
        for bad in ("no-such-food", "egg-boiled", ""):
            self.post(add, {"food": bad})
        self.assertEqual(self.bowl.parts.count(), 5)

    def test_find_offers_recipes_first_and_no_animal_food(self):
        page = self.client.get(
            reverse("bowls:find", args=[self.bowl.pk]),
            {"q": "dill"},
            headers={"HX-Request": "true"},
        )
        self.assertContains(page, "Dill barley")
        self.assertContains(page, "Dill, fresh")
        page = self.client.get(
            reverse("bowls:find", args=[self.bowl.pk]), {"q": "egg"}, headers={"HX-Request": "true"}
        )
        self.assertNotContains(page, "Egg, boiled")

    def test_without_javascript(self):
        response = self.change(self.tofu, htmx=False, amount="200 g")
        self.assertRedirects(response, self.for_client(reverse("bowls:page", args=[self.bowl.pk])))
        page = self.client.get(reverse("bowls:find", args=[self.bowl.pk]), {"q": "kale"})
        self.assertContains(page, "<html")
        self.assertContains(page, 'value="kale-raw"')

    def test_an_allergen_is_called_out_where_the_decision_is_made(self):
        page = self.post(reverse("bowls:add", args=[self.bowl.pk]), {"food": "tahini"}, htmx=True)
        self.assertContains(page, "does not tolerate what is in: Tahini (sesame)")

    def test_build_and_rename(self):
        self.client.post("/bowls/new/", {"name": "New one", "vessel_ml": "900"})
        bowl = Bowl.objects.get(name="New one")
        self.assertContains(
            self.client.get(reverse("bowls:page", args=[bowl.pk])), "Nothing in the bowl yet"
        )
        refused = self.client.post("/bowls/new/", {"name": "Thimble", "vessel_ml": "20"})
        for text in ("greater than or equal to 100", 'value="Thimble"', "Harbor bowl"):
            self.assertContains(refused, text, status_code=400)
        settings = reverse("bowls:settings", args=[bowl.pk])
        self.assertContains(
            self.client.post(settings, {"name": "Kept", "vessel_ml": "20"}),
            "greater than or equal to 100",
            status_code=400,
        )
        self.client.post(settings, {"name": "Kept", "vessel_ml": "700"})
        self.assertEqual(Bowl.objects.get(pk=bowl.pk).vessel_ml, 700)

    def test_a_recipe_in_a_bowl_shows_its_unsettled_lines(self):
        self.recipe.text += "\n1 ladle of the red stuff"
        self.recipe.save()
        page = self.client.get(reverse("bowls:page", args=[self.bowl.pk]))
        self.assertContains(page, "1 line of this recipe could not be counted")
        self.assertContains(page, "at least")
