"""A client for the tests of this area and of later ones, and a request for them."""

from datetime import date

from django.test import RequestFactory

from clients.models import Client
from practice.testing import PracticeCase


class ClientCase(PracticeCase):
    """A practice with one client."""

    @classmethod
    def make_rows(cls):
        super().make_rows()
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

    def for_client(self, address):
        """The address for the client of the case."""
        return f"/for/{self.client_row.pk}{address}"


def asked_for(client, user=None):
    """A request for a client, as a page of theirs would send it."""
    request = RequestFactory().get("/")
    request.for_client, request.user, request.htmx = client, user, False
    return request
