"""What cannot be kept is said; what is not safe is not started; what is written down of it says
nothing of anybody."""

import json
import logging
import stat
import subprocess
import sys
from io import StringIO

from django.conf import settings
from django.db import OperationalError, connection
from django.test import Client as Browser

from practice.models import Practice
from running import logs, secure
from running.testing import Installed

LONG = "x" * 50


class Disk(Installed):
    def setUp(self):
        super().setUp()
        self.browser = Browser(raise_request_exception=False)
        self.browser.force_login(self.user, backend="django.contrib.auth.backends.ModelBackend")
        self.browser.get("/practice/")

    def save(self, name="Renamed", headers=None):
        said = {"name": name, "measures": "us", "time_zone": "America/New_York"}
        version = Practice.objects.get(pk=self.practice.pk).version
        said |= {"contact": "c" * 190, "version": str(version)}
        return self.browser.post("/practice/", said, headers=headers)

    def set(self, pragma):
        with connection.cursor() as cursor:
            return cursor.execute(f"PRAGMA {pragma}").fetchone()

    def test_a_full_disk_says_so_and_keeps_what_there_was(self):
        pages = self.set("page_count")[0]
        with connection.cursor() as cursor:
            # what is free within the file is used up, and no page more is to be had
            cursor.execute("CREATE TABLE filler (a)")
            self.set(f"max_page_count = {pages + 4}")
            for size in (200_000, 20_000, 2_000):
                with self.assertRaisesMessage(OperationalError, "full"):
                    for _ in range(10_000):
                        cursor.execute(f"INSERT INTO filler VALUES (zeroblob({size}))")
        try:
            acknowledged, page = "Tern Point Wellness", None
            # what there is of room on pages that are begun is used up first
            for at in range(200):
                page = self.save(f"Renamed {at}")
                if page.status_code != 302:
                    break
                acknowledged = f"Renamed {at}"
            self.assertContains(page, "The disk is full", status_code=503)
            told = self.save(headers={"Sent-By": "page"})
            self.assertContains(told, "Nothing was saved", status_code=503)
            self.assertEqual(told["Content-Type"], "text/plain")
            # reading goes on, and what was acknowledged is there
            self.assertEqual(self.browser.get("/practice/").status_code, 200)
            self.assertEqual(Practice.objects.get(pk=self.practice.pk).name, acknowledged)
        finally:
            self.set("max_page_count = 1073741823")
            with connection.cursor() as cursor:
                cursor.execute("DROP TABLE filler")
        self.assertEqual(self.save().status_code, 302)

    def test_a_disk_that_is_only_read(self):
        self.set("query_only = 1")
        try:
            self.assertContains(self.save(), "it can only be read", status_code=503)
            self.assertEqual(self.browser.get("/practice/").status_code, 200)
        finally:
            self.set("query_only = 0")
        self.assertEqual(self.save().status_code, 302)

    def test_with_the_power_what_is_stored_is_on_the_disk(self):
        # 2 is FULL: each commit waits for the disk
        self.assertEqual(self.set("synchronous")[0], 2)
        self.assertEqual(self.set("journal_mode")[0], "wal")
        self.assertEqual(self.set("secure_delete")[0], 1)


class Secure(Installed):
    FINE = {
        "DEMO": False,
        "DEBUG": False,
        "SECURE_SSL_REDIRECT": True,
        "SECRET_KEY": LONG,
        "ALLOWED_HOSTS": ["pantry.example"],
        "OTP_WEBAUTHN_RP_ID": "pantry.example",
    }

    def faults(self, **changed):
        with self.settings(**{**self.FINE, **changed}):
            return " ".join(one for one in secure.faults() if "can be read by others" not in one)

    def test_each_thing_that_must_hold(self):
        self.assertEqual(self.faults(), "")
        for changed, said in (
            ({"DEBUG": True}, "pages of errors"),
            ({"SECURE_SSL_REDIRECT": False}, "cross the network"),
            ({"SECRET_KEY": "x" * 49}, "fewer than 50"),
            ({"ALLOWED_HOSTS": ["*"]}, "does not name the site"),
            ({"OTP_WEBAUTHN_RP_ID": ""}, "does not name the site"),
        ):
            self.assertIn(said, self.faults(**changed))
        self.assertEqual(self.faults(DEMO=True, DEBUG=True), "")

    def test_what_others_could_read(self):
        with self.settings(**self.FINE):
            self.var.chmod(0o755)
            self.assertIn(f"{self.var} can be read by others", " ".join(secure.faults()))
            self.var.chmod(0o700)
            self.assertNotIn(f"{self.var} can be read", " ".join(secure.faults()))

    def start(self, *given, **environment):
        return subprocess.run(
            [sys.executable, "-m", "roundpantry.serve", *given],
            cwd=settings.BASE_DIR,
            env={"PATH": "/usr/bin:/bin", "ROUNDPANTRY_VAR": str(self.var), **environment},
            capture_output=True,
            text=True,
            check=False,
        )

    def test_it_does_not_start_unsafe(self):
        done = self.start()
        self.assertEqual(done.returncode, 1)
        self.assertIn("ROUNDPANTRY_HTTPS is not 1", done.stderr)
        self.assertIn("ROUNDPANTRY_HOSTS does not name the site", done.stderr)

    def test_the_demo_is_served_to_this_machine_alone(self):
        done = self.start("--listen", "0.0.0.0:8499", ROUNDPANTRY_DEMO="1")
        self.assertEqual(done.returncode, 1)
        self.assertIn("to this machine alone", done.stderr)

    def test_it_does_not_start_with_a_database_that_is_behind(self):
        done = self.start(ROUNDPANTRY_DEMO="1")
        self.assertEqual(done.returncode, 1)
        self.assertIn("steps behind", done.stderr)
        # what it made is its user's alone
        for path in self.var.iterdir():
            self.assertEqual(stat.S_IMODE(path.stat().st_mode) & 0o077, 0, path)


class Logged(Installed):
    def line(self, **more):
        record = logging.LogRecord("roundpantry.x", logging.ERROR, "f.py", 1, "said", (), None)
        vars(record).update(more)
        return json.loads(logs.WithoutData().format(record))

    def test_an_error_has_its_kind_and_its_places_and_none_of_its_words(self):
        try:
            {}["Osk Brannigan weighs 91 kg"]
        except KeyError:
            told = self.line(exc_info=sys.exc_info())
        self.assertEqual(told["error"], "KeyError")
        self.assertTrue(
            told["where"][-1].endswith(
                "test_an_error_has_its_kind_and_its_places_and_none_of_its_words"
            )
        )
        self.assertNotIn("Osk", json.dumps(told))

    def test_a_request_is_told_by_the_name_of_its_address(self):
        self.client.force_login(self.user, backend="django.contrib.auth.backends.ModelBackend")
        with self.assertLogs("roundpantry.asked", "INFO") as caught:
            answer = self.client.get("/recipes/?q=a+secret+soup")
        record = caught.records[0]
        told = json.loads(logs.WithoutData().format(record))
        self.assertEqual((told["route"], told["status"]), ("recipes:list", 200))
        self.assertEqual(told["number"], answer["Request-Number"])
        self.assertNotIn("secret", json.dumps(told))

    def test_what_the_framework_says_of_a_page_has_no_path(self):
        record = logging.LogRecord(
            "django.request", logging.WARNING, "f", 1, "%s: %s", ("Not Found", "/x/osk/"), None
        )
        told = json.loads(logs.WithoutData().format(record))
        self.assertEqual((told["said"], told["route"]), ("Not Found", "unknown"))
        self.assertNotIn("osk", json.dumps(told))

    def test_errors_are_kept_for_their_user_alone(self):
        handler = logs.Errors()
        handler.setFormatter(logs.WithoutData())
        handler.handle(logging.LogRecord("x", logging.ERROR, "f", 1, "said", (), None))
        handler.close()
        path = self.var / "errors.jsonl"
        self.assertEqual(json.loads(path.read_text())["said"], "said")
        self.assertEqual(stat.S_IMODE(path.stat().st_mode), 0o600)

    def test_pages_are_kept_by_no_browser(self):
        self.client.force_login(self.user, backend="django.contrib.auth.backends.ModelBackend")
        self.assertEqual(self.client.get("/clients/")["Cache-Control"], "no-store")
        self.assertIn("no-cache", Browser().get("/sign-in/")["Cache-Control"])


class Steps(Installed):
    def test_every_step_that_touches_what_is_stored_says_what_it_changes(self):
        from django.db.migrations.loader import MigrationLoader
        from django.db.migrations.operations import RunPython

        here = str(settings.BASE_DIR)
        silent = []
        for (app, name), migration in MigrationLoader(None).disk_migrations.items():
            module = sys.modules[type(migration).__module__]
            path = str(module.__file__)
            if not path.startswith(here) or ".venv" in path:
                continue
            touches = any(isinstance(one, RunPython) for one in migration.operations)
            if touches and not hasattr(module, "SAID"):
                silent.append(f"{app}.{name}")
        self.assertEqual(silent, [])

    def test_an_upgrade_is_refused_while_it_is_served(self):
        from django.core.management import CommandError, call_command

        from running import holding

        with holding.serving(), self.assertRaises(CommandError):
            call_command("upgrade", stdout=StringIO())
