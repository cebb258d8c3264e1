"""Entries chained by hashes, and the check that the chain holds."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import UTC, datetime
from hashlib import sha256
from typing import Any

from django.db import transaction
from django.utils import timezone

from record.acting import acting_now
from record.models import Entry
from record.sealing import seal

# What the first entry of a practice follows.
BEGINNING = "0" * 64


def hash_of(entry: Entry) -> str:
    """The SHA-256 of everything of an entry that stays, and of the hash before it, a line each."""
    at = entry.at.astimezone(UTC).isoformat(timespec="microseconds")
    what = (entry.kind, entry.thing, entry.of_kind, entry.of_thing, entry.client, entry.deed)
    fields = (entry.before, entry.practice, entry.number, at, entry.who, entry.act, *what)
    lines = ["" if one is None else str(one) for one in (*fields, entry.digest)]
    return sha256("\n".join(lines).encode()).hexdigest()


def write(
    act: str,
    kind: str,
    thing: int | None = None,
    *,
    of: tuple[str, int | None] = ("", None),
    client: int | None = None,
    contents: dict[str, Any] | None = None,
    at: datetime | None = None,
    practice: int | None = None,
    who: int | None = None,
    deed: str = "",
) -> Entry | None:
    """Add an entry after the last of its practice, in the transaction that is open or one of its
    own; None where nobody acts and no practice is named."""
    now = acting_now()
    if practice is None:
        if now is None:
            return None
        practice, who, deed = now.practice, now.who, deed or now.deed
    # the write lock is held from here on: nothing comes between the last entry and this one
    with transaction.atomic():
        sealed = seal(practice, client, contents) if contents else None
        last = (
            Entry.objects.filter(practice=practice).order_by("-number").values("number", "hash")
        ).first()
        entry = Entry(
            practice=practice,
            number=last["number"] + 1 if last else 1,
            at=at or timezone.now(),
            who=who,
            act=act,
            kind=kind,
            thing=thing,
            of_kind=of[0],
            of_thing=of[1],
            client=client,
            deed=deed,
            contents=sealed,
            digest=sha256(sealed).hexdigest() if sealed else "",
            before=last["hash"] if last else BEGINNING,
        )
        entry.hash = hash_of(entry)
        entry.save(force_insert=True)
    return entry


def faults(practice: int, known: dict[int, str] | None = None) -> Iterator[str]:
    """What is wrong with the chain of a practice, in words; nothing where it holds. `known` are
    hashes by number that were noted elsewhere: a chain that was made anew, or cut, does not have
    them."""
    before, number = BEGINNING, 0
    noted = dict(known or {})
    for entry in Entry.objects.filter(practice=practice).order_by("number").iterator():
        number += 1
        if entry.number != number:
            yield f"entry {number} is missing: {entry.number} follows {number - 1}"
            number = entry.number
        if entry.before != before:
            yield f"entry {number} does not follow the one before it"
        if entry.hash != hash_of(entry):
            yield f"entry {number} was changed"
        sealed = entry.contents
        if sealed is not None and sha256(bytes(sealed)).hexdigest() != entry.digest:
            yield f"what entry {number} says was changed"
        if (was := noted.pop(number, None)) is not None and was != entry.hash:
            yield f"entry {number} is not the one that was noted before"
        before = entry.hash
    for gone in sorted(noted):
        yield f"entry {gone} was noted before, and is gone"


def head(practice: int) -> tuple[int, str]:
    """The last number and hash of a practice."""
    last = Entry.objects.filter(practice=practice).order_by("-number").first()
    return (last.number, last.hash) if last else (0, BEGINNING)
