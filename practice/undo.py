"""Records made of rows, whose changes can be undone step by step: the rows are put back as they
were before each."""

from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from datetime import datetime
from typing import Any, Self

from django.db import models, transaction
from django.utils import timezone

from practice.models import User
from practice.requests import SignedInRequest
from practice.versioned import StaleSave, Versioned, page_in, version_in

KEPT = 30


def asked_by(request: SignedInRequest) -> tuple[int | None, User, str]:
    """Which version a change was asked for, by whom, and from which open page."""
    return version_in(request.POST.get("version")), request.user, page_in(request)


def row_of(row: models.Model, fields: Iterable[str]) -> dict[str, Any]:
    """A row as it is kept."""
    return {name: getattr(row, name) for name in fields} | {"pk": row.pk}


class Undoable(Versioned):
    """Keeps the state of its rows before each change, newest last, with who made the change.
    `undo_rows` names the rows, `undo_fields` what is kept of each, `undo_words` says one of them in
    words.
    """

    history: Any = models.JSONField(default=list, blank=True)

    undo_rows = ""
    undo_fields: tuple[str, ...] = ()

    class Meta:
        abstract = True

    def undo_words(self, row: dict) -> str:
        """A row as it was kept, in words."""
        raise NotImplementedError

    def _rows_now(self) -> list[dict]:
        return [row_of(row, self.undo_fields) for row in getattr(self, self.undo_rows).all()]

    @contextmanager
    def changing(
        self, version: int | None, by: User, page: str = "", remember: bool = True
    ) -> Iterator[Self]:
        """One change in one short transaction: the record as it is stored, its rows kept for undo,
        its version raised.

        Raises StaleSave where `version`, the one that the page showed, is no longer the stored one.
        None does not ask. What the same open `page` changed meanwhile is no conflict: a second
        click is sent before the first is answered.
        """
        with transaction.atomic():
            stored = self.stored()
            stored._refuse_stale(version, page)
            if remember:
                kept = {
                    "version": stored.version,
                    "by": by.pk,
                    "who": by.shown_name,
                    "at": timezone.now().isoformat(),
                    "page": page,
                    "rows": stored._rows_now(),
                }
                stored.history = [*stored.history, kept][-KEPT:]
            stored.version += 1
            stored.save(update_fields=["history", "version", "updated"])
            yield stored

    @property
    def last_change(self) -> tuple[str, int, datetime] | None:
        """Who made the last change that can be undone, by name and key, and when."""
        if not self.history:
            return None
        kept = self.history[-1]
        return kept["who"], kept["by"], datetime.fromisoformat(kept["at"])

    def _refuse_stale(self, version: int | None, page: str) -> None:
        if version is None or version == self.version:
            return
        since = [kept for kept in self.history if kept["version"] >= version]
        if not page or not since or any(kept.get("page") != page for kept in since):
            raise StaleSave(self)

    def step_back(self, version: int | None, page: str = "") -> str:
        """Put the rows back as they were before the last change, and say whose it was; empty when
        there is none. Raises StaleSave."""
        with transaction.atomic():
            stored = self.stored()
            stored._refuse_stale(version, page)
            if not stored.history:
                return ""
            kept = stored.history.pop()
            rows = getattr(stored, self.undo_rows)
            rows.exclude(pk__in=[row["pk"] for row in kept["rows"]]).delete()
            for row in kept["rows"]:
                # a state kept before a field was there leaves it as it is
                values = {name: row[name] for name in self.undo_fields if name in row}
                if self._still_there(values):
                    rows.update_or_create(pk=row["pk"], defaults=values)
            stored.version += 1
            stored.save(update_fields=["history", "version", "updated"])
            return kept["who"]

    def changed_since(self, version: int) -> list[str]:
        """What became of the rows since a version, in words; empty where that version is no longer
        kept."""
        kept = next((kept for kept in self.history if kept["version"] >= version), None)
        if kept is None:
            return []
        before, now = (
            {row["pk"]: self.undo_words(row) for row in rows}
            for rows in (kept["rows"], self._rows_now())
        )
        out = [f"{before[pk]} → {now[pk]}" for pk in before if pk in now and before[pk] != now[pk]]
        return [
            *out,
            *(f"taken out: {before[pk]}" for pk in before if pk not in now),
            *(f"added: {now[pk]}" for pk in now if pk not in before),
        ]

    def _still_there(self, values: dict[str, object]) -> bool:
        """Whether what a kept row points to was not deleted meanwhile."""
        meta = getattr(self, self.undo_rows).model._meta
        for name, value in values.items():
            if name.endswith("_id") and value:
                pointed = meta.get_field(name.removesuffix("_id")).related_model
                if not pointed._base_manager.filter(pk=value).exists():
                    return False
        return True
