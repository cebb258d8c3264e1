"""An archive read back: whole or not at all, each row new, and the same archive when it is written
again."""

from __future__ import annotations

import io
import json
import zipfile
import zlib
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import uuid4

from django.contrib.auth.hashers import make_password
from django.core.exceptions import ValidationError
from django.db import IntegrityError, models, transaction
from django.utils import timezone
from django.utils.dateparse import parse_datetime
from django_scopes import scope

from clients.models import Client
from nutrition.labels.label import BadLabel
from pantry.in_force import changed as foods_changed
from pantry.in_force import foods_of_practice
from pantry.in_force import make as make_food
from pantry.models import OwnFood
from planner.models import PlannedDish
from planner.planned_copies import digest_of
from practice.models import Practice, User
from practice.roles import READER, ROLES
from recipes.models import Recipe
from recipes.numbers import note_numbers
from record import chain
from record.acting import acting
from record.models import ACTS, TOOK_IN
from record.recorded import kind_of
from rights.archive import layout, references
from rights.archive.layout import UnreadableArchive
from rights.archive.tables import Model, archived, fields_of, of_a_client
from rights.archive.trying import try_client

Rows = dict[str, list[dict[str, Any]]]


@dataclass(frozen=True, kw_only=True)
class Opened:
    """An archive whose every file is what its manifest says."""

    of: str
    name: str
    made: datetime
    practice: str
    tables: Rows
    people: list[dict[str, Any]]
    record: list[dict[str, Any]]


# What comes of data of another shape than they should have.
MISFITS = (
    *(KeyError, TypeError, ValueError, AttributeError, IndexError, RecursionError),
    *(OverflowError, ValidationError, IntegrityError, BadLabel),
)
# ... and of a file that is not whole, or packed in another way.
TORN = (OSError, EOFError, RuntimeError, zlib.error, zipfile.BadZipFile)


@contextmanager
def _whole() -> Iterator[None]:
    """All of it in one transaction, and in the record once and not row by row. What does not fit is
    said, and nothing is kept."""
    try:
        with transaction.atomic(), acting(None, None):
            yield
    except UnreadableArchive:
        raise
    except MISFITS as error:
        raise UnreadableArchive(f"It does not fit together: {error}") from error


def opened(content: bytes) -> Opened:
    """Raises UnreadableArchive, with what is wrong in words."""
    try:
        archive = zipfile.ZipFile(io.BytesIO(content))
    except zipfile.BadZipFile:
        raise UnreadableArchive("This is no archive: it is no zip file.") from None
    with archive:
        if sum(one.file_size for one in archive.infolist()) > layout.LARGEST:
            raise UnreadableArchive("This unpacks to more than any archive holds.")
        try:
            manifest = _read(archive, layout.MANIFEST)
            named = manifest["files"]
            if manifest["format"] != layout.FORMAT:
                raise UnreadableArchive("This is an archive of something else.")
            if manifest["version"] > layout.VERSION:
                raise UnreadableArchive(
                    "This archive was written by a newer version: bring this installation up to it."
                )
            for name, checksum in named.items():
                if layout.checksum(archive.read(name)) != checksum:
                    raise UnreadableArchive(
                        f"{name} is not what was written: the file was changed."
                    )
            tables = {
                name.removeprefix(layout.DATA).removesuffix(".json"): _read(archive, name)
                for name in named
                if name.startswith(layout.DATA)
            }
            return Opened(
                of=str(manifest["of"]),
                name=str(manifest["name"]),
                made=parse_datetime(manifest["made"]) or timezone.now(),
                practice=str(manifest.get("practice", manifest["name"])),
                tables=tables,
                people=_read(archive, layout.PEOPLE),
                record=_read(archive, layout.RECORD),
            )
        except UnreadableArchive:
            raise
        except (*MISFITS, *TORN) as error:
            raise UnreadableArchive(f"This archive is not whole: {error}") from None


def _read(archive: zipfile.ZipFile, name: str) -> Any:
    return json.loads(archive.read(name))


class Reader:
    """Makes rows of what an archive holds. `known` has the key of each row that was made, by table
    and number within the archive."""

    def __init__(self, archive: Opened, practice: Practice | None) -> None:
        self.archive, self.practice = archive, practice
        self.known: dict[tuple[str, int], int] = {}
        self.people: dict[int, int] = {}

    def __call__(self, table: str, number: int) -> int | None:
        return self.known.get((table, number))

    def make(self, models_: list[Model]) -> None:
        unknown = set(self.archive.tables) - {kind_of(model) for model in models_}
        if unknown:
            raise UnreadableArchive(f"It has tables that are not known here: {', '.join(unknown)}.")
        later: list[tuple[models.Model, dict[str, Any]]] = []
        for model in models_:
            for row in self.archive.tables.get(kind_of(model), []):
                made = self._row(model, row)
                self.known[(kind_of(model), int(row["id"]))] = made.pk
                later.append((made, row))
        # what stands within text and plain data can point to any row: every row is there now
        for made, row in later:
            self._point(made, row)

    def _row(self, model: Model, row: dict[str, Any]) -> models.Model:
        made = model()
        by_itself = []
        for field in fields_of(model):
            if field.name in row:
                setattr(made, field.attname, self._value(model, field, row[field.name]))
            if not isinstance(field, models.ForeignKey | models.JSONField):
                by_itself.append(field.name)
        # what cannot be typed here cannot come in either
        every = {field.name for field in model._meta.concrete_fields}
        made.clean_fields(exclude=every - set(by_itself))
        if model is PlannedDish:
            # its own digest is reckoned when it is whole; until then a name of its own
            made.digest = uuid4().hex  # type: ignore[attr-defined]
        if model is OwnFood:
            made.made_with = ""  # type: ignore[attr-defined]
        # as it was, with the times that it had
        made.save_base(raw=True, force_insert=True)
        return made

    def _value(self, model: Model, field: models.Field, value: Any) -> Any:
        if isinstance(field, models.ForeignKey):
            if field.related_model is Practice:
                # a client's archive has none: the practice is the one that takes it in
                return (
                    self.practice.pk if self.practice else self.known[("practice.practice", value)]
                )
            if value is None:
                return None
            if field.related_model is User:
                return self.people[int(value)]
            if field.related_model is model:
                # one of its own kind may come after it
                return None
            return self.known[(kind_of(field.related_model), int(value))]
        if isinstance(field, models.JSONField):
            return value
        return field.to_python(value)

    def _point(self, made: models.Model, row: dict[str, Any]) -> None:
        """Put in what leads to other rows."""
        now: dict[str, Any] = {}
        for field in fields_of(type(made)):
            value = row.get(field.name)
            if value is None:
                continue
            if isinstance(field, models.ForeignKey) and field.related_model is type(made):
                now[field.attname] = self.known[(kind_of(type(made)), int(value))]
            elif references.may_hold(field):
                pointed = references.renumbered(field, value, self)
                if pointed != value:
                    now[field.name] = pointed
        if isinstance(made, PlannedDish):
            now["digest"] = digest_of(now.get("data", made.data))
            if _is_there_already(made, now["digest"]):
                return
        if now:
            type(made)._base_manager.filter(pk=made.pk).update(**now)


def _is_there_already(dish: PlannedDish, digest: str) -> bool:
    """Whether the practice has this very dish as it was planned, from elsewhere: then what holds
    this one holds that."""
    same = PlannedDish._base_manager.filter(practice=dish.practice_id, digest=digest).first()
    if same is None:
        return False
    for relation in PlannedDish._meta.related_objects:
        holding = relation.related_model._base_manager.filter(**{relation.field.name: dish})
        holding.update(**{relation.field.name: same})
    PlannedDish._base_manager.filter(pk=dish.pk).delete()
    return True


def _names(archive: Opened, reader: Reader, practice: Practice) -> None:
    """The people who are named in a client's archive: as names of this practice, who never sign
    in."""
    for row in archive.people:
        made = User.objects.create(
            username=f"named-{uuid4().hex[:20]}",
            first_name=str(row["name"])[:150],
            password=make_password(None),
            practice=practice,
            role=READER,
            is_active=False,
            ended=timezone.now(),
            only_a_name=True,
        )
        reader.people[int(row["id"])] = made.pk


def _staff(archive: Opened, reader: Reader) -> list[User]:
    """The people of a practice, each with a link to a password of their own to come."""
    out = []
    for row in archive.people:
        name = str(row.get("signs_in_as") or f"named-{uuid4().hex[:20]}")
        if User.objects.filter(username__iexact=name).exists():
            raise UnreadableArchive(f"Somebody signs in here as {name} already.")
        ended = row.get("ended")
        made = User.objects.create(
            username=name,
            first_name=str(row.get("first_name", row["name"]))[:150],
            last_name=str(row.get("last_name", ""))[:150],
            email=str(row.get("email", "")),
            role=str(row["role"]) if row.get("role") in ROLES else READER,
            is_active=bool(row.get("active")),
            ended=parse_datetime(ended) if ended else None,
            letter_keys=bool(row.get("letter_keys", True)),
            only_a_name=bool(row.get("only_a_name")),
            password=make_password(None),
        )
        reader.people[int(row["id"])] = made.pk
        out.append(made)
    return out


def _take_record(archive: Opened, reader: Reader, practice: Practice) -> None:
    """The record as it was, in a chain of its own here."""
    acts = {act for act, _words in ACTS}
    for row in archive.record:
        if row["act"] not in acts:
            raise UnreadableArchive(f"Its record has an act that is not known: {row['act']}.")
        says = row["says"]
        chain.write(
            row["act"],
            row["kind"],
            _key(reader, row["kind"], row["thing"]),
            of=(row["of_kind"], _key(reader, row["of_kind"], row["of_thing"])),
            client=_key(reader, "clients.client", row["client"]),
            contents=references.in_data(says, reader) if says is not None else None,
            at=parse_datetime(row["at"]),
            practice=practice.pk,
            who=reader.people.get(int(row["who"])) if row["who"] is not None else None,
            deed=row["deed"],
        )


def _key(reader: Reader, table: str, number: Any) -> int | None:
    return None if number is None else reader(table, int(number))


def _mend(practice: Practice) -> None:
    """What is reckoned from the rest, made anew."""
    with scope(practice=practice):
        for food in OwnFood.objects.all():
            if not food.made_with:
                make_food(food)
                OwnFood.objects.filter(pk=food.pk).update(made=food.made, made_with=food.made_with)
        foods_changed(practice)
        with foods_of_practice(practice):
            for recipe in Recipe.with_removed.filter(kcal=None):
                note_numbers(recipe)


def _tried(practice: Practice, pk: int, reader: Reader) -> None:
    """Raises UnreadableArchive for a client whose pages could not be opened."""
    recipes = [key for (table, _number), key in reader.known.items() if table == "recipes.recipe"]
    with (
        timezone.override(practice.time_zone),
        scope(practice=practice),
        foods_of_practice(practice),
    ):
        try:
            try_client(Client.with_removed.get(pk=pk), recipes)
        except Exception as error:
            said = type(error).__name__
            raise UnreadableArchive(f"What it holds of them cannot be opened ({said}).") from error


def read_client(archive: Opened, practice: Practice, by: User) -> Client:
    """Take a client in. Raises UnreadableArchive, and then nothing was taken in."""
    if archive.of != layout.OF_CLIENT:
        raise UnreadableArchive("This is the archive of a whole practice.")
    more = set(archive.tables) - of_a_client()
    if more:
        raise UnreadableArchive(f"It holds what is no client's: {', '.join(sorted(more))}.")
    with _whole():
        reader = Reader(archive, practice)
        _names(archive, reader, practice)
        reader.make(archived())
        pk = reader("clients.client", 1)
        if pk is None or len(archive.tables.get("clients.client", [])) != 1:
            raise UnreadableArchive("It holds no client, or more than one.")
        _take_record(archive, reader, practice)
        _mend(practice)
        _tried(practice, pk, reader)
        chain.write(
            TOOK_IN,
            "clients.client",
            pk,
            client=pk,
            contents={"from": archive.practice, "made": archive.made},
            practice=practice.pk,
            who=by.pk,
        )
        with scope(practice=practice):
            client: Client = Client.with_removed.get(pk=pk)
    return client


def read_practice(archive: Opened) -> tuple[Practice, list[User]]:
    """Take a practice in: it, and its people, who have no passwords yet. Raises
    UnreadableArchive, and then nothing was taken in."""
    if archive.of != layout.OF_PRACTICE:
        raise UnreadableArchive("This is the archive of one client.")
    with _whole():
        name = str(archive.tables["practice.practice"][0]["name"])
        if Practice.objects.filter(name__iexact=name).exists():
            raise UnreadableArchive(f"There is a practice called {name} already.")
        reader = Reader(archive, None)
        people = _staff(archive, reader)
        reader.make(archived())
        practice = Practice.objects.get(pk=reader.known[("practice.practice", 1)])
        for one in people:
            one.practice = practice
            one.save(update_fields=["practice"])
        _take_record(archive, reader, practice)
        _mend(practice)
    return practice, people
