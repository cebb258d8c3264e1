"""What is sent is worked off once, read whole, and led nowhere else."""

from django.core.cache import cache
from django.urls import reverse

from clients.models import Client
from planner.testing import DayCase
from recipes.models import Recipe


class Once(DayCase):
    def setUp(self):
        super().setUp()
        cache.clear()

    def make(self, title, key):
        return self.client.post(
            reverse("recipes:new"),
            {"title": title, "role": "dish", "servings": "2", "text": "100 g kale", "save": "1"},
            headers={"Form-Key": key},
        )

    def test_a_form_that_is_sent_twice_is_answered_twice_and_done_once(self):
        first, second = self.make("Ferry pot", "one"), self.make("Ferry pot", "one")
        self.assertEqual((first.status_code, second.status_code), (302, 302))
        self.assertEqual(first["Location"], second["Location"])
        self.assertEqual(Recipe.objects.filter(title="Ferry pot").count(), 1)

    def test_the_same_words_of_another_form_are_another(self):
        copy = reverse("recipes:copy", args=[self.recipe.pk])
        before = Recipe.objects.count()
        for key in ("one", "two", "two"):
            self.client.post(copy, headers={"Form-Key": key})
        self.assertEqual(Recipe.objects.count(), before + 2)

    def test_what_was_refused_may_be_sent_again(self):
        refused = self.make("", "one")
        self.assertEqual(refused.status_code, 400)
        again = self.make("", "one")
        self.assertEqual(again.status_code, 400)
        self.assertContains(again, "required", status_code=400)


class WellFormed(DayCase):
    def test_heads_alone_have_no_body(self):
        for name in ("clients:list", "recipes:list", "pantry:own-csv"):
            with self.subTest(name):
                answer = self.client.head(reverse(name))
                self.assertEqual((answer.status_code, answer.content), (200, b""))

    def test_letters_that_cannot_be_read_are_refused(self):
        for letters, status in (("utf-8", 302), ("no-such-letters", 400), ("utf-7", 400)):
            answer = self.client.generic(
                "POST",
                reverse("bowls:new"),
                f"name=Bowl+{letters}&vessel_ml=900".encode(),
                content_type=f"application/x-www-form-urlencoded; charset={letters}",
            )
            with self.subTest(letters):
                self.assertEqual(answer.status_code, status)

    def test_nobody_is_led_to_another_place(self):
        weigh = reverse("clients:weigh-in", args=[self.client_row.pk])
        for where in ("https://example.org/", "//example.org", "javascript:alert(1)", "/\\example"):
            answer = self.client.post(weigh, {"kg": "99", "date": "", "next": where})
            with self.subTest(where):
                self.assertNotIn("example", answer.get("Location", ""))
                self.assertNotIn("javascript", answer.get("Location", ""))


class NothingCut(DayCase):
    def test_a_field_says_how_much_it_takes_and_cuts_nothing(self):
        page = self.client.get(reverse("clients:edit", args=[self.client_row.pk]))
        self.assertContains(page, "data-most=")
        self.assertNotContains(page, "maxlength")
        long = "a" * 5000
        answer = self.client.post(
            reverse("clients:edit", args=[self.client_row.pk]), {"name": long, "about": long}
        )
        self.assertContains(answer, long)
        self.assertNotEqual(Client.objects.get(pk=self.client_row.pk).name[:4], "aaaa")
