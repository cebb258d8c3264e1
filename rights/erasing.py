"""A client erased: everything that is theirs, and what was written of them in the record. What
stays is that it was done, by whom and when, with a number that is nobody's any more."""

from __future__ import annotations

import logging
from dataclasses import dataclass
from datetime import date, timedelta
from pathlib import Path

from django.conf import settings
from django.db import OperationalError, connection, models, transaction
from django.db.models import ProtectedError
from django.utils import timezone

from bowls.models import Bowl
from clients.models import Client
from jobs.models import Job
from planner.models import PlannedDish
from practice.models import Practice, User
from recipes.models import Recipe
from record import chain, json_lines, reads
from record.acting import acting
from record.models import ERASED
from record.recorded import kind_of
from record.sealing import destroy
from rights.archive.gathering import own_rows
from rights.archive.tables import archived, path_to
from rights.models import Erased

log = logging.getLogger(__name__)

# The oldest backup that is kept is no older: see running/keeping.py.
LONGEST_IN_BACKUPS = timedelta(days=settings.BACKUPS_KEPT_DAYS)
# What is beside the database, so that a backup that is put back does not bring anybody back.
LIST = "erased.jsonl"
# A bowl or a recipe of theirs that somebody else eats of stays, and is nobody's.
NOBODYS = "Somebody's {kind}"


@dataclass(frozen=True)
class Mention:
    """Where else a client's name stands: in what is not theirs, and so not erased."""

    where: str
    words: str


def mentions(client: Client) -> list[Mention]:
    """Where the client's name stands in what is somebody else's or the practice's: to be looked
    through by a person."""
    own = {(type(row), row.pk) for row in own_rows(client)}
    out = []
    for model in archived():
        path = path_to(model, "practice")
        texts = [
            field
            for field in model._meta.concrete_fields
            if isinstance(field, models.CharField | models.TextField | models.JSONField)
            and field.name != "history"
        ]
        if path is None or not texts:
            continue
        named = models.Q()
        for field in texts:
            named |= models.Q(**{f"{field.name}__icontains": client.name})
        rows = model._base_manager.filter(**{path: client.practice_id}).filter(named)
        out += [
            Mention(str(model._meta.verbose_name), str(row)[:120])
            for row in rows[:50]
            if (model, row.pk) not in own
        ]
    return out


def _taken_away(model: type[models.Model], named: str, client: Client) -> None:
    """What is theirs and nobody else eats of; the rest stays for who does, under no name of this
    client's."""
    for row in model._base_manager.filter(client=client.pk):
        try:
            with transaction.atomic():
                row.delete()
        except ProtectedError:
            now = {"client": None, named: NOBODYS.format(kind=model._meta.verbose_name)}
            model._base_manager.filter(pk=row.pk).update(**now)


def in_backups_until(today: date) -> date:
    """Until when a backup may still hold somebody who is erased today."""
    return today + LONGEST_IN_BACKUPS


def erase(client: Client, by: User | None) -> Erased:
    """Take everything of a client out of the database. It cannot be taken back."""
    practice, number = client.practice, client.pk
    # what was read of them is in the record before it is sealed off
    reads.fold()
    with transaction.atomic(), acting(None, None):
        theirs: dict[str, set[int]] = {}
        for row in own_rows(client):
            theirs.setdefault(kind_of(type(row)), set()).add(row.pk)
        _delete(client)
        destroy(practice.pk, number, theirs)
        count = sum(len(numbers) for numbers in theirs.values())
        receipt: Erased = Erased.objects.create(
            practice=practice,
            client=number,
            at=timezone.now(),
            by=by,
            rows=count,
            in_backups_until=in_backups_until(timezone.localdate()),
        )
        chain.write(
            ERASED,
            "clients.client",
            number,
            contents={"rows": count},
            practice=practice.pk,
            who=by.pk if by else None,
        )
    note_erased(practice.pk, number)
    clean_pages()
    return receipt


def _delete(client: Client) -> None:
    """Every row of theirs, what others eat of aside."""
    # what is eaten goes first: it holds on to bowls and recipes
    for model in reversed(archived()):
        path = path_to(model, "client")
        if path is None or model in (Client, Bowl, Recipe):
            continue
        model._base_manager.filter(**{path: client.pk}).delete()
    _taken_away(Bowl, "name", client)
    _taken_away(Recipe, "title", client)
    Job._base_manager.filter(practice=client.practice_id).delete()
    Client._base_manager.filter(pk=client.pk).delete()
    _unplanned(client.practice)


def _unplanned(practice: Practice) -> None:
    """Dishes as they were planned that no day, week or log holds any more."""
    held = models.Q()
    for relation in PlannedDish._meta.related_objects:
        held |= models.Q(**{f"{relation.name}__isnull": False})
    dishes = PlannedDish._base_manager.filter(practice=practice)
    dishes.exclude(pk__in=dishes.filter(held).values("pk")).delete()


def clean_pages() -> bool:
    """Write the database anew, so that nothing of what is gone lies in a page that is free, nor in
    the log beside it; whether that was done. Where others use it, it is done in the night: what is
    deleted was overwritten all the same."""
    if connection.in_atomic_block:
        return False
    try:
        with connection.cursor() as cursor:
            cursor.execute("VACUUM")
            busy = cursor.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()[0]
    except OperationalError:
        log.warning("the pages that are free are written anew in the night: others use them")
        return False
    return not busy


def _list() -> Path:
    return Path(settings.VAR_DIR) / LIST


def note_erased(practice: int, client: int) -> None:
    """Remember beside the database that nobody has this number any more."""
    row = {"practice": practice, "client": client, "at": timezone.now().isoformat()}
    json_lines.append(_list(), row)


def take_list(folder: Path) -> None:
    """Take over who was erased from a list that lies beside a backup, made elsewhere perhaps."""
    known = json_lines.rows_in(_list())
    more = [row for row in json_lines.rows_in(folder / LIST) if row not in known]
    if more:
        json_lines.append(_list(), *more)


def erase_again() -> int:
    """Erase whoever was erased before and came back with an older backup; how many there were."""
    count = 0
    for row in json_lines.rows_in(_list()):
        client = Client._base_manager.filter(pk=row["client"], practice=row["practice"]).first()
        if client is not None:
            erase(client, None)
            count += 1
    return count
