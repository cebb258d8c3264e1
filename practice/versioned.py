"""Records that refuse a stale save."""

from django.db import models


class StaleSave(Exception):
    """Somebody else saved the record after it was opened. `current` is what is stored now."""

    def __init__(self, current: models.Model) -> None:
        super().__init__("The record was changed since it was opened.")
        self.current = current


class Versioned(models.Model):
    """A record that carries a version, raised by every save."""

    version = models.PositiveIntegerField(default=1, editable=False)
    updated = models.DateTimeField(auto_now=True)

    class Meta:
        abstract = True

    def save_over(self, version: int) -> None:
        """Save if the stored version is still `version`. Raises StaleSave, writing nothing."""
        manager = type(self).objects
        if not manager.filter(pk=self.pk, version=version).update(version=version + 1):
            raise StaleSave(manager.get(pk=self.pk))
        self.version = version + 1
        self.save()
