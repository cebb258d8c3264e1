"""Lists ask the database a fixed number of times, however long they are, and come in pages."""

from datetime import timedelta

from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.urls import reverse
from django.utils import timezone

from bowls.models import Bowl, BowlPart
from clients.models import Client, WeighIn
from clients.plan.versions import make_version
from planner.testing import DayCase
from practice.versioned import StaleSave
from recipes.models import Recipe
from webkit.listing import ON_A_PAGE


class Lists(DayCase):
    def queries(self, name):
        address = reverse(f"{name}:list")
        self.client.get(address)
        with CaptureQueriesContext(
            connection,
        ) as asked:
            self.assertEqual(self.client.get(address).status_code, 200)
        return len(asked)

    def more_clients(self, many):
        today = timezone.localdate()
        for n in range(many):
            made = Client.objects.get(pk=self.client_row.pk)
            made.pk, made.name = None, f"Deckhand {n:03}"
            made._state.adding = True
            made.save()
            for ago in (1, 8, 15):
                WeighIn.objects.create(
                    client=made, date=today - timedelta(days=ago), kg=80 + ago / 10
                )
            make_version(made, self.user, "first")

    def test_clients(self):
        self.more_clients(2)
        few = self.queries("clients")
        self.more_clients(10)
        self.assertEqual(self.queries("clients"), few)
        self.assertLess(few, 25)

    def test_recipes_and_bowls(self):
        sauce = Recipe.objects.create(
            practice=self.practice, title="Sea sauce", text="100 g tahini\n50 g water"
        )

        def more(many, start):
            for n in range(start, start + many):
                row = Recipe.objects.create(
                    practice=self.practice,
                    title=f"Pot {n}",
                    text=f"{100 + n} g millet, dry\n30 g [recipe: Sea sauce]",
                )
                bowl = Bowl.objects.create(practice=self.practice, name=f"Bowl {n}")
                BowlPart.objects.create(bowl=bowl, recipe=row, grams=200, role="base")
                BowlPart.objects.create(bowl=bowl, food="kale-raw", grams=40, role="greens")

        more(3, 0)
        few = self.queries("recipes"), self.queries("bowls")
        more(9, 3)
        self.assertEqual((self.queries("recipes"), self.queries("bowls")), few)
        self.assertTrue(sauce.pk)

    def test_pages(self):
        self.more_clients(ON_A_PAGE + 5)
        first = self.client.get(reverse("clients:list"))
        self.assertContains(first, f"1 to {ON_A_PAGE} of")
        second = self.client.get(reverse("clients:list"), {"page": "2"})
        names = {row.client.name for row in first.context["shown"]}
        self.assertTrue(names.isdisjoint(row.client.name for row in second.context["shown"]))
        for odd in ("0", "x", "99999"):
            self.assertEqual(
                self.client.get(reverse("clients:list"), {"page": odd}).status_code, 200
            )
        found = self.client.get(reverse("clients:list"), {"q": "hand 007"})
        self.assertEqual([row.client.name for row in found.context["shown"]], ["Deckhand 007"])


class EverySaveRaisesTheVersion(DayCase):
    def test_whoever_saves(self):
        opened = Recipe.objects.get(pk=self.recipe.pk)
        other = Recipe.objects.get(pk=self.recipe.pk)
        other.save()
        with self.assertRaises(StaleSave):
            opened.save_over(opened.version)
        opened = Recipe.objects.get(pk=self.recipe.pk)
        other = Recipe.objects.get(pk=self.recipe.pk)
        other.save(update_fields=["title"])
        self.assertEqual(Recipe.objects.get(pk=self.recipe.pk).version, opened.version + 1)

    def test_taking_away_and_bringing_back(self):
        for row in (self.recipe, self.bowl, self.client_row):
            with self.subTest(row):
                opened = type(row).with_removed.get(pk=row.pk)
                row.remove(self.user)
                row.bring_back()
                with self.assertRaises(StaleSave):
                    opened.save_over(opened.version)

    def test_what_is_stored_keeps_what_was_fetched_around_it_while_it_still_holds(self):
        bowl = Bowl.objects.select_related("client", "practice").get(pk=self.bowl.pk)
        with self.assertNumQueries(1):
            stored = bowl.stored()
            self.assertEqual(stored.practice.measures, bowl.practice.measures)
        self.assertEqual(bowl.client, self.client_row)
        Bowl.objects.filter(pk=bowl.pk).update(client=None, name="Renamed meanwhile")
        stored = bowl.stored()
        self.assertEqual((stored.name, stored.client), ("Renamed meanwhile", None))
