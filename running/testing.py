"""An installation of its own for a test: a folder, and a database with nobody's data in it."""

from __future__ import annotations

import os
import sqlite3
from contextlib import closing
from pathlib import Path
from unittest.mock import patch

from django.db import connection
from django.test import TransactionTestCase

from practice.models import Practice, User
from record.testing import OwnFolder


class Installed(OwnFolder, TransactionTestCase):
    """Backups, logs and lists of this test lie in a folder of its own."""

    def setUp(self):
        super().setUp()
        environment = patch.dict(os.environ)
        environment.start()
        self.addCleanup(environment.stop)
        os.environ.pop("ROUNDPANTRY_BACKUPS", None)
        os.environ.pop("ROUNDPANTRY_BACKUP_KEY", None)
        self.practice = Practice.objects.create(name="Tern Point Wellness")
        self.user = User.objects.create_user(
            "marin", password="a-long-password", practice=self.practice, role="owner"
        )

    def copy_of_database(self, to: Path) -> Path:
        """The database of the test, as a file of its own."""
        with (
            closing(sqlite3.connect(connection.settings_dict["NAME"])) as there,
            closing(sqlite3.connect(to)) as copy,
        ):
            there.backup(copy)
        to.chmod(0o600)
        return to
