"""Reading takes no lock; a write waits its turn; a failure is told to who made it."""

import sqlite3
import threading

from django.db import connection
from django.test import Client as Browser
from django.test import TransactionTestCase
from django.urls import reverse
from django_scopes import scope

from bowls.models import Bowl
from clients.models import Client, WeighIn
from demo.tests.demo_rows import fill
from nutrition.tests.thorough import thorough
from planner.models import Day
from practice.models import Practice, User
from recipes.models import Recipe


@thorough
class Locks(TransactionTestCase):
    def setUp(self):
        fill()
        self.user = User.objects.get(username="marin")
        self.browser = Browser()
        self.browser.force_login(self.user, backend="django.contrib.auth.backends.ModelBackend")
        with scope(practice=Practice.objects.get(name="Tern Point Wellness")):
            self.row = Client.objects.get(name="Wren Adeyemi-Lund")
            self.bowl = Bowl.objects.filter(client=self.row).first()
            self.day = Day.objects.filter(client=self.row).first()
            self.recipe = Recipe.objects.get(title="Dill barley with white beans")

    def held(self):
        """Another connection that holds the write lock."""
        other = sqlite3.connect(connection.settings_dict["NAME"], isolation_level=None, timeout=0.1)
        other.execute("BEGIN IMMEDIATE")
        self.addCleanup(other.close)
        return other

    def test_every_page_is_read_while_somebody_writes(self):
        ahead = f"/for/{self.row.pk}"
        pages = [
            "/clients/",
            f"{ahead}/clients/{self.row.pk}/",
            f"{ahead}/clients/{self.row.pk}/edit/",
            f"{ahead}/bowls/",
            f"{ahead}/bowls/{self.bowl.pk}/?rim=sodium_mg",
            f"{ahead}/bowls/{self.bowl.pk}/balance/",
            f"{ahead}/bowls/{self.bowl.pk}/swaps/",
            f"{ahead}/days/",
            f"{ahead}/days/{self.day.pk}/",
            f"{ahead}/days/{self.day.pk}/balance/",
            f"{ahead}/days/{self.day.pk}/swaps/",
            f"{ahead}/recipes/",
            f"{ahead}/recipes/{self.recipe.pk}/",
            f"{ahead}/recipes/{self.recipe.pk}/swaps/",
            f"{ahead}/recipes/{self.recipe.pk}/versions/",
            f"{ahead}/pantry/?q=kale",
            f"{ahead}/compare/",
            f"{ahead}/handouts/days/{self.day.pk}/",
            "/schools/",
            "/practice/",
            "/sign-in/",
        ]
        other = self.held()
        for address in pages:
            with self.subTest(address):
                response = self.browser.get(address)
                self.assertIn(response.status_code, (200, 302))
                if response.status_code == 302:
                    self.assertEqual(address, "/sign-in/")
        preview = self.browser.post("/recipes/preview/", {"text": "1 cup millet", "servings": "2"})
        self.assertEqual(preview.status_code, 200, "what is only reckoned is no write either")
        other.execute("ROLLBACK")

    def test_a_write_waits_for_its_turn(self):
        other, done = self.held(), []

        def weigh():
            browser = Browser()
            browser.cookies = self.browser.cookies
            done.append(
                browser.post(
                    reverse("clients:weigh-in", args=[self.row.pk]),
                    {"date": "2026-01-05", "kg": "70"},
                ).status_code
            )
            connection.close()

        writing = threading.Thread(target=weigh)
        writing.start()
        writing.join(0.8)
        self.assertTrue(writing.is_alive(), "it waits")
        other.execute("ROLLBACK")
        writing.join(300)
        self.assertEqual(done, [302])
        with scope(practice=self.row.practice):
            self.assertTrue(WeighIn.objects.filter(client=self.row, date="2026-01-05").exists())

    def test_what_a_script_sends_is_told_what_became_of_it(self):
        sent = {"Sent-By": "page"}
        saved = self.browser.post(
            reverse("clients:weigh-in", args=[self.row.pk]),
            {"date": "2026-01-06", "kg": "70"},
            headers=sent,
        )
        self.assertEqual(
            (saved.status_code, saved["Go-To"]), (204, f"/for/{self.row.pk}/clients/{self.row.pk}/")
        )
        ended = Browser().post(
            reverse("clients:weigh-in", args=[self.row.pk]),
            {"date": "2026-01-06", "kg": "70"},
            headers=sent,
        )
        self.assertEqual(ended.status_code, 401)
        live = Browser().get(
            reverse("bowls:page", args=[self.bowl.pk]), headers={"HX-Request": "true"}
        )
        self.assertEqual(live.status_code, 401)
        careful = Browser(enforce_csrf_checks=True)
        careful.force_login(self.user, backend="django.contrib.auth.backends.ModelBackend")
        refused = careful.post(
            reverse("clients:weigh-in", args=[self.row.pk]),
            {"date": "2026-01-06", "kg": "70"},
            headers=sent,
        )
        self.assertEqual(refused.status_code, 403)
        self.assertIn("Nothing was saved", refused.content.decode())
