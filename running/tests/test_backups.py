"""Backups made while others write, opened, checked, sealed; put back; and what is refused."""

import json
import os
import sqlite3
import stat
import threading
from contextlib import closing
from datetime import timedelta
from io import StringIO
from pathlib import Path
from unittest.mock import patch

from django.core.management import CommandError, call_command
from django.db import connection, connections
from django.utils import timezone
from django_scopes import scope

from clients.models import Client
from nutrition.tests.thorough import thorough
from practice.models import Practice
from record import chain, heads
from record.acting import acting
from record.models import CHANGED
from rights.erasing import erase
from running import backing_up, checking, holding, places, restoring, state
from running.backing_up import NoBackup
from running.checking import NotWhole
from running.holding import Held
from running.testing import Installed


def damage(path):
    """Overwrite a stretch of a file, where the first tables of a database lie."""
    with path.open("r+b") as there:
        there.seek(2 * 4096)
        there.write(b"\xa5" * 8 * 4096)


class Making(Installed):
    def test_it_is_a_database_of_its_own_and_its_users_alone(self):
        made, looked = backing_up.make()
        self.assertEqual(looked.practices, 1)
        self.assertEqual(made.path.parent, self.var / "backups")
        self.assertEqual(stat.S_IMODE(made.path.stat().st_mode), 0o600)
        self.assertEqual(stat.S_IMODE(made.path.parent.stat().st_mode), 0o700)
        with closing(sqlite3.connect(made.path)) as there:
            names = there.execute("SELECT name FROM practice_practice").fetchall()
        self.assertEqual(names, [("Tern Point Wellness",)])
        self.assertEqual([one.path for one in backing_up.all_in()], [made.path])
        self.assertEqual(len(list(made.path.parent.iterdir())), 1)

    def test_while_others_write_each_is_of_one_moment(self):
        over = threading.Event()
        wrong = []

        def write():
            try:
                at = 0
                while not over.is_set():
                    at += 1
                    with acting(self.practice.pk, self.user.pk):
                        chain.write(CHANGED, "bowls.bowl", at, contents={"at": at})
            except Exception as error:  # noqa: BLE001  told below
                wrong.append(error)
            finally:
                connections.close_all()

        writer = threading.Thread(target=write)
        writer.start()
        try:
            counts = [backing_up.make()[1].entries for _ in range(8)]
        finally:
            over.set()
            writer.join()
        self.assertEqual(wrong, [])
        self.assertEqual(counts, sorted(counts))
        self.assertGreater(counts[-1], counts[0])
        # what is in each is a chain without a gap
        for one in backing_up.all_in():
            with closing(sqlite3.connect(one.path)) as there:
                numbers = [row[0] for row in there.execute("SELECT number FROM record_entry")]
            self.assertEqual(sorted(numbers), list(range(1, len(numbers) + 1)))

    def test_sealed_it_is_nothing_without_its_key(self):
        key, other = self.var / "key", self.var / "other"
        backing_up.new_key(key)
        backing_up.new_key(other)
        self.assertEqual(stat.S_IMODE(key.stat().st_mode), 0o600)
        with self.assertRaises(NoBackup):
            backing_up.new_key(key)
        with patch.dict(os.environ, ROUNDPANTRY_BACKUP_KEY=str(key)):
            made, _looked = backing_up.make()
        self.assertTrue(made.sealed)
        self.assertNotIn(b"Tern Point", made.path.read_bytes())
        with backing_up.opened(made.path, self.var, key) as (plain, looked):
            self.assertEqual(looked.practices, 1)
            self.assertEqual(stat.S_IMODE(plain.parent.stat().st_mode), 0o700)
        self.assertFalse(plain.exists())
        for given in (None, other):
            with (
                self.assertRaises(NoBackup),
                backing_up.opened(made.path, self.var, given),
            ):
                pass

    def test_one_that_is_damaged_is_not_opened(self):
        made, _looked = backing_up.make()
        damage(made.path)
        with self.assertRaises(NoBackup), backing_up.opened(made.path, self.var):
            pass
        key = self.var / "key"
        backing_up.new_key(key)
        with patch.dict(os.environ, ROUNDPANTRY_BACKUP_KEY=str(key)):
            made, _looked = backing_up.make()
            damage(made.path)
            with self.assertRaises(NoBackup), backing_up.opened(made.path, self.var):
                pass

    def test_a_database_that_is_damaged_makes_no_backup(self):
        bad = self.copy_of_database(self.var / "bad.sqlite3")
        damage(bad)
        with self.assertRaises(NotWhole):
            checking.look(bad)
        with (
            patch("running.places.database", return_value=bad),
            self.assertRaises(NoBackup),
        ):
            backing_up.make()
        self.assertEqual(backing_up.all_in(), [])

    def test_rows_that_point_to_nothing_are_found(self):
        loose = self.copy_of_database(self.var / "loose.sqlite3")
        with closing(sqlite3.connect(loose)) as there:
            there.execute("UPDATE practice_user SET practice_id = 999")
            there.commit()
        with self.assertRaises(NotWhole) as caught:
            checking.look(loose)
        self.assertIn("1 rows that point to nothing", str(caught.exception))

    def test_a_disk_that_is_full_leaves_nothing_half_made(self):
        full = OSError(28, "No space left on device")
        with patch("os.replace", side_effect=full), self.assertRaises(NoBackup) as caught:
            backing_up.make()
        self.assertIn("No space left", str(caught.exception))
        self.assertEqual(list((self.var / "backups").iterdir()), [])

    def test_a_year_of_nights_in_a_folder(self):
        now, folder = timezone.now(), self.var / "year"
        folder.mkdir()
        for night in range(365):
            at = now - timedelta(days=364 - night)
            (folder / at.strftime("roundpantry-%Y%m%dT%H%M%S%fZ.sqlite3")).write_bytes(b"x")
            backing_up.take_away(folder, at)
        there = backing_up.all_in(folder)
        self.assertLessEqual(len(there), 28)
        self.assertGreater(len(there), 20)
        self.assertLessEqual(now - there[-1].made, timedelta(days=190))
        (folder / "letter.txt").write_text("not ours")
        backing_up.take_away(folder, now)
        self.assertTrue((folder / "letter.txt").exists())

    def test_the_command(self):
        out = StringIO()
        call_command("backup", to=str(self.var / "elsewhere"), stdout=out)
        self.assertIn("opened: 1 practices, 0 clients", out.getvalue())
        call_command("backup", to=str(self.var / "elsewhere"), list=True, stdout=out)
        self.assertEqual(len(list((self.var / "elsewhere").iterdir())), 1)
        with self.assertRaises(CommandError):
            call_command("backup", to="/proc/nowhere", stdout=out)


class PuttingBack(Installed):
    """In a database of its own: the one of the test is not swapped under it."""

    def setUp(self):
        super().setUp()
        self.own = self.copy_of_database(self.var / "own.sqlite3")
        self.other = connection.settings_dict["NAME"]
        self.use(self.own)
        self.addCleanup(self.use, self.other)

    def use(self, path):
        connections.close_all()
        connection.settings_dict["NAME"] = str(path)
        connection.settings_dict["TEST"]["NAME"] = str(path)
        from django.conf import settings

        settings.DATABASES["default"]["NAME"] = str(path)

    def somebody(self):
        return Client.objects.create(
            practice=self.practice,
            name="Osk Brannigan",
            sex="male",
            birth_year=1980,
            height_cm=180,
            weight_kg=90,
        )

    def test_it_is_as_it_was_and_what_was_there_is_kept(self):
        made, _looked = backing_up.make()
        Practice.objects.update(name="Changed since")
        done = restoring.put_back(made.path)
        self.assertEqual(Practice.objects.get().name, "Tern Point Wellness")
        self.assertEqual(checking.look(done.before).practices, 1)
        with closing(sqlite3.connect(done.before)) as there:
            name = there.execute("SELECT name FROM practice_practice").fetchone()
        self.assertEqual(name, ("Changed since",))
        self.assertEqual(stat.S_IMODE(self.own.stat().st_mode), 0o600)
        self.assertFalse(any(self.var.glob(".opening-*")))

    def test_into_an_empty_place(self):
        made, _looked = backing_up.make()
        connections.close_all()
        for one in (self.own, *places.beside(self.own)):
            one.unlink(missing_ok=True)
        done = restoring.put_back(made.path)
        self.assertIsNone(done.before)
        self.assertEqual(Practice.objects.get().name, "Tern Point Wellness")

    def test_in_the_place_of_one_that_is_damaged(self):
        made, _looked = backing_up.make()
        connections.close_all()
        damage(self.own)
        done = restoring.put_back(made.path)
        self.assertEqual(Practice.objects.get().name, "Tern Point Wellness")
        self.assertTrue(done.before.exists())

    def test_a_bad_one_changes_nothing(self):
        made, _looked = backing_up.make()
        damage(made.path)
        with self.assertRaises(NoBackup):
            restoring.put_back(made.path)
        with self.assertRaises(NoBackup):
            restoring.put_back(self.var / "nothing")
        self.assertEqual(Practice.objects.get().name, "Tern Point Wellness")
        self.assertFalse(any(self.var.glob("*.before-*")))

    def test_one_of_a_newer_version_is_refused(self):
        with connection.cursor() as cursor:
            cursor.execute(
                "INSERT INTO django_migrations (app, name, applied) "
                "VALUES ('clients', '9999_to_come', '2030-01-01')"
            )
        made, _looked = backing_up.make()
        with self.assertRaises(NoBackup) as caught:
            restoring.put_back(made.path)
        self.assertIn("newer version", str(caught.exception))

    def test_not_while_a_server_or_a_worker_has_it(self):
        made, _looked = backing_up.make()
        for held in (holding.serving, holding.working):
            with held(), self.assertRaises(Held):
                restoring.put_back(made.path)
        out = StringIO()
        call_command("restore", str(made.path), stdout=out)
        self.assertIn("Put back: 1 practices", out.getvalue())

    def test_whoever_was_erased_since_is_erased_again(self):
        with scope(practice=self.practice):
            client = self.somebody()
            made, _looked = backing_up.make()
            erase(client, self.user)
        done = restoring.put_back(made.path)
        self.assertEqual(done.erased, 1)
        with scope(practice=self.practice):
            self.assertEqual(Client.with_removed.count(), 0)
        connections.close_all()
        self.assertNotIn(b"Brannigan", self.own.read_bytes())

    @thorough
    def test_an_upgrade_makes_a_backup_first_and_has_a_way_back(self):
        call_command("migrate", "clients", "0007", verbosity=0)
        connections.close_all()
        out = StringIO()
        call_command("upgrade", stdout=out)
        said = out.getvalue()
        self.assertIn("Clients who are there keep what was chosen for them", said)
        self.assertIn("steps taken", said)
        (made,) = backing_up.all_in()
        self.assertIn(f"bin/restore {made.path}", said)
        with closing(sqlite3.connect(made.path)) as there:
            names = [row[0] for row in there.execute("SELECT name FROM django_migrations")]
        self.assertFalse([name for name in names if name.startswith("0008_weight_before")])
        self.assertEqual(Practice.objects.get().name, "Tern Point Wellness")
        again = StringIO()
        call_command("upgrade", stdout=again)
        self.assertIn("up to this version", again.getvalue())
        self.assertEqual(restoring.put_back(made.path).words[:11], "1 practices")

    def test_on_another_machine_too(self):
        with scope(practice=self.practice):
            client = self.somebody()
            older, _looked = backing_up.make()
            erase(client, self.user)
            backing_up.make()
        # the folder of the backups came along, what lay beside the database did not
        (self.var / "erased.jsonl").unlink()
        self.assertEqual(restoring.put_back(older.path).erased, 1)
        self.assertTrue((self.var / "erased.jsonl").exists())

    def test_the_record_is_verified_after_it(self):
        with acting(self.practice.pk, self.user.pk):
            chain.write(CHANGED, "bowls.bowl", 1)
            made, _looked = backing_up.make()
            chain.write(CHANGED, "bowls.bowl", 2)
        heads.note()
        restoring.put_back(made.path)
        self.assertEqual(chain.head(self.practice.pk)[0], 1)
        call_command("verify_record", stdout=StringIO())


class Holding(Installed):
    def test_a_second_server_is_told(self):
        with holding.serving(), self.assertRaises(Held) as caught, holding.serving():
            pass
        self.assertIn("Another server has", str(caught.exception))
        with holding.serving():
            pass

    def test_workers_share_and_a_backup_that_is_put_back_does_not(self):
        with holding.working(), holding.working(), holding.serving():
            pass
        with holding.nobody_else(), self.assertRaises(Held), holding.working():
            pass


class Standing(Installed):
    def test_without_a_backup_and_a_worker_it_says_so(self):
        found = state.now()
        self.assertIn("There is no backup yet", " ".join(found.wrong))
        self.assertIn("The worker is silent", " ".join(found.wrong))

    def test_a_backup_is_old_after_a_day_and_a_half(self):
        for hours, wrong in ((35, False), (37, True)):
            backing_up.make(now=timezone.now() - timedelta(hours=hours))
            said = " ".join(state.now().wrong)
            self.assertEqual("hours old" in said, wrong, hours)
            for one in backing_up.all_in():
                one.path.unlink()

    def test_one_of_tomorrow_asks_after_the_clock(self):
        backing_up.make(now=timezone.now() + timedelta(hours=2))
        self.assertIn("was the clock set back?", " ".join(state.now().wrong))

    def test_the_disk_is_short_below_half_a_gigabyte_and_three_databases(self):
        for takes, free, short in (
            (1_000_000, 499_000_000, True),
            (1_000_000, 501_000_000, False),
            (1_000_000_000, 2_900_000_000, True),
            (1_000_000_000, 3_100_000_000, False),
        ):
            self.assertEqual(state.disk_is_short(takes, free), short)

    def test_the_worker_is_silent_after_ten_minutes(self):
        from jobs.models import Chore

        for minutes, there in ((9, True), (11, False)):
            Chore.objects.update_or_create(
                name="x", defaults={"last": timezone.now() - timedelta(minutes=minutes)}
            )
            self.assertEqual(state.worker_is_there(list(Chore.objects.all())), there)

    def test_the_errors_of_two_weeks_are_told(self):
        for days in (13.9, 14.1):
            at = timezone.now() - timedelta(days=days)
            row = {"at": at.strftime("%Y-%m-%dT%H:%M:%S%z"), "error": f"Error{days}"}
            with (self.var / "errors.jsonl").open("a") as there:
                there.write(f"{json.dumps(row)}\n")
        self.assertEqual([row["error"] for row in state.now().errors], ["Error13.9"])

    def test_whoever_watches_is_told_and_nothing_more(self):
        self.assertEqual(self.client.get("/health/").content, b"ok\n")
        answer = self.client.get("/ready/")
        self.assertEqual(
            (answer.status_code, answer.json()),
            (200, {"database": True, "in_step": True, "room": True}),
        )
        with patch("running.state.disk_is_short", return_value=True):
            self.assertEqual(self.client.get("/ready/").status_code, 503)

    def test_the_page_of_the_owners(self):
        backing_up.make()
        at = timezone.now().strftime("%Y-%m-%dT%H:%M:%S%z")
        row = {"at": at, "route": "bowls:page", "error": "ZeroDivisionError"}
        (self.var / "errors.jsonl").write_text(f"{json.dumps(row)}\nnot json\n")
        self.client.force_login(self.user, backend="django.contrib.auth.backends.ModelBackend")
        page = self.client.get("/installation/")
        self.assertContains(page, "bowls:page: ZeroDivisionError")
        self.assertContains(page, "they are not sealed")


class Nights(Installed):
    def test_sessions_that_are_over_are_taken_away(self):
        from people.models import SignedIn
        from running import nightly

        self.client.force_login(self.user, backend="django.contrib.auth.backends.ModelBackend")
        SignedIn.objects.create(user=self.user, session_key="long-gone")
        self.assertIn("1 places", nightly.tidy())
        self.assertEqual(SignedIn.objects.count(), 1)
        self.assertEqual(self.client.get("/practice/").status_code, 200)

    def test_a_backup_and_a_look_at_everything(self):
        from running import nightly

        with acting(self.practice.pk, self.user.pk):
            chain.write(CHANGED, "bowls.bowl", 1)
        said = nightly.back_up()
        self.assertIn("MB, opened and found whole", said)
        self.assertNotIn("practices", said)
        self.assertIn("the record as it was written", nightly.look_through())
        with connection.cursor() as cursor:
            cursor.execute("UPDATE record_entry SET who = 99")
        with self.assertRaises(nightly.RecordChanged):
            nightly.look_through()


class Paths(Installed):
    def test_what_is_written_is_there_whole_or_not_at_all(self):
        path = self.var / "file"
        path.write_text("before")

        def fails(part: Path):
            part.write_text("half")
            raise OSError(28, "No space left on device")

        with self.assertRaises(OSError):
            places.whole_or_not(path, fails)
        self.assertEqual(path.read_text(), "before")
        self.assertEqual([one.name for one in self.var.iterdir() if one.is_file()], ["file"])
