"""A backup: the database as it is at one moment, while it is in use, opened and checked, encrypted
where there is a key."""

from __future__ import annotations

import hashlib
import os
import shutil
import sqlite3
import tempfile
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from functools import partial
from pathlib import Path

import pyrage
from django.conf import settings
from django.utils import timezone

from record import heads
from rights import erasing
from running import checking, places
from running.checking import Looked, NotWhole
from running.keeping import kept

NAME, STAMP = "roundpantry-", "%Y%m%dT%H%M%S%fZ"
# Who was erased, so that nobody comes back; where the chains of the record ended.
BESIDE = (erasing.LIST, heads.NAME)
PLAIN, SEALED = ".sqlite3", ".sqlite3.age"


class NoBackup(Exception):
    """A backup that could not be made, or cannot be read; the message says why."""


@dataclass(frozen=True)
class Backup:
    path: Path
    made: datetime
    size: int

    @property
    def sealed(self) -> bool:
        return self.path.name.endswith(SEALED)


def key() -> pyrage.x25519.Identity | None:
    """The key that backups are sealed with; None where there is none. Raises NoBackup for one that
    cannot be read."""
    path = os.environ.get("ROUNDPANTRY_BACKUP_KEY", "")
    return key_in(Path(path)) if path else None


def key_in(path: Path) -> pyrage.x25519.Identity:
    """Raises NoBackup."""
    try:
        lines = path.read_text().split()
        said = next(line for line in lines if line.startswith("AGE-SECRET-KEY-"))
        return pyrage.x25519.Identity.from_str(said)
    except (OSError, StopIteration, pyrage.IdentityError):
        raise NoBackup(f"There is no key in {path}; bin/backup --new-key makes one.") from None


def new_key(path: Path) -> str:
    """Make a key in a file that is not there yet; what it seals for. Raises NoBackup."""
    made = pyrage.x25519.Identity.generate()
    try:
        there = os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
    except OSError as error:
        raise NoBackup(f"{path} cannot be made: {error.strerror}.") from None
    with os.fdopen(there, "w") as out:
        out.write(f"{made}\n")
    return str(made.to_public())


def _copied(source: Path, to: Path) -> None:
    """SQLite's own backup: what is committed when it begins, whoever writes meanwhile."""
    with (
        closing(sqlite3.connect(f"file:{source}?mode=ro", uri=True, timeout=60)) as there,
        closing(sqlite3.connect(to)) as copy,
    ):
        there.backup(copy)
        # one file, with nothing beside it
        copy.execute("PRAGMA journal_mode=DELETE")


def _digest(path: Path) -> str:
    with path.open("rb") as there:
        return hashlib.file_digest(there, "sha256").hexdigest()


def make(folder: Path | None = None, now: datetime | None = None) -> tuple[Backup, Looked]:
    """Make a backup, look through it, and take away those that are no longer kept. Raises NoBackup;
    a backup that is not whole is none."""
    folder, now = folder or places.backups(), now or timezone.now()
    sealing = key()
    stamp = now.astimezone(UTC).strftime(STAMP)
    path = folder / f"{NAME}{stamp}{SEALED if sealing else PLAIN}"
    try:
        folder.mkdir(mode=0o700, parents=True, exist_ok=True)
        with places.private(), tempfile.TemporaryDirectory(dir=folder, prefix=".making-") as there:
            plain = Path(there) / "copy.sqlite3"
            _copied(places.database(), plain)
            looked = checking.look(plain)
            if sealing is None:
                places.whole_or_not(path, lambda part: os.replace(plain, part))
            else:
                _seal(plain, path, sealing)
    except (OSError, sqlite3.Error, NotWhole) as error:
        raise NoBackup(f"No backup was made: {error}") from error
    backup = Backup(path, now, path.stat().st_size)
    _lay_beside(folder)
    take_away(folder, now)
    return backup, looked


def _lay_beside(folder: Path) -> None:
    """The lists that lie beside the database go where the backups go: whoever copies those off the
    machine has them as well."""
    for name in BESIDE:
        there = Path(settings.VAR_DIR) / name
        if there.exists():
            places.whole_or_not(folder / name, partial(shutil.copyfile, there))


def _seal(plain: Path, path: Path, sealing: pyrage.x25519.Identity) -> None:
    """Encrypt, and open it again: what comes out is what went in. Raises NotWhole."""

    def write(part: Path) -> None:
        pyrage.encrypt_file(str(plain), str(part), [sealing.to_public()])
        part.chmod(0o600)
        opened = plain.with_name("opened.sqlite3")
        pyrage.decrypt_file(str(part), str(opened), [sealing])
        if _digest(opened) != _digest(plain):
            raise NotWhole("what was sealed does not open as it was")

    places.whole_or_not(path, write)


def all_in(folder: Path | None = None) -> list[Backup]:
    """The backups of a folder, the newest first."""
    out = []
    for path in (folder or places.backups()).glob(f"{NAME}*"):
        stamp = path.name.removeprefix(NAME).split(".")[0]
        try:
            made = datetime.strptime(stamp, STAMP).replace(tzinfo=UTC)
        except ValueError:
            continue
        out.append(Backup(path, made, path.stat().st_size))
    return sorted(out, key=lambda one: one.made, reverse=True)


def take_away(folder: Path, now: datetime) -> list[Path]:
    """Take away what is no longer kept; which they were."""
    there = all_in(folder)
    keep = kept((one.made for one in there), now, timedelta(days=settings.BACKUPS_KEPT_DAYS))
    gone = [one.path for one in there if one.made not in keep]
    for path in gone:
        path.unlink(missing_ok=True)
    return gone


@contextmanager
def opened(path: Path, beside: Path, given: Path | None = None) -> Iterator[tuple[Path, Looked]]:
    """A backup as a database, in a folder beside where it is to go, and what was seen in it. Raises
    NoBackup."""
    if not path.is_file():
        raise NoBackup(f"There is no backup {path}.")
    with places.private(), tempfile.TemporaryDirectory(dir=beside, prefix=".opening-") as there:
        plain = Path(there) / "opened.sqlite3"
        try:
            with path.open("rb") as begins:
                sealed = begins.read(21) == b"age-encryption.org/v1"
            if sealed:
                opening = key_in(given) if given else key()
                if opening is None:
                    raise NoBackup(f"{path.name} is sealed: say where its key is, --key FILE.")
                pyrage.decrypt_file(str(path), str(plain), [opening])
            else:
                shutil.copyfile(path, plain)
            looked = checking.look(plain)
        except pyrage.DecryptError:
            raise NoBackup(f"{path.name} does not open with this key, or is damaged.") from None
        except (OSError, NotWhole) as error:
            raise NoBackup(f"{path.name} cannot be used: {error}") from error
        yield plain, looked
