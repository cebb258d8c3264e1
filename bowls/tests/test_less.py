"""Balance beyond portions: a goal of one's own, less of a line in a dish, what is added, and the
bench for any limit."""

import re

from django.urls import reverse

from bowls.models import BowlPart
from bowls.testing import BowlCase
from recipes.facts import facts_of
from recipes.models import Recipe


class Less(BowlCase):
    @classmethod
    def make_rows(cls):
        super().make_rows()
        cls.client_row.conditions = ["hypertension"]
        cls.client_row.save()
        cls.sauce = Recipe.objects.create(
            practice=cls.practice,
            title="Mustard pour",
            servings=2,
            text="3 tbsp sunflower seed butter\n1/4 cup water\n1 1/2 tsp salt\n2 tbsp lemon juice",
        )
        cls.pour = BowlPart.objects.create(
            bowl=cls.bowl, role="sauce", recipe=cls.sauce, grams=60, place=4
        )

    def panel(self, **asked):
        return self.client.get(
            reverse("bowls:balance", args=[self.bowl.pk]),
            {"meal": "dinner", **asked},
            headers={"HX-Request": "true"},
        )

    def test_the_salt_of_the_dressing_is_named_and_made_less(self):
        page = self.panel(show="0")
        self.assertContains(page, "less salt in Mustard pour, which brings")
        self.assertContains(page, "line by line on the bench")
        text = page.content.decode()
        sent = dict(re.findall(r'name="(less[a-z-]*)" value="([^"]*)"', text))
        self.assertEqual(sent["less-food"], "salt")
        before = facts_of(self.sauce).batch["sodium_mg"].amount
        answer = self.post(
            reverse("bowls:balance", args=[self.bowl.pk]),
            {"version": self.bowl.version} | sent,
            htmx=True,
        )
        self.assertContains(answer, "is made with less salt")
        self.pour.refresh_from_db()
        own = self.pour.recipe
        self.assertEqual((own.origin, own.client), (self.sauce, self.client_row))
        self.assertLess(facts_of(own).batch["sodium_mg"].amount, 0.6 * before)
        self.sauce.refresh_from_db()
        self.assertIn("1 1/2 tsp salt", self.sauce.text, "the recipe of everybody stays")
        # and the first proposal of what is there now is no longer about the salt
        self.assertNotContains(self.panel(show="0"), "less salt in Mustard pour, which")

    def test_what_is_not_there_is_said_and_changes_nothing(self):
        for less, said in (
            ({"less": str(self.pour.pk), "less-food": "walnuts"}, "no line of it is"),
            ({"less": str(self.kale.pk), "less-food": "salt"}, "no longer in the bowl"),
        ):
            answer = self.post(
                reverse("bowls:balance", args=[self.bowl.pk]),
                {"version": self.bowl.version, "less-left": "0.5"} | less,
                htmx=True,
            )
            self.assertContains(answer, said)
        self.pour.refresh_from_db()
        self.assertEqual(self.pour.recipe, self.sauce)

    def test_the_bench_opens_for_any_limit_of_any_recipe(self):
        page = self.client.get(reverse("recipes:page", args=[self.recipe.pk]))
        self.assertContains(page, reverse("bowls:sauce", args=[self.recipe.pk]))
        link = re.search(r'href="([^"]*bowls/sauces[^"]*)"', self.panel().content.decode())[1]
        page = self.client.get(link.replace("&amp;", "&"))
        self.assertContains(page, "mg sodium on a bowl")
        self.assertContains(page, "of the sodium")
        bench = reverse("bowls:sauce", args=[self.sauce.pk])
        page = self.client.get(bench, {"key": "potassium_mg", "most": "40", "per_bowl_ml": "60"})
        self.assertContains(page, "of the potassium")


class OwnGoal(BowlCase):
    def panel(self, goal):
        return self.client.get(
            reverse("bowls:balance", args=[self.bowl.pk]),
            {"meal": "dinner", "goal": goal},
            headers={"HX-Request": "true"},
        )

    def test_it_stands_beside_the_targets(self):
        page = self.panel("70 g protein, at most 900 mg sodium")
        self.assertContains(page, "protein at least 70.0 g; sodium at most 900 mg")
        self.assertContains(page, 'value="70 g protein, at most 900 mg sodium"')

    def test_what_is_not_read_is_said_beside_it_and_kept(self):
        page = self.panel("70 g protin")
        self.assertContains(page, "Did you mean protein?")
        self.assertContains(page, 'value="70 g protin"')
        self.assertContains(page, 'aria-describedby="goal-wrong"')
        self.assertNotContains(page, "Take what is ticked")

    def test_what_is_added_is_taken(self):
        self.base.delete()
        self.tofu.delete()
        page = self.panel("at least 60 g protein")
        text = page.content.decode()
        foods = dict(re.findall(r'name="food-([a-z-]+)" value="([a-z-]+)"', text))
        self.assertTrue(foods)
        grams = dict(re.findall(r'name="grams-([a-z0-9-]+)" value="([\d.]+)"', text))
        slug = next(iter(foods))
        sent = {"take": slug, f"food-{slug}": slug, f"grams-{slug}": grams[slug]}
        self.post(
            reverse("bowls:balance", args=[self.bowl.pk]), {"version": self.bowl.version} | sent
        )
        row = BowlPart.objects.get(bowl=self.bowl, food=slug)
        self.assertEqual(row.grams, float(grams[slug]))

    def test_a_food_that_is_not_in_the_table_is_not_taken(self):
        sent = {"take": "gone", "food-gone": "no-such-food", "grams-gone": "20"}
        before = BowlPart.objects.filter(bowl=self.bowl).count()
        self.post(
            reverse("bowls:balance", args=[self.bowl.pk]), {"version": self.bowl.version} | sent
        )
        self.assertEqual(BowlPart.objects.filter(bowl=self.bowl).count(), before)
