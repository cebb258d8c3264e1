"""Killed at any moment while it writes: what was acknowledged is there, and the record holds."""

import json
import subprocess
import sys
from pathlib import Path

from django.conf import settings

from nutrition.tests.thorough import thorough
from running.testing import Installed

KILLS = 200


@thorough
class Killed(Installed):
    def test_two_hundred_times_nothing_that_was_acknowledged_is_lost(self):
        path = self.copy_of_database(self.var / "killed.sqlite3")
        done = subprocess.run(
            [sys.executable, "-m", "running.tests.killed", str(KILLS), str(self.practice.pk)],
            cwd=settings.BASE_DIR,
            env={
                "PATH": "/usr/bin:/bin",
                "ROUNDPANTRY_VAR": str(self.var),
                "ROUNDPANTRY_DB": str(path),
                "ROUNDPANTRY_DEMO": "1",
                "DJANGO_SETTINGS_MODULE": "roundpantry.settings",
            },
            capture_output=True,
            text=True,
            check=False,
        )
        self.assertEqual(done.returncode, 0, done.stderr[-2000:])
        told = json.loads(done.stdout.splitlines()[-1])
        self.assertEqual(told["kills"], 200)
        self.assertEqual(told["lost"], [])
        self.assertEqual(told["faults"], [])
        self.assertEqual(told["integrity"], "ok")
        self.assertGreaterEqual(told["acknowledged"], 200, "one before each kill at the least")
        self.assertGreaterEqual(told["entries"], told["acknowledged"])
        self.assertTrue(Path(path).exists())
