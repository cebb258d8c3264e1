"""Swaps on a bowl and the sauce bench."""

import re

from django.http import QueryDict
from django.urls import reverse

from bowls.bowl import reckon_bowl
from bowls.changeable import BowlChanges
from bowls.models import BowlPart
from bowls.testing import BowlCase
from changes.aims import meal_of, plan_aims
from changes.swaps import panel
from changes.testing import offers
from clients.plan.in_force import plan_of
from clients.testing import asked_for
from nutrition.swaps.swap import gap, totals_of
from recipes.models import Recipe

LIVE = {"HX-Request": "true"}


class BowlSwaps(BowlCase):
    def setUp(self):
        super().setUp()
        self.address = reverse("bowls:swap", args=[self.bowl.pk])
        for title, text in (
            ("Plain millet", "2 cups cooked millet"),
            ("Sesame rice", "2 cups brown rice, cooked\n1 tbsp tahini"),
        ):
            Recipe.objects.create(
                practice=self.practice, title=title, role="base", servings=4, text=text
            )
        self.tamari = BowlPart.objects.create(
            bowl=self.bowl, role="sauce", food="tamari", grams=45, place=3
        )

    def grams(self):
        return {row.food or row.recipe.title: row.grams for row in self.bowl.parts.all()}

    def test_take_a_swap_and_undo_it(self):
        page = self.client.get(self.address, {"meal": "dinner"}, headers=LIVE)
        offered = offers(page)
        self.assertTrue(
            any("sodium" in words.lower() or "tamari" in words.lower() for words, _token in offered)
        )
        before = self.grams()
        words, token = next(
            (words, token)
            for words, token in offered
            if "instead of tamari" in words and ";" not in words
        )
        page = self.post(self.address, {"change": token}, htmx=True)
        self.assertContains(page, "instead of tamari")
        self.assertNotIn("tamari", self.grams())
        self.assertEqual(len(self.grams()), len(before))
        self.post(reverse("bowls:undo", args=[self.bowl.pk]), {})
        self.assertEqual(self.grams(), before)
        self.assertContains(
            self.post(self.address, {"change": token}, htmx=True), "look at the swaps again"
        )

    def test_another_recipe_in_the_same_role_but_none_with_an_allergen(self):
        Recipe.objects.filter(pk=self.recipe.pk).update(text="1 cup pearl barley, dry\n1 tbsp salt")
        # salt is a matter of the day
        page = self.client.get(self.address, {"meal": "day"}, headers=LIVE)
        self.assertNotContains(page, "Sesame rice")
        words = [words for words, _token in offers(page)]
        millet = next(
            (
                token
                for one, token in offers(page)
                if one.startswith("Plain millet instead of dill barley")
            ),
            None,
        )
        self.assertIsNotNone(millet, words)
        self.post(self.address, {"change": millet})
        self.assertIn("Plain millet", self.grams())
        self.assertNotIn("Dill barley", self.grams())

    def test_a_locked_part_still_counts(self):
        self.tofu.locked = True
        self.tofu.save()
        plan, reckoned = plan_of(self.client_row), reckon_bowl(self.bowl)
        it = BowlChanges(asked_for(self.client_row), self.bowl)
        look = it.look(QueryDict("meal=dinner"), swaps=True)
        aims = plan_aims(plan, meal_of(plan.day, "dinner"))
        whole = gap(aims, totals_of(aims, reckoned.profile))
        self.assertAlmostEqual(gap(aims, totals_of(aims, look.profile)), whole)
        offered = [one.words for gap in panel(it, look)["gaps"] for one in gap.swaps]
        self.assertTrue(offered)
        self.assertFalse([words for words in offered if "tofu, firm" in words.lower()])

    def test_a_locked_part_is_left_alone_and_what_fills_is_added(self):
        self.post(reverse("bowls:change", args=[self.bowl.pk, self.tamari.pk]), {"lock": "1"})
        offered = offers(self.client.get(self.address, {"meal": "day"}, headers=LIVE))
        self.assertFalse([words for words, _token in offered if "tamari" in words.lower()])
        words, token = next((words, token) for words, token in offered if words.startswith("Add "))
        self.post(self.address, {"change": token})
        self.assertEqual(self.bowl.parts.count(), 5)


class SauceBench(BowlCase):
    def setUp(self):
        super().setUp()
        text = "100 g sunflower seeds\n50 g lemon juice\n100 g water"
        self.sauce = Recipe.objects.create(
            practice=self.practice, title="Seed sauce", role="sauce", servings=6, text=text
        )
        BowlPart.objects.create(bowl=self.bowl, role="sauce", recipe=self.sauce, grams=30, place=4)
        self.address = reverse("bowls:sauce", args=[self.sauce.pk])
        self.asked = {"volume_ml": "250", "bowls": "10", "per_bowl_ml": "40", "thinner": "water"}
        self.asked |= {"key": "fat_g", "most": "3", "density": "1"}

    def test_thinner_by_how_much_and_what_can_go(self):
        page = self.client.get(self.address, self.asked)
        self.assertContains(page, "150 mL water")
        self.assertContains(page, "Harbor bowl")
        self.assertContains(page, "can go")
        tokens = re.findall(r'name="change" value="(.*?)"', page.content.decode())
        self.assertEqual(
            len(tokens), 3, "thinned to reach, thinned to a density, less of the seeds"
        )
        self.client.post(reverse("recipes:swap", args=[self.sauce.pk]), {"change": tokens[0]})
        recipe = Recipe.objects.get(pk=self.sauce.pk)
        self.assertEqual(len(recipe.text.splitlines()), 4)
        self.assertIn("10 bowls", recipe.versions.first().why)

    def test_as_it_is_and_what_cannot_be_reckoned(self):
        self.assertContains(self.client.get(self.address), "The room is taken from its weight")
        page = self.client.get(self.address, self.asked | {"bowls": "none"})
        self.assertContains(page, 'value="none"', status_code=400)
        empty = Recipe.objects.create(
            practice=self.practice,
            title="Nothing yet",
            role="sauce",
            text="a ladle of the red stuff",
        )
        self.assertContains(
            self.client.get(reverse("bowls:sauce", args=[empty.pk])), "weighs nothing yet"
        )
