"""The rows of an archive: what belongs to a client, and everything that this leads to."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field

from django.db import models

from clients.models import Client
from practice.models import Practice, User
from rights.archive import references
from rights.archive.tables import Model, archived, fields_of, label_of, path_to

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

    def count(self) -> int:
        return sum(len(rows) for rows in self.rows.values())


def own_rows(client: Client) -> Iterable[models.Model]:
    """What is this client's alone: all of it, also what was taken away."""
    for model in archived():
        if (path := path_to(model, "client")) is not None:
            yield from model._base_manager.filter(**{path: client.pk})


def of_client(client: Client) -> Gathered:
    """Everything about one client."""
    return _closed(own_rows(client), by_use={label_of(Practice)})


def of_practice(practice: Practice) -> Gathered:
    """Everything of a practice."""
    rows: list[models.Model] = []
    for model in archived():
        if (path := path_to(model, "practice")) is not None:
            rows += model._base_manager.filter(**{path: practice.pk})
    found = _closed(rows, by_use=set())
    found.people |= {user.pk: user for user in User.objects.filter(practice=practice)}
    return found


def _closed(begin: Iterable[models.Model], by_use: set[str]) -> Gathered:
    """These rows, and what they point to, by a field or within their data. Tables in `by_use` are
    not followed: the practice itself is no part of what is a client's."""
    found, waiting = Gathered(), list(begin)
    tables = {label_of(model): model for model in archived()}
    while waiting:
        row = waiting.pop()
        if not found.add(row):
            continue
        for to, number in _pointed(row, found):
            if to in by_use or to not in tables:
                continue
            model = tables[to]
            if number in found.rows.get(model, {}):
                continue
            there = model._base_manager.filter(pk=number).first()
            if there is not None and _same_practice(row, there):
                waiting.append(there)
                for kind, up in WITH_IT.get(to, ()):
                    waiting += tables[kind]._base_manager.filter(**{up: there.pk})
    return found


def _same_practice(row: models.Model, there: models.Model) -> bool:
    """Whether what is pointed to within data is of the same practice: a number that happens to be
    another's leads nowhere."""
    mine, theirs = (_practice_of(one) for one in (row, there))
    return mine is None or theirs is None or mine == theirs


def _practice_of(row: models.Model) -> int | None:
    if isinstance(row, Practice):
        return row.pk
    if (own := getattr(row, "practice_id", None)) is not None:
        return int(own)
    path = path_to(type(row), "practice")
    if path is None:
        return None
    found: int | None = type(row)._base_manager.filter(pk=row.pk).values_list(path, flat=True)[0]
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
                out.append((label_of(one.related_model), value))
        elif references.may_hold(one):
            out += references.found_in(value, one.name)
    return out
