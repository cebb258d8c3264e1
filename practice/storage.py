"""What SQLite says where it cannot keep something, in words for who wanted it kept."""

from __future__ import annotations

import sqlite3

# SQLite's primary result codes.
WORDS = {
    sqlite3.SQLITE_FULL: "The disk is full. Nothing was saved, and nothing that was saved before "
    "is lost. What you typed is still here: tell whoever runs the installation, and send it again "
    "when there is room.",
    sqlite3.SQLITE_READONLY: "The disk takes nothing just now: it can only be read. Nothing was "
    "saved. What you typed is still here: tell whoever runs the installation.",
    sqlite3.SQLITE_IOERR: "The disk reported a fault. Nothing was saved. Tell whoever runs the "
    "installation at once: bin/backup, and then a look at the disk.",
    sqlite3.SQLITE_CORRUPT: "The database is damaged. Nothing was saved. Stop working with it, "
    "and tell whoever runs the installation: there are backups.",
    sqlite3.SQLITE_NOTADB: "The database cannot be read. Stop working with it, and tell whoever "
    "runs the installation: there are backups.",
    sqlite3.SQLITE_BUSY: "Others were writing for too long. Nothing was saved. Send it again.",
    sqlite3.SQLITE_CANTOPEN: "The database cannot be opened just now. Nothing was saved. Tell "
    "whoever runs the installation.",
}


def words_of(error: BaseException | None) -> str:
    """What to say of an error of the disk; empty for any other."""
    while error is not None:
        if isinstance(error, sqlite3.Error):
            return WORDS.get(getattr(error, "sqlite_errorcode", 0) & 0xFF, "")
        error = error.__cause__ or error.__context__
    return ""
