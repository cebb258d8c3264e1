"""Who reaches what: nobody without signing in, no practice another's records."""

import threading

from django.test import Client as Browser
from django.urls import get_resolver, reverse
from django_scopes import ScopeError, scopes_disabled

from clients.models import Client
from planner.testing import DayCase
from practice.models import User
from recipes.models import Recipe
from roundpantry import settings as own

SAMPLES = {
    "kind": "txt",
    "number": 1,
    "code": "strength",
    "dismissal": 1,
    "pk": 1,
    "part": 1,
    "entry": 1,
    "key": "protein_g",
    "slug": "kale-raw",
    "weighed": 1,
    "of": "bowl-1",
    "job": 1,
    "on": "2026-11-20",
    "uidb64": "MQ",
    "token": "none",
}
# reached without signing in: the sign-in, and what leads to it
OPEN = "/sign-in/"


def addresses(resolver=None, prefix=""):
    """Every address of the application, with sample values in it."""
    for pattern in (resolver or get_resolver()).url_patterns:
        route = prefix + str(pattern.pattern)
        if hasattr(pattern, "url_patterns"):
            yield from addresses(pattern, route)
        else:
            for name, converter in pattern.pattern.converters.items():
                kind = (
                    type(converter)
                    .__name__.replace("Converter", "")
                    .lower()
                    .replace("string", "str")
                )
                route = route.replace(f"<{kind}:{name}>", str(SAMPLES[name]))
                route = route.replace(f"<{name}>", str(SAMPLES[name]))
            yield f"/{route}"


class Access(DayCase):
    def test_nothing_is_readable_without_signing_in(self):
        found = list(addresses())
        self.assertGreater(len(found), 20)
        stranger = Browser()
        for address in found:
            open_ = address.startswith(OPEN) or address in ("/health/", "/ready/")
            if open_ and "registration" not in address:
                continue
            for method in (stranger.get, stranger.post):
                with self.subTest(address, method=method.__name__):
                    response = method(address)
                    if address.startswith("/with/"):
                        # a client's link says by itself whether it opens: shared_with/tests
                        self.assertIn(response.status_code, (404, 405))
                        continue
                    self.assertEqual(response.status_code, 302)
                    self.assertTrue(response.url.startswith("/sign-in/"), response.url)

    def test_another_practices_records_do_not_exist(self):
        own = [
            reverse("clients:page", args=[self.client_row.pk]),
            reverse("clients:edit", args=[self.client_row.pk]),
            reverse("clients:target", args=[self.client_row.pk, "protein_g"]),
            reverse("recipes:page", args=[self.recipe.pk]),
            reverse("recipes:versions", args=[self.recipe.pk]),
            reverse("recipes:export", args=[self.recipe.pk, "csv"]),
            reverse("recipes:scale", args=[self.recipe.pk]),
            reverse("recipes:cook", args=[self.recipe.pk]),
            reverse("bowls:page", args=[self.bowl.pk]),
            reverse("bowls:find", args=[self.bowl.pk]),
            reverse("bowls:balance", args=[self.bowl.pk]),
            reverse("bowls:swap", args=[self.bowl.pk]),
            reverse("bowls:sauce", args=[self.recipe.pk]),
            reverse("recipes:swap", args=[self.recipe.pk]),
            reverse("planner:balance", args=[self.day.pk]),
            reverse("planner:swap", args=[self.day.pk]),
            reverse("planner:page", args=[self.day.pk]),
            reverse("planner:find", args=[self.day.pk]),
            reverse("handouts:bowl", args=[self.bowl.pk]),
            reverse("handouts:day", args=[self.day.pk]),
            *(f"/for/{self.client_row.pk}/journal/{page}/" for page in ("stall", "blood", "eaten")),
        ]
        writes = [
            (
                reverse("clients:weigh-in", args=[self.client_row.pk]),
                {"date": "2026-11-20", "kg": "99"},
            ),
            (reverse("clients:use-computed", args=[self.client_row.pk, "protein_g"]), {}),
            (
                reverse("clients:shares", args=[self.client_row.pk]),
                {"breakfast": "20", "lunch": "40", "dinner": "40"},
            ),
            (reverse("clients:watched", args=[self.client_row.pk]), {"watched": "iron_mg"}),
            (
                reverse("clients:retarget", args=[self.client_row.pk]),
                {"takes_effect": "2026-11-20", "why": "x"},
            ),
            (
                reverse("clients:dismiss", args=[self.client_row.pk]),
                {"code": "warfarin", "why": "x"},
            ),
            (f"/for/{self.client_row.pk}/journal/days/2026-11-20/change/", {"text": "an apple"}),
            (f"/for/{self.client_row.pk}/journal/visits/new/", {"form": "full"}),
            (reverse("planner:newer-targets", args=[self.day.pk]), {}),
            (reverse("bowls:change", args=[self.bowl.pk, self.kale.pk]), {"remove": "1"}),
            (reverse("bowls:add", args=[self.bowl.pk]), {"food": "kale-raw"}),
            (reverse("bowls:undo", args=[self.bowl.pk]), {}),
            (
                reverse("bowls:balance", args=[self.bowl.pk]),
                {"take": str(self.kale.pk), f"grams-{self.kale.pk}": "0"},
            ),
            (reverse("bowls:swap", args=[self.bowl.pk]), {"change": "x"}),
            (reverse("recipes:swap", args=[self.recipe.pk]), {"change": "x"}),
            (
                reverse("planner:balance", args=[self.day.pk]),
                {"take": str(self.entry.pk), f"grams-{self.entry.pk}": "0"},
            ),
            (reverse("planner:swap", args=[self.day.pk]), {"change": "x"}),
            (reverse("recipes:keep", args=[self.recipe.pk]), {"why": "x"}),
            (reverse("recipes:back", args=[self.recipe.pk, 1]), {}),
            (reverse("bowls:settings", args=[self.bowl.pk]), {"name": "x", "vessel_ml": "500"}),
            (reverse("planner:change", args=[self.day.pk, self.entry.pk]), {"remove": "1"}),
            (reverse("planner:add", args=[self.day.pk]), {"food": "kale-raw"}),
            (reverse("planner:undo", args=[self.day.pk]), {}),
        ]
        for address in own:
            self.assertEqual(self.client.get(address).status_code, 200, address)
        stranger = Browser()
        stranger.force_login(self.other_user, backend="django.contrib.auth.backends.ModelBackend")
        for address in own:
            with self.subTest(address):
                self.assertEqual(stranger.get(address).status_code, 404)
        for address, data in writes:
            with self.subTest(address):
                self.assertEqual(stranger.post(address, data).status_code, 404)
        self.assertEqual(self.bowl.parts.count(), 3)
        for address in ("/clients/", "/recipes/", "/bowls/", "/days/"):
            self.assertNotContains(stranger.get(address), "Osk")

    def test_another_practices_recipe_cannot_be_put_into_ones_own_bowl(self):
        with scopes_disabled():
            theirs = Recipe.objects.create(
                practice=self.other_practice, title="Theirs", text="100 g walnuts"
            )
        response = self.post(reverse("bowls:add", args=[self.bowl.pk]), {"recipe": theirs.pk})
        self.assertEqual(response.status_code, 404)

    def test_a_query_outside_a_practice_fails_loudly(self):
        caught = []

        def query():
            try:
                Client.objects.count()
            except ScopeError as error:
                caught.append(error)

        # the scope belongs to the thread of a request: another thread has none
        thread = threading.Thread(target=query)
        thread.start()
        thread.join()
        self.assertEqual(len(caught), 1)

    def test_sign_in_and_out(self):
        browser = Browser()
        page = browser.post("/sign-in/", {"username": "marin", "password": "wrong"})
        self.assertContains(page, "do not go together")
        self.assertContains(page, 'value="marin"')
        done = browser.post(
            "/sign-in/", {"username": "marin", "password": "a-long-password", "next": "/bowls/"}
        )
        self.assertRedirects(done, "/bowls/", fetch_redirect_response=False)
        browser.post("/sign-out/")
        self.assertEqual(browser.get("/bowls/").status_code, 302)

    def test_passwords_are_kept_with_argon2(self):
        # the tests themselves make people with something faster
        self.assertEqual(own.PASSWORD_HASHERS, ["django.contrib.auth.hashers.Argon2PasswordHasher"])

    def test_without_a_practice_nothing_is_reached(self):
        User.objects.create_user("newcomer", password="a-long-password")
        browser = Browser()
        browser.force_login(
            User.objects.get(username="newcomer"),
            backend="django.contrib.auth.backends.ModelBackend",
        )
        self.assertEqual(browser.get("/clients/").status_code, 403)

    def test_no_inline_script_or_style_is_allowed(self):
        policy = self.client.get("/clients/").headers["Content-Security-Policy"]
        self.assertIn("script-src 'self'", policy)
        self.assertNotIn("unsafe", policy)
