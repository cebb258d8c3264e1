"""Every household measure of the demo, read back: the same grams of the same thing are the same
words on recipe, bowl, day and the client's paper, at any multiple."""

import re

from django.test import TestCase
from django.urls import reverse
from django_scopes import scope

from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from demo.tests.demo_rows import fill
from nutrition.written.household import BOUND, measure_of, say
from nutrition.written.typed_amounts import read_amount, read_batch_amount
from pantry.in_force import foods_of_practice
from planner.day import reckon_day
from planner.models import Day
from practice.models import Practice, User
from recipes.dishes import batch_portion, serving_said
from recipes.facts import facts_of
from recipes.models import Recipe

PINCH = "a pinch"
MULTIPLES = (0.5, 1, 1.5, 2, 3)


class Measures(TestCase):
    @classmethod
    def setUpTestData(cls):
        fill()
        cls.practice = Practice.objects.get(name="Tern Point Wellness")
        cls.marin = User.objects.get(username="marin")

    def run(self, result=None):
        practice = Practice.objects.filter(name="Tern Point Wellness").first()
        with scope(practice=practice), foods_of_practice(practice):
            return super().run(result)

    def test_every_dish_is_read_back_as_it_is_said(self):
        count = 0
        for recipe in Recipe.objects.all():
            facts = facts_of(recipe)
            portion = batch_portion(recipe.title, recipe.role, facts, facts.serving.grams)
            last = 0.0
            for times in MULTIPLES:
                grams = facts.serving.grams * times
                said = measure_of(portion, grams, recipe.measures)
                if said is None or said.words == PINCH:
                    continue
                count += 1
                each = portion.ml_per_gram * facts.serving.grams
                again = read_batch_amount(said.words, facts.serving.grams, each, recipe.measures)
                with self.subTest(recipe.title, words=said.words):
                    self.assertAlmostEqual(again.grams, said.grams, delta=0.01 * said.grams)
                    # words are rounded to an eighth of a cup or a quarter of a spoon
                    self.assertLess(abs(said.grams - grams), max(0.13 * grams, 33 / 8 * 10))
                    self.assertGreaterEqual(said.grams, last)
                last = said.grams
        self.assertGreater(count, 150)

    def test_a_food_has_one_measure_wherever_it_stands(self):
        """Of a bowl, of the day that has it, of twice of it: by the grams alone."""
        count = 0
        for bowl in Bowl.objects.all():
            for part in reckon_bowl(bowl).parts:
                food = part.portion.food
                if part.measure is None or part.measure.words == PINCH:
                    continue
                for times in MULTIPLES:
                    grams = part.row.grams * times
                    words = say(part.portion.times(times), grams)
                    self.assertEqual(words, say(part.portion, grams))
                    if food is not None:
                        again = read_amount(words, food)
                        self.assertLess(abs(again.grams - grams), max(0.35 * grams, 8.0), words)
                    count += 1
        self.assertGreater(count, 100)

    def test_the_paper_says_what_the_screen_says(self):
        self.client.force_login(self.marin, backend="django.contrib.auth.backends.ModelBackend")
        bowl = next(one for one in Bowl.objects.all() if len(reckon_bowl(one).parts) >= 4)
        parts = reckon_bowl(bowl).parts
        screen = self.client.get(
            reverse("bowls:page", args=[bowl.pk]), follow=True
        ).content.decode()
        paper = self.client.get(
            reverse("handouts:bowl", args=[bowl.pk]), follow=True
        ).content.decode()
        for part in parts:
            if part.measure is None:
                continue
            with self.subTest(part.name):
                self.assertIn(part.measure.words, screen)
                self.assertIn(part.measure.words, paper)

    def test_a_days_bowl_at_twice_its_size_says_twice_its_grams(self):
        for day in Day.objects.all()[:40]:
            for entry in reckon_day(day).entries:
                if entry.kind != "bowl":
                    continue
                parts = {part.name: part for part in reckon_bowl(entry.row.bowl).parts}
                for words in getattr(entry, "parts", []):
                    name = next((one for one in parts if words.startswith(one)), None)
                    if name is None:
                        continue
                    said = say(parts[name].portion, parts[name].portion.grams * entry.row.amount)
                    if said:
                        self.assertIn(re.sub(BOUND, " ", said), re.sub(BOUND, " ", words))

    def test_a_serving_is_said_once(self):
        for recipe in Recipe.objects.all()[:20]:
            facts = facts_of(recipe)
            portion = batch_portion("", recipe.role, facts, facts.serving.grams)
            said = serving_said(recipe.role, facts)
            self.assertEqual(
                said and said.words, say(portion, facts.serving.grams, recipe.measures) or None
            )
