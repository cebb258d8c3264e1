"""A real practice is created without demo data; what is refused or gone has a page in our look."""

from io import StringIO
from unittest.mock import patch

from django.core.management import CommandError, call_command
from django.test import Client, TestCase, override_settings
from django.urls import reverse

from practice.models import Practice, User

PASSWORD = "a long walk on the pier"


def create(*args, password=PASSWORD):
    out = StringIO()
    with patch.dict("os.environ", {"ROUNDPANTRY_PASSWORD": password}):
        call_command("create_practice", *args, stdout=out)
    return out.getvalue()


class CreatePractice(TestCase):
    def test_a_practice_and_its_owner_who_can_work_at_once(self):
        said = create("Shingle Street Kitchen", "ada", "--measures", "metric", "--town", "Shingle")
        self.assertIn("Sign in as ada", said)
        practice = Practice.objects.get()
        self.assertEqual((practice.measures, practice.town), ("metric", "Shingle"))
        browser = Client()
        self.assertTrue(
            browser.post("/sign-in/", {"username": "ada", "password": PASSWORD}).status_code == 302
        )
        page = browser.get(reverse("clients:list"))
        self.assertContains(page, "Begin here")

    def test_no_demo_data_come_into_a_practice_of_ones_own(self):
        create("Shingle Street Kitchen", "ada")
        out = StringIO()
        call_command("demo", stdout=out)
        self.assertEqual(Practice.objects.count(), 1)
        self.assertNotIn("Sign in as", out.getvalue(), "nobody of the demo can sign in here")

    def test_what_cannot_be_is_refused_and_leaves_nothing(self):
        create("Shingle Street Kitchen", "ada")
        for args, password, why in (
            (("Shingle street kitchen", "eve"), PASSWORD, "already"),
            (("Other", "Ada"), PASSWORD, "already"),
            (("Other", "eve"), "short", "too short"),
            ((" ", "eve"), PASSWORD, "need a name"),
        ):
            with self.subTest(args), self.assertRaisesRegex(CommandError, why):
                create(*args, password=password)
        self.assertEqual((Practice.objects.count(), User.objects.count()), (1, 1))


@override_settings(DEBUG=False)
class WrongPages(TestCase):
    def setUp(self):
        create("Shingle Street Kitchen", "ada")
        self.client.post("/sign-in/", {"username": "ada", "password": PASSWORD})

    def test_not_found(self):
        for address in ("/recipes/999/", "/nowhere/", "/clients/12345/"):
            page = self.client.get(address)
            self.assertContains(page, "Not there", status_code=404)
            self.assertContains(page, "Round Pantry", status_code=404)
        told = self.client.get("/recipes/999/", headers={"HX-Request": "true"})
        self.assertEqual(told["Content-Type"].split(";")[0], "text/plain")

    def test_failed(self):
        self.client.raise_request_exception = False
        with patch("practice.views.PracticeForm", side_effect=RuntimeError):
            page = self.client.get(reverse("practice"))
        self.assertContains(page, "That did not work", status_code=500)

    def test_not_for_you(self):
        User.objects.update(practice=None)
        page = self.client.get(reverse("clients:list"))
        self.assertContains(page, "Not for you", status_code=403)
