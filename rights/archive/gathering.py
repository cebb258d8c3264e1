"""The rows of an archive: what belongs to a client, and everything that this leads to."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field

from django.db import models

from clients.models import Client
from practice.models import Practice, User
from record.recorded import kind_of
from rights.archive import references
from rights.archive.tables import Model, archived, fields_of, path_to

# Rows that a row is nothing without, where it comes in because something points to it.
WITH_IT = {"bowls.bowl": (("bowls.bowlpart", "bowl"),)}


@dataclass
class Gathered:
    """The keys of rows by table, and of the people who are named in them."""

    rows: dict[Model, dict[int, models.Model]] = field(default_factory=dict)
    people: dict[int, User] = field(default_factory=dict)

    def add(self, row: models.Model) -> bool:
        """Whether it is new."""
        rows = self.rows.setdefault(type(row), {})
        new = row.pk not in rows
        rows[row.pk] = row
        return new

    def ordered(self, model: Model) -> list[models.Model]:
        rows = self.rows.get(model, {})
        return [rows[pk] for pk in sorted(rows)]


def own_rows(client: Client) -> Iterable[models.Model]:
    """What is this client's alone: all of it, also what was taken away."""
    for model in archived():
        if (path := path_to(model, "client")) is not None:
            yield from model._base_manager.filter(**{path: client.pk})


def of_client(client: Client) -> Gathered:
    """Everything about one client."""
    return _closed(own_rows(client), client.practice_id)


def of_practice(practice: Practice) -> Gathered:
    """Everything of a practice."""
    rows: list[models.Model] = []
    for model in archived():
        if (path := path_to(model, "practice")) is not None:
            rows += model._base_manager.filter(**{path: practice.pk})
    found = _closed(rows, practice.pk)
    found.people |= {user.pk: user for user in User.objects.filter(practice=practice)}
    return found


def _closed(begin: Iterable[models.Model], practice: int) -> Gathered:
    """These rows, and what of the same practice they point to, by a field or within their data,
    where a number may happen to be another's. The practice itself is no part of what is a
    client's, and is followed from nowhere."""
    found, waiting = Gathered(), list(begin)
    tables = {kind_of(model): model for model in archived() if model is not Practice}
    while waiting:
        row = waiting.pop()
        if not found.add(row):
            continue
        for to, number in _pointed(row, found):
            model = tables.get(to)
            if model is None or number in found.rows.get(model, {}):
                continue
            ours = model._base_manager.filter(**{path_to(model, "practice") or "pk": practice})
            there = ours.filter(pk=number).first()
            if there is not None:
                waiting.append(there)
                for kind, up in WITH_IT.get(to, ()):
                    waiting += tables[kind]._base_manager.filter(**{up: there.pk})
    return found


def _pointed(row: models.Model, found: Gathered) -> list[tuple[str, int]]:
    out: list[tuple[str, int]] = []
    for one in fields_of(type(row)):
        value = getattr(row, one.attname)
        if value is None:
            continue
        if isinstance(one, models.ForeignKey):
            if one.related_model is User:
                found.people.setdefault(value, User.objects.get(pk=value))
            else:
                out.append((kind_of(one.related_model), value))
        elif references.may_hold(one):
            out += references.found_in(value, one.name)
    return out
