"""What an archive looks like from outside: the names in it, its version, its checksums."""

from __future__ import annotations

import json
from datetime import UTC, datetime
from hashlib import sha256
from typing import Any

from django.core.serializers.json import DjangoJSONEncoder
from django.utils import timezone

# Raised when a reader of the version before could not read it any more.
VERSION = 1
FORMAT = "round-pantry-archive"
OF_CLIENT, OF_PRACTICE = "client", "practice"
MANIFEST, README, FIELDS = "manifest.json", "README.txt", "fields.json"
PEOPLE, RECORD = "people.json", "record.json"
DATA, OPEN, READ = "data/", "open/", "read/"
# What one unpacks to at most: no archive of ours comes near it. [bytes]
LARGEST = 400_000_000


class UnreadableArchive(ValueError):
    """A file that is no archive, or is not whole; the message says what is wrong with it."""


class _Encoder(DjangoJSONEncoder):
    """Times to the last digit that is kept, in UTC."""

    def default(self, o: Any) -> Any:
        if isinstance(o, datetime) and timezone.is_aware(o):
            return o.astimezone(UTC).isoformat(timespec="microseconds")
        return super().default(o)


def as_json(data: Any) -> bytes:
    """The same bytes for the same data."""
    text = json.dumps(data, cls=_Encoder, ensure_ascii=False, indent=1, sort_keys=True)
    return f"{text}\n".encode()


def checksum(content: bytes) -> str:
    return sha256(content).hexdigest()
