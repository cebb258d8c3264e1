"""Swaps on a recipe: what is offered, made a version with its reason, refused when it no longer
fits."""

import re

from django.urls import reverse

from changes.testing import offers
from recipes.facts import facts_of
from recipes.models import Recipe
from recipes.testing import RecipeCase


class Swaps(RecipeCase):
    def setUp(self):
        super().setUp()
        self.soup = Recipe.objects.create(
            practice=self.practice,
            title="Salty soup",
            servings=4,
            cooked_by="simmered",
            text="1 (15 oz) can white beans, drained\n2 tbsp tamari\n1 cup pearl barley, dry\n2 "
            "carrots [method: roasted]\n1 tsp salt",
        )
        self.address = self.for_client(reverse("recipes:swap", args=[self.soup.pk]))

    def offers(self, **asked):
        """Words and tokens of everything that can be taken."""
        page = self.client.get(self.address, asked)
        return page, offers(page)

    def test_a_change_becomes_a_version_with_its_reason(self):
        page, offered = self.offers()
        self.assertContains(page, "as much of the day as its calories")
        self.assertContains(page, "what holds sesame")
        before = facts_of(self.soup)
        token = next(token for words, token in offered if words.startswith("Without salt"))
        page = self.client.post(self.address, {"change": token, "everybody": "1"}, follow=True)
        self.assertContains(page, "without salt: sodium")
        recipe = Recipe.objects.get(pk=self.soup.pk)
        first, second = recipe.versions.order_by("number")
        self.assertEqual((first.number, second.number), (1, 2))
        self.assertIn("without salt: sodium", second.why)
        self.assertEqual(first.data["text"], self.soup.text)
        self.assertNotIn("salt", recipe.text)
        after = facts_of(recipe)
        salt = before.lines[4]
        gone = before.batch["sodium_mg"].amount - after.batch["sodium_mg"].amount
        self.assertAlmostEqual(gone, salt.food.per_100_g("sodium_mg") * salt.grams / 100, delta=5)
        self.post(reverse("recipes:back", args=[recipe.pk, 1]), {})
        self.assertEqual(Recipe.objects.get(pk=recipe.pk).text, self.soup.text)

    def test_every_offer_is_read_back_as_what_was_promised(self):
        _page, offered = self.offers()
        self.assertGreater(len(offered), 5)
        for words, token in offered:
            Recipe.objects.filter(pk=self.soup.pk).update(
                text=self.soup.text, version=self.soup.version, choices={}, title=self.soup.title
            )
            with self.subTest(words):
                self.client.post(self.address, {"change": token, "everybody": "1"})
                recipe = Recipe.objects.get(pk=self.soup.pk)
                self.assertNotEqual(recipe.text, self.soup.text)
                self.assertEqual(facts_of(recipe).unresolved, ())
                for grams in re.findall(r"\((\d+) g\)", words):
                    self.assertTrue(
                        any(
                            abs(line.grams - float(grams)) < 1 + 0.04 * line.grams
                            for line in facts_of(recipe).lines
                        )
                    )
        self.assertIn("[method: roasted]", recipe.text, "how a line is cooked stays")

    def test_a_weighed_batch_shrinks_with_its_lines(self):
        Recipe.objects.filter(pk=self.soup.pk).update(batch_g=900)
        _page, offered = self.offers()
        token = next(token for words, token in offered if words == "Without tamari")
        self.client.post(self.address, {"change": token, "everybody": "1"})
        recipe = Recipe.objects.get(pk=self.soup.pk)
        was, now = facts_of(self.soup), facts_of(recipe)
        self.assertAlmostEqual(recipe.batch_g / 900, now.computed_g / was.computed_g, places=3)
        self.assertLess(recipe.batch_g, 900)

    def test_only_what_was_offered_and_still_fits_is_taken(self):
        _page, offered = self.offers()
        token = offered[0][1]
        for wrong in ("", "made-up", token[:-2]):
            self.assertContains(
                self.client.post(self.address, {"change": wrong}, follow=True), "not offered here"
            )
        self.client.post(self.address, {"change": token, "everybody": "1"})
        self.assertContains(
            self.client.post(self.address, {"change": token, "everybody": "1"}, follow=True),
            "look at the swaps again",
        )
        self.assertEqual(Recipe.objects.get(pk=self.soup.pk).versions.count(), 2)
        other = reverse("recipes:swap", args=[self.recipe.pk])
        self.assertContains(
            self.client.post(other, {"change": token, "everybody": "1"}, follow=True),
            "look at the swaps again",
        )

    def test_without_a_client_it_says_what_is_missing(self):
        self.assertContains(
            self.client.get(reverse("recipes:swap", args=[self.soup.pk])), "Choose a client"
        )

    def test_what_the_client_likes_comes_first(self):
        self.client_row.favorites = "lentils, hemp seeds, nothing of the kind"
        self.client_row.save()
        page, _offered = self.offers(meal="day")
        self.assertContains(page, "one that Osk Brannigan likes")
        self.assertContains(page, "lentils, cooked")
        self.assertNotContains(page, "lentils, dry")
