"""What the tests of several areas share: two practices, a client, a recipe, a bowl, a day."""

import html
import re
from datetime import date

from django.test import Client as Browser
from django.test import RequestFactory, TestCase
from django_scopes import scope

from bowls.models import Bowl, BowlPart
from clients.models import Client
from planner.models import Day, DayEntry
from practice.models import Practice, User
from recipes.models import Recipe


class GoingWhereItIsSent(Browser):
    """Follows a page that is somebody's to the address with that client in it, and takes what is
    between words for one space, as a browser does."""

    def request(self, **request):
        response = super().request(**request)
        if not response.streaming and response.get("Content-Type", "").startswith("text/html"):
            response.content = as_shown(response.content)
        return response

    def get(self, path, *args, **kwargs):
        response = super().get(path, *args, **kwargs)
        there = response.get("Location", "")
        return (
            super().get(there, headers=kwargs.get("headers"))
            if response.status_code == 302 and there.startswith("/for/")
            else response
        )


# Where line breaks are not what they are elsewhere.
_TYPED = re.compile(rb"(<textarea.*?</textarea>)", re.S)


def as_shown(page: bytes) -> bytes:
    """A page with one space between its words, but for what was typed."""
    pieces = _TYPED.split(page)
    return b"".join(
        piece if piece.startswith(b"<textarea") else re.sub(rb"\s+", b" ", piece)
        for piece in pieces
    )


class PracticeCase(TestCase):
    """Signed in as one practitioner; `other` belongs to a second practice."""

    client_class = GoingWhereItIsSent

    @classmethod
    def setUpTestData(cls):
        cls.practice = Practice.objects.create(name="Tern Point Wellness")
        cls.user = User.objects.create_user(
            "marin", password="a-long-password", practice=cls.practice
        )
        cls.other_practice = Practice.objects.create(name="Gull Rock")
        cls.other_user = User.objects.create_user(
            "solveig", password="a-long-password", practice=cls.other_practice
        )
        with scope(practice=cls.practice):
            cls.client_row = Client.objects.create(
                practice=cls.practice,
                name="Osk Brannigan",
                sex="male",
                birth_year=date.today().year - 45,
                height_cm=183,
                weight_kg=100,
                activity="low_active",
                goal="lose",
                allergies=["sesame"],
            )
            cls.recipe = Recipe.objects.create(
                practice=cls.practice,
                title="Dill barley",
                role="base",
                servings=4,
                text="1 cup pearl barley, dry\n100 g leeks\n1/4 tsp salt",
            )
            cls.bowl = Bowl.objects.create(
                practice=cls.practice, name="Harbor bowl", client=cls.client_row, vessel_ml=1000
            )
            cls.base = BowlPart.objects.create(
                bowl=cls.bowl, role="base", recipe=cls.recipe, grams=150, place=0
            )
            cls.kale = BowlPart.objects.create(
                bowl=cls.bowl, role="greens", food="kale-raw", grams=60, place=1
            )
            cls.tofu = BowlPart.objects.create(
                bowl=cls.bowl, role="protein", food="tofu-firm", grams=150, place=2
            )
            cls.day = Day.objects.create(
                practice=cls.practice, client=cls.client_row, date=date(2026, 11, 23)
            )
            cls.entry = DayEntry.objects.create(day=cls.day, meal="lunch", bowl=cls.bowl, amount=1)

    def setUp(self):
        self.client.force_login(self.user, backend="django.contrib.auth.backends.ModelBackend")

    def run(self, result=None):
        with scope(practice=self.practice):
            return super().run(result)

    def for_client(self, address):
        """The address for the client of the case."""
        return f"/for/{self.client_row.pk}{address}"

    def post(self, address, data, htmx=False):
        return self.client.post(address, data, headers={"HX-Request": "true"} if htmx else None)


def offers(page):
    """Words and tokens of all the swaps on a page that can be taken."""
    swap = r'<li class="swap">.*?<p class="font-semibold">(.*?)</p>.*?name="change" value="(.*?)"'
    return [
        (html.unescape(words), token)
        for words, token in re.findall(swap, page.content.decode(), re.S)
    ]


def asked_for(client, user=None):
    """A request for a client, as a page of theirs would send it."""
    request = RequestFactory().get("/")
    request.for_client, request.user, request.htmx = client, user, False
    return request
