"""An archive written: rows as plain data, numbered within it, with what describes and proves
them."""

from __future__ import annotations

import io
import zipfile
from collections.abc import Iterator
from typing import Any

from django.db import models
from django.utils import timezone

from clients.archive_files import FILES
from clients.models import Client
from practice.models import Practice, User
from record import reads
from record.models import Entry
from record.recorded import kind_of
from record.sealing import unseal
from rights.archive import layout, references
from rights.archive.gathering import Gathered, of_client, of_practice
from rights.archive.readable import page_of
from rights.archive.tables import archived, fields_of


class Numbers:
    """Each row's number within the archive: in its table, in the order of their keys."""

    def __init__(self, found: Gathered) -> None:
        self._rows = {
            kind_of(model): {pk: at for at, pk in enumerate(sorted(rows), start=1)}
            for model, rows in found.rows.items()
        }
        self.people = {pk: at for at, pk in enumerate(sorted(found.people), start=1)}

    def __call__(self, table: str, pk: int) -> int | None:
        return self._rows.get(table, {}).get(pk)

    def value(self, row: models.Model, field: models.Field) -> Any:
        """A field of a row as it stands in the archive."""
        value = getattr(row, field.attname)
        if value is None:
            return None
        if isinstance(field, models.ForeignKey):
            if field.related_model is User:
                return self.people[value]
            return self(kind_of(field.related_model), value)
        return references.renumbered(field, value, self)


def _plain(found: Gathered, numbers: Numbers) -> dict[str, list[dict[str, Any]]]:
    """Every table as a list of rows, each with its number within the archive."""
    return {
        kind_of(model): [
            {"id": numbers(kind_of(model), row.pk)}
            | {field.name: numbers.value(row, field) for field in fields_of(model)}
            for row in found.ordered(model)
        ]
        for model in archived()
        if found.rows.get(model)
    }


def _people(found: Gathered, numbers: Numbers, whole: bool) -> list[dict[str, Any]]:
    """The people who are named. Of a whole practice with how they sign in, and without what proves
    that it is they."""
    out = []
    for pk, number in sorted(numbers.people.items(), key=lambda one: one[1]):
        user = found.people[pk]
        row: dict[str, Any] = {"id": number, "name": user.shown_name}
        if whole:
            row |= {
                "signs_in_as": user.username,
                "first_name": user.first_name,
                "last_name": user.last_name,
                "email": user.email,
                "role": user.role,
                "active": user.is_active,
                "ended": user.ended,
                "letter_keys": user.letter_keys,
                "only_a_name": user.only_a_name,
            }
        out.append(row)
    return out


def _entries(practice: int, client: int | None, numbers: Numbers) -> Iterator[dict[str, Any]]:
    """The record, as it reads."""
    rows = Entry.objects.filter(practice=practice).order_by("number")
    if client is not None:
        rows = rows.filter(client=client)
    for at, entry in enumerate(rows.iterator(), start=1):
        said = unseal(practice, entry.client, bytes(entry.contents) if entry.contents else None)
        yield {
            "number": at,
            "at": entry.at,
            "who": numbers.people.get(entry.who or 0),
            "act": entry.act,
            "kind": entry.kind,
            "thing": _numbered(numbers, entry.kind, entry.thing),
            "of_kind": entry.of_kind,
            "of_thing": _numbered(numbers, entry.of_kind, entry.of_thing),
            "client": numbers("clients.client", entry.client) if entry.client else None,
            "deed": entry.deed,
            "says": references.in_data(said, numbers) if said is not None else None,
        }


def _numbered(numbers: Numbers, kind: str, thing: int | None) -> int | None:
    return None if thing is None else numbers(kind, thing)


def fields_described() -> dict[str, Any]:
    """Every table and field of an archive, for who reads it without us."""
    return {
        kind_of(model): {
            "is": (model.__doc__ or "").strip() or str(model._meta.verbose_name),
            "fields": {field.name: _described(field) for field in fields_of(model)},
        }
        for model in archived()
    }


def _described(field: models.Field) -> dict[str, Any]:
    out: dict[str, Any] = {"is": str(field.verbose_name), "kind": field.get_internal_type()}
    if isinstance(field, models.ForeignKey):
        to = field.related_model
        out["kind"] = "number"
        out["points_to"] = layout.PEOPLE if to is User else kind_of(to)
    if field.choices:
        out["one_of"] = {str(key): str(words) for key, words in field.flatchoices}
    if field.null:
        out["may_be_missing"] = True
    return out


_README = """An archive of Round Pantry: everything about {what}, made on {on}.

manifest.json   what this is, and the SHA-256 checksum of every file
data/           the data, a JSON file a table; "id" numbers a row within this archive, and a field
                that points to another table has that number
fields.json     every table and field in words
people.json     who is named in the data, by their number
record.json     who read, changed, printed and handed over what, with before and after
open/           the same in formats that other programs read
read/           the same to be read and printed by a person: open it with a browser

Times are in UTC, weights in kilograms and grams, energy in kilocalories.
It holds health data. Keep it as you would keep the paper file.
"""


def _zipped(files: dict[str, bytes], manifest: dict[str, Any]) -> bytes:
    manifest |= {
        "format": layout.FORMAT,
        "version": layout.VERSION,
        "files": {name: layout.checksum(content) for name, content in sorted(files.items())},
    }
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(layout.MANIFEST, layout.as_json(manifest))
        for name, content in sorted(files.items()):
            archive.writestr(name, content)
    return buffer.getvalue()


def _files(found: Gathered, practice: int, client: int | None, what: str) -> dict[str, bytes]:
    reads.fold()
    # who is named in the record and nowhere else
    named = Entry.objects.filter(practice=practice)
    if client is not None:
        named = named.filter(client=client)
    who = named.exclude(who=None).order_by().values_list("who", flat=True).distinct()
    found.people |= User.objects.in_bulk([pk for pk in who if pk is not None])
    numbers = Numbers(found)
    files = {
        f"{layout.DATA}{table}.json": layout.as_json(rows)
        for table, rows in _plain(found, numbers).items()
    }
    files[layout.PEOPLE] = layout.as_json(_people(found, numbers, whole=client is None))
    files[layout.RECORD] = layout.as_json(list(_entries(practice, client, numbers)))
    files[layout.FIELDS] = layout.as_json(fields_described())
    files[layout.README] = _README.format(what=what, on=timezone.localdate()).encode()
    return files


def archive_of_client(client: Client) -> bytes:
    """Everything about one client, as a zip file."""
    found = of_client(client)
    files = _files(found, client.practice_id, client.pk, "one client")
    for more in FILES.ask(client, found.rows):
        files |= {f"{layout.OPEN}{name}": content for name, content in more}
    files[f"{layout.READ}client.html"] = page_of(client)
    about = {"of": layout.OF_CLIENT, "name": client.name, "made": timezone.now()}
    return _zipped(files, about | {"practice": client.practice.name})


def archive_of_practice(practice: Practice) -> bytes:
    """Everything of a practice, as a zip file."""
    files = _files(of_practice(practice), practice.pk, None, f"the practice {practice.name}")
    about = {"of": layout.OF_PRACTICE, "name": practice.name, "made": timezone.now()}
    return _zipped(files, about)
