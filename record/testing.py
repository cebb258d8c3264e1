"""A folder of its own for what lies beside the database: no test sees another's."""

from __future__ import annotations

import tempfile
from pathlib import Path


class OwnFolder:
    """For a test case: what is written beside the database lies in `self.var`."""

    def setUp(self):
        super().setUp()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.var = Path(folder.name)
        changed = self.settings(VAR_DIR=self.var)
        changed.enable()
        self.addCleanup(changed.disable)
