"""Models whose every change is in the record, in the same transaction: by a save, by a set of rows
at once, by a removal, also one that follows from another."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

import django_scopes
from django.db import models, transaction
from django.db.models.signals import pre_delete

from record import chain
from record.acting import acting_now
from record.models import CHANGED

# How a record keeps itself is no change of a person's.
OF_ITSELF = frozenset({"version", "updated", "history"})


def _values(row: models.Model) -> dict[str, Any]:
    return {
        field.attname: getattr(row, field.attname)
        for field in row._meta.concrete_fields
        if not field.primary_key
    }


class RecordedRows(models.QuerySet):
    """Rows whose change at once is written down one by one."""

    model: Any

    def update(self, **values: Any) -> int:
        if (
            acting_now() is None
            or not issubclass(self.model, Recorded)
            or not _any_told(self.model, values)
        ):
            return super().update(**values)
        with transaction.atomic():
            every = self.model._base_manager
            before = {row.pk: row for row in every.filter(pk__in=self.order_by().values("pk"))}
            changed = super().update(**values)
            for row in every.filter(pk__in=list(before)):
                _write(row, _values(before[row.pk]))
        return changed

    update.alters_data = True  # type: ignore[attr-defined]

    def bulk_create(self, objs: Iterable[Any], *args: Any, **kwargs: Any) -> list[Any]:
        with transaction.atomic():
            made = super().bulk_create(objs, *args, **kwargs)
            for row in made:
                if isinstance(row, Recorded):
                    _write(row, None)
        return made

    bulk_create.alters_data = True  # type: ignore[attr-defined]


def every_row_of(model: type[models.Model]) -> RecordedRows:
    """All rows there are, whatever is shown of them: what is set at once is written down."""
    return RecordedRows(model)


RecordedManager = models.Manager.from_queryset(RecordedRows)


def ScopedManager(  # noqa: N802  it stands where a manager class would
    _manager_class: type[models.Manager] = RecordedManager, **scopes: str
) -> Any:
    """A manager of recorded rows within the scope of a practice."""
    return django_scopes.ScopedManager(_manager_class=_manager_class, **scopes)


class Recorded(models.Model):
    """A record whose every change is in the record.

    `record_of` names the field that leads to what this is a part of, "" for what stands alone.
    `record_leaves_out` are fields that are no change of a person's: what is reckoned, what is
    secret.
    """

    record_of = ""
    record_leaves_out: frozenset[str] = frozenset()

    class Meta:
        abstract = True

    def record_name(self) -> str:
        """What the record calls it."""
        return str(self) if type(self).__str__ is not models.Model.__str__ else ""

    def save_base(self, *args: Any, **kwargs: Any) -> None:
        if acting_now() is None:
            super().save_base(*args, **kwargs)
            return
        with transaction.atomic():
            before = None
            if self.pk is not None and not self._state.adding:
                stored = type(self)._base_manager.filter(pk=self.pk).first()
                before = _values(stored) if stored else None
            super().save_base(*args, **kwargs)
            _write(self, before)

    save_base.alters_data = True  # type: ignore[attr-defined]


def _any_told(model: type[models.Model], values: dict[str, Any]) -> bool:
    left_out = OF_ITSELF | getattr(model, "record_leaves_out", frozenset())
    return any(model._meta.get_field(name).name not in left_out for name in values)


def kind_of(model: type[models.Model] | models.Model) -> str:
    return model._meta.label_lower


def root_of(row: models.Model) -> models.Model:
    """What a row is a part of, as far up as there is something."""
    while (up := getattr(row, "record_of", "")) and getattr(row, up, None) is not None:
        row = getattr(row, up)
    return row


def client_of(root: models.Model) -> int | None:
    """Of which client a record is, by number; None where it is of none."""
    if kind_of(root) == "clients.client":
        return root.pk
    return getattr(root, "client_id", None)


def _write(row: Recorded, before: dict[str, Any] | None, gone: bool = False) -> None:
    now = acting_now()
    if now is None:
        return
    left_out = OF_ITSELF | row.record_leaves_out
    after = None if gone else _plain(row)
    told = {
        field.attname: [
            None if before is None else before.get(field.attname),
            None if after is None else after[field.attname],
        ]
        for field in row._meta.concrete_fields
        if not field.primary_key and field.name not in left_out
    }
    told = {name: _apart(pair) for name, pair in told.items() if pair[0] != pair[1]}
    if before is not None and not gone and not told:
        return
    root = _root(row, now)
    contents = {"changes": told, "name": row.record_name(), "of": _name(root)}
    contents["how"] = "made" if before is None else "taken away" if gone else "changed"
    chain.write(
        CHANGED,
        kind_of(row),
        row.pk,
        of=(kind_of(root), root.pk),
        client=client_of(root),
        contents=contents,
    )


def _apart(pair: list[Any]) -> list[Any]:
    """Of plain data with names, those that differ: what is kept while somebody types would fill the
    record with what stayed."""
    before, after = pair
    if not isinstance(before, dict) or not isinstance(after, dict):
        return pair
    names = [name for name in {**before, **after} if before.get(name) != after.get(name)]
    return [{name: one[name] for name in names if name in one} for one in (before, after)]


def _name(root: models.Model) -> str:
    return root.record_name() if isinstance(root, Recorded) else ""


def _root(row: Recorded, now: Any) -> models.Model:
    """What a row is a part of: looked up once for all rows of one deed."""
    if not row.record_of:
        return row
    key = (kind_of(row), row.record_of, getattr(row, f"{row.record_of}_id"))
    if key not in now.known:
        now.known[key] = root_of(row)
    root: models.Model = now.known[key]
    return root


def _plain(row: models.Model) -> dict[str, Any]:
    """The values of a row that was just saved; what the database reckoned is read from it."""
    values = _values(row)
    if any(hasattr(value, "resolve_expression") for value in values.values()):
        stored = type(row)._base_manager.filter(pk=row.pk).first()
        return _values(stored) if stored else values
    return values


def _going(sender: type[models.Model], instance: models.Model, **more: Any) -> None:
    if isinstance(instance, Recorded):
        _write(instance, _values(instance), gone=True)


def listen() -> None:
    """From now on removals are written down, also those that follow from another."""
    pre_delete.connect(_going, dispatch_uid="record.going")
