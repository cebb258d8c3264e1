"""A practice's own copies of schools."""

from django.db import models

from practice.models import Practice, User
from practice.removal import PresentManager, Removable
from practice.versioned import Versioned
from record.recorded import ScopedManager


class OwnSchool(Versioned, Removable):
    """A copy of a school that the practice changed. `data` has the shape of a school in
    nutrition/data/schools.toml."""

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    base = models.CharField(max_length=40)
    name = models.CharField(max_length=80)
    data = models.JSONField()
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    made = models.DateTimeField(auto_now_add=True)

    objects = ScopedManager(_manager_class=PresentManager, practice="practice")
    with_removed = ScopedManager(practice="practice")

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name

    @property
    def code(self) -> str:
        """How a client's record names it. It begins with the school it was copied from, whose
        cautions hold for it too."""
        return f"{self.base}:{self.pk}"
