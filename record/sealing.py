"""What an entry says, sealed under a key of the client's own: with the key gone nothing of it can
be read, here or where the entry was copied to."""

from __future__ import annotations

import json
from collections.abc import Collection, Mapping
from typing import Any

from cryptography.fernet import Fernet, InvalidToken
from django.core.serializers.json import DjangoJSONEncoder
from django.db import transaction
from django.db.models import Q, QuerySet

from record.acting import acting_now
from record.models import Entry, Key


def key_of(practice: int, client: int | None) -> Fernet:
    """The key, made where there is none yet."""
    now, name = acting_now(), ("key", practice, client)
    if now is not None and name in now.known:
        return now.known[name]  # type: ignore[return-value]
    row, _made = Key.objects.get_or_create(
        practice=practice, client=client or 0, defaults={"key": Fernet.generate_key().decode()}
    )
    fernet = Fernet(row.key)
    if now is not None:
        now.known[name] = fernet
    return fernet


def seal(practice: int, client: int | None, contents: dict[str, Any]) -> bytes:
    """Sealed JSON of what an entry says."""
    text = json.dumps(contents, cls=DjangoJSONEncoder, ensure_ascii=False, sort_keys=True)
    return key_of(practice, client).encrypt(text.encode())


def unseal(practice: int, client: int | None, sealed: bytes | None) -> dict[str, Any] | None:
    """What an entry says; None where the key or the contents are gone."""
    row = Key.objects.filter(practice=practice, client=client or 0).first()
    if row is None or sealed is None:
        return None
    try:
        said: dict[str, Any] = json.loads(Fernet(row.key).decrypt(bytes(sealed)))
    except InvalidToken:
        return None
    return said


def destroy(practice: int, client: int, things: Mapping[str, Collection[int]] | None = None) -> int:
    """From now on nothing that was sealed for this client can be read: the key is gone, and what it
    sealed; how many entries that were. `things` are theirs by table: what was written of them
    before they were known to be theirs goes as well. The entries stay, and the chain with them."""
    with transaction.atomic():
        Key.objects.filter(practice=practice, client=client).delete()
        theirs = Q(client=client)
        for kind, numbers in (things or {}).items():
            theirs |= Q(kind=kind, thing__in=numbers)
        # the one change there is of an entry: what it said is no part of what is chained
        sealed: QuerySet[Entry] = QuerySet(Entry).filter(theirs, practice=practice)
        return sealed.exclude(contents=None).update(contents=None)
