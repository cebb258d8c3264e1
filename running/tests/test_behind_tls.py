"""A practice set up from nothing behind TLS, by following the document line by line."""

import importlib.util
import json
import signal
import sqlite3
import subprocess
import sys
import tempfile
from contextlib import closing
from pathlib import Path
from unittest import TestCase

from django.conf import settings

from nutrition.tests.thorough import thorough


def _try_it():
    path = Path(settings.BASE_DIR) / "deploy" / "try_it.py"
    spec = importlib.util.spec_from_file_location("try_it", path)
    module = importlib.util.module_from_spec(spec)
    sys.modules["try_it"] = module
    spec.loader.exec_module(module)
    return module


@thorough
class BehindTls(TestCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.try_it = _try_it()
        folder = tempfile.TemporaryDirectory(ignore_cleanup_errors=True)
        cls.addClassCleanup(folder.cleanup)
        cls.machine = cls.try_it.Machine(Path(folder.name).resolve())
        cls.addClassCleanup(cls.machine.end)
        cls.machine.said = cls.machine.console.append
        cls.try_it.follow(cls.machine, until="Backups")
        cls.root = cls.machine.root
        cls.var = cls.root / "var/lib/roundpantry"

    def ask(self, path, *more, port=None, scheme="https"):
        """What comes back for an address, heads first, as a browser with a jar of cookies asks."""
        site, port = self.try_it.SITE, port or self.try_it.HTTPS
        command = ["curl", "--silent", "--include", "--resolve", f"{site}:{port}:127.0.0.1"]
        command += ["--cacert", str(self.root / "etc/roundpantry/tls/fullchain.pem")]
        command += ["--cookie-jar", str(self.root / "jar"), "--cookie", str(self.root / "jar")]
        command += ["--referer", f"https://{site}/", *more, f"{scheme}://{site}:{port}{path}"]
        return subprocess.run(command, capture_output=True, text=True, check=False).stdout

    def sign_in(self, password, *more):
        self.ask("/sign-in/")
        jar = (self.root / "jar").read_text()
        token = next(line.split("\t")[-1] for line in jar.splitlines() if "csrftoken" in line)
        said = {"csrfmiddlewaretoken": token, "username": self.try_it.OWNER, "password": password}
        fields = []
        for name, value in said.items():
            fields += ["--data-urlencode", f"{name}={value}"]
        return self.ask("/sign-in/", *fields, *more)

    def test_a_practice_from_nothing_to_a_restore(self):
        said = "\n".join(map(str, self.machine.console))
        self.assertIn('{"database": true, "in_step": true, "room": true}', said)
        self.assertIn("sealed, opened: 1 practices", said)
        self.served()
        self.not_served_unsafe()
        self.logged_without_data()
        self.killed_and_put_back()

    def served(self):
        plain = self.ask("/", port=self.try_it.HTTP, scheme="http")
        self.assertIn("301", plain.splitlines()[0])
        self.assertIn("https://", plain)
        page = self.ask("/sign-in/")
        self.assertIn("200", page.splitlines()[0])
        heads = page.split("\n\n")[0].lower()
        self.assertIn("strict-transport-security: max-age=31536000", heads)
        self.assertIn("content-security-policy", heads)
        self.assertIn("secure", next(line for line in heads.splitlines() if "csrftoken" in line))
        self.assertNotIn("nginx/", heads)
        wrong = self.sign_in("not it", "--header", "X-Forwarded-For: 203.0.113.5")
        self.assertIn("do not go together", wrong)
        with closing(sqlite3.connect(self.var / "roundpantry.sqlite3")) as there:
            addresses = there.execute("SELECT address FROM people_failedtry").fetchall()
        # where it comes from is said by the proxy, whatever the browser says
        self.assertEqual(addresses, [("127.0.0.1",)])
        right = self.sign_in(self.try_it.PASSWORD)
        self.assertIn("302", right.splitlines()[0])
        page = self.ask("/clients/")
        self.assertIn("200", page.splitlines()[0])
        self.assertIn("cache-control: no-store", page.lower())
        self.assertIn("Lantern Quay", page)

    def not_served_unsafe(self):
        # past the proxy nobody signs in without TLS
        past = subprocess.run(
            ["curl", "--silent", "--head", f"http://127.0.0.1:{self.try_it.SERVER}/sign-in/"],
            capture_output=True,
            text=True,
            check=False,
        ).stdout
        self.assertIn("301", past.splitlines()[0])
        # a second server is told
        self.machine.stop("second")
        self.machine._start_unit("roundpantry")
        environment = self.machine.root / "etc/roundpantry/environment"
        done = subprocess.run(
            ["bash", "-c", f". {environment}; exec .venv/bin/python -m roundpantry.serve"],
            cwd=self.root / "opt/roundpantry",
            env={"PATH": "/usr/bin:/bin", **_of(environment)},
            capture_output=True,
            text=True,
            check=False,
        )
        self.assertEqual(done.returncode, 1)
        self.assertIn("Another server has", done.stderr)
        for path in self.var.rglob("*"):
            self.assertEqual(path.stat().st_mode & 0o077, 0, path)

    def logged_without_data(self):
        self.ask("/recipes/?q=a-secret-soup")
        self.ask("/sign-in/join/a-secret-link/")
        logs = [self.root / "run/roundpantry.log", self.root / "var/log/nginx/roundpantry.log"]
        for path in logs:
            text = path.read_text()
            self.assertNotIn("secret", text, path)
            self.assertGreater(len(text.splitlines()), 5, path)
        rows = [json.loads(line) for line in logs[0].read_text().splitlines() if line[:1] == "{"]
        self.assertIn("recipes:list", [row.get("route") for row in rows])

    def killed_and_put_back(self):
        newest = max((self.var / "backups").iterdir())
        for unit in ("roundpantry", "roundpantry-work"):
            self.machine.stop(unit, signal.SIGKILL)
        self.machine.environment["BACKUP"] = str(newest)
        out = self.machine.do('/opt/roundpantry/bin/installed restore "$BACKUP"')
        self.assertIn("Put back: 1 practices", out)
        self.machine.systemctl("start", "roundpantry", "roundpantry-work")
        self.assertIn("302", self.sign_in(self.try_it.PASSWORD).splitlines()[0])
        self.assertIn("200", self.ask("/clients/").splitlines()[0])
        # what was there when it was killed is kept, and whole
        kept = next(self.var.glob("*.before-*"))
        with closing(sqlite3.connect(kept)) as there:
            self.assertEqual(there.execute("PRAGMA integrity_check").fetchone(), ("ok",))


class Units(TestCase):
    def test_they_say_what_systemd_knows_and_see_little_of_the_machine(self):
        for name in ("roundpantry.service", "roundpantry-work.service"):
            path = Path(settings.BASE_DIR) / "deploy" / name
            lines = path.read_text().splitlines()
            settings_ = dict(line.split("=", 1) for line in lines if "=" in line and line[0] != "#")
            for key, value in (
                ("User", "roundpantry"),
                ("ProtectSystem", "strict"),
                ("NoNewPrivileges", "yes"),
                ("PrivateTmp", "yes"),
                ("UMask", "0077"),
                ("StateDirectoryMode", "0700"),
                ("CapabilityBoundingSet", ""),
            ):
                self.assertEqual(settings_[key], value, name)


def _of(environment):
    rows = (line for line in environment.read_text().splitlines() if line and line[0] != "#")
    return dict(row.split("=", 1) for row in rows)
