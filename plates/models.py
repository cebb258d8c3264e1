"""What a client ate before: a dish of named foods, animal foods among them, for comparison only."""

from django.db import models

from clients.models import Client
from practice.models import Practice
from practice.removal import PresentManager, Removable
from record.recorded import ScopedManager


class OldDish(Removable):
    """A dish of an old habit. Its `parts` are foods by slug with their grams and range; it never
    becomes a recipe, a bowl or a meal."""

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    client = models.ForeignKey(
        Client, on_delete=models.CASCADE, null=True, blank=True, related_name="old_dishes"
    )
    name = models.CharField(max_length=120)
    parts = models.JSONField(default=list, blank=True)

    objects = ScopedManager(_manager_class=PresentManager, practice="practice")
    with_removed = ScopedManager(practice="practice")

    class Meta:
        ordering = ["name", "pk"]

    def __str__(self) -> str:
        return self.name
