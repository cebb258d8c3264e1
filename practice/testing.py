"""What the tests of every area stand on: two practices, and a browser that is signed in to one."""

import re

from django.test import Client as Browser
from django.test import TestCase
from django_scopes import scope

from practice.models import Practice, User
from practice.roles import OWNER


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
            "marin", password="a-long-password", practice=cls.practice, role=OWNER
        )
        cls.other_practice = Practice.objects.create(name="Gull Rock")
        cls.other_user = User.objects.create_user(
            "solveig", password="a-long-password", practice=cls.other_practice, role=OWNER
        )
        with scope(practice=cls.practice):
            cls.make_rows()

    @classmethod
    def make_rows(cls):
        """What is there before each test: each later stage adds its own."""

    def setUp(self):
        self.client.force_login(self.user, backend="django.contrib.auth.backends.ModelBackend")

    def run(self, result=None):
        with scope(practice=self.practice):
            return super().run(result)

    def post(self, address, data, htmx=False):
        return self.client.post(address, data, headers={"HX-Request": "true"} if htmx else None)
