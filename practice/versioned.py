"""Records that refuse a stale save."""

from collections.abc import Iterable
from typing import Any, Self

from django.db import models, transaction
from django.http import HttpRequest
from django_scopes import get_scope

from record.recorded import Recorded


class StaleSave(Exception):
    """Somebody else saved the record after it was opened. `current` is what is stored now."""

    current: Any

    def __init__(self, current: models.Model) -> None:
        super().__init__("The record was changed since it was opened.")
        self.current = current


class Versioned(Recorded):
    """A record that carries a version, raised by every save of a person's."""

    version = models.PositiveIntegerField(default=1, editable=False)
    _version_stored: int | None = None
    updated = models.DateTimeField(auto_now=True)

    class Meta:
        abstract = True

    @classmethod
    def from_db(cls, db: Any, field_names: Any, values: Any) -> Self:  # type: ignore[override]
        record = super().from_db(db, field_names, values)
        record._version_stored = record.__dict__.get("version")
        # whoever asks is of the practice, which is at hand
        ours = get_scope().get("practice")
        if ours is not None and record.__dict__.get("practice_id") == ours.pk:
            record._state.fields_cache["practice"] = ours
        return record

    def save(self, *args, update_fields: Iterable[str] | None = None, **kwargs) -> None:
        """Every save of a record that is there raises its version, whoever calls it."""
        if not self._state.adding and self.version == getattr(self, "_version_stored", None):
            self.version += 1
        if update_fields is not None:
            update_fields = {*update_fields, "version", "updated"}
        super().save(*args, update_fields=update_fields, **kwargs)
        self._version_stored = self.version

    def stored(self) -> Self:
        """The record as it is stored now, with what was fetched around it while it is still what it
        points to."""
        stored = type(self)._base_manager.get(pk=self.pk)
        for field in self._meta.concrete_fields:
            if not isinstance(field, models.ForeignKey) or not field.is_cached(self):
                continue
            if getattr(stored, field.attname) == getattr(self, field.attname):
                setattr(stored, field.name, getattr(self, field.name))
        return stored

    def save_over(self, version: int) -> None:
        """Save if the stored version is still `version`. Raises StaleSave, writing nothing.

        The look and the write are one transaction, which takes the write lock when it begins:
        nothing comes between them.
        """
        with transaction.atomic():
            stored = self.stored()
            if stored.version != version:
                raise StaleSave(stored)
            self.version = version + 1
            self.save()


def version_in(text: str | None) -> int | None:
    """The version that a form carries; None for none, 0 for what is no version."""
    if text is None:
        return None
    return int(text) if text.isascii() and text.isdigit() and len(text) < 10 else 0


def page_in(request: HttpRequest) -> str:
    """Which open page a request was sent from; empty where it does not say."""
    return request.headers.get("Page-Id", "")[:40]
