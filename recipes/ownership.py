"""Whose a recipe is: everybody's, or one client's alone."""

from django.db.models import Q, QuerySet

from clients.models import Client
from recipes.models import Recipe


def open_to(client: Client | None) -> QuerySet[Recipe]:
    """The recipes that may be planned for a client: everybody's, and the client's own, those
    first."""
    return (
        Recipe.objects.filter(Q(client=None) | Q(client=client), archived=None).order_by(
            "client", "title"
        )
        if client
        else Recipe.objects.filter(client=None, archived=None)
    )
