"""The demo as archives: read back it is the same, and no table of ours is missing."""

import io
import json
import tempfile
import zipfile
from io import StringIO
from pathlib import Path

from django.apps import apps
from django.conf import settings
from django.core.management import CommandError, call_command
from django.test import TestCase
from django_scopes import scope

from clients.models import Client
from demo.load import NAME
from demo.tests.demo_rows import fill
from nutrition.formats.recipe_files import read_recipe
from practice.models import Practice, User
from record import chain
from record.acting import acting
from record.models import CHANGED
from record.recorded import Recorded, RecordedRows, kind_of
from rights.archive.layout import UnreadableArchive
from rights.archive.reading import opened, read_client, read_practice
from rights.archive.tables import LEFT_OUT, archived, path_to
from rights.archive.writing import archive_of_client, archive_of_practice

# Beside the data: when it was made, and for whom it reads.
NOT_COMPARED = {"manifest.json", "README.txt", "read/client.html"}


def files_of(archive):
    with zipfile.ZipFile(io.BytesIO(archive)) as there:
        return {name: there.read(name) for name in there.namelist() if name not in NOT_COMPARED}


def repacked(archive, **changed):
    """The archive with files put in place of its own."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(archive)) as there, zipfile.ZipFile(out, "w") as new:
        for name in there.namelist():
            key = name.replace("/", "__").replace(".", "_")
            new.writestr(name, changed.get(key, there.read(name)))
    return out.getvalue()


class Tables(TestCase):
    def test_every_table_is_in_an_archive_or_says_why_not(self):
        here = str(settings.BASE_DIR)
        ours = {
            model._meta.label_lower
            for model in apps.get_models()
            if str(Path(apps.get_app_config(model._meta.app_label).path)).startswith(here)
            and ".venv" not in apps.get_app_config(model._meta.app_label).path
        }
        self.assertGreater(len(ours), 40)
        named = {kind_of(model) for model in archived()}
        self.assertEqual(named | set(LEFT_OUT), ours)
        self.assertFalse(named & set(LEFT_OUT))
        self.assertTrue(all(LEFT_OUT.values()))

    def test_every_table_leads_to_its_practice(self):
        without = [kind_of(model) for model in archived() if path_to(model, "practice") is None]
        self.assertEqual(without, [])

    def test_every_table_is_in_the_record(self):
        # a dish as it was planned is never changed, and what holds it is in the record
        left = [
            kind_of(model)
            for model in archived()
            if not issubclass(model, Recorded) and kind_of(model) != "planner.planneddish"
        ]
        self.assertEqual(left, [])
        for model in archived():
            if issubclass(model, Recorded):
                with scope(practice=None):
                    self.assertTrue(
                        issubclass(type(model.objects.none()), RecordedRows), kind_of(model)
                    )


class Archived(TestCase):
    def setUp(self):
        fill()
        self.user = User.objects.get(username=NAME)
        self.practice = self.user.practice
        self.other = Practice.objects.exclude(pk=self.practice.pk).get()
        with scope(practice=self.practice):
            self.osk = Client.objects.get(name__startswith="Osk")

    def something_happens(self):
        """A change of a client's, in the record."""
        with scope(practice=self.practice), acting(self.practice.pk, self.user.pk):
            self.osk.notes = "Cooks on Sundays, for the week."
            self.osk.save()

    def test_a_practice_read_back_is_the_same(self):
        self.something_happens()
        with scope(practice=self.practice):
            first = archive_of_practice(self.practice)
        # the installation that reads it has nobody of that name
        Practice.objects.filter(pk=self.practice.pk).update(name="Before")
        for user in User.objects.all():
            User.objects.filter(pk=user.pk).update(username=f"before-{user.username}")
        practice, people = read_practice(opened(first))
        with scope(practice=practice):
            again = archive_of_practice(practice)
        one, two = files_of(first), files_of(again)
        self.assertEqual(sorted(one), sorted(two))
        for name, content in one.items():
            self.assertEqual(content, two[name], name)
        self.assertGreater(len(one), 30)
        self.assertEqual(list(chain.faults(practice.pk)), [])
        marin = next(user for user in people if user.username == NAME)
        self.assertFalse(marin.has_usable_password())
        self.assertEqual(marin.role, "owner")

    def test_a_client_goes_to_another_practice_with_everything(self):
        self.something_happens()
        with scope(practice=self.practice):
            first = archive_of_client(self.osk)
        taker = User.objects.get(practice=self.other)
        moved = read_client(opened(first), self.other, taker)
        self.assertEqual((moved.name, moved.practice), (self.osk.name, self.other))
        with scope(practice=self.other):
            again = archive_of_client(moved)
        one, two = files_of(first), files_of(again)
        self.assertEqual(sorted(one), sorted(two))
        names = [
            {row["id"]: row["name"] for row in json.loads(files["people.json"])}
            for files in (one, two)
        ]
        for name, content in one.items():
            if not name.startswith("data/"):
                continue
            rows, others = json.loads(content), json.loads(two[name])
            for row, other in zip(rows, others, strict=True):
                for key in row.keys() & {"by", "removed_by", "retired_by", "undone_by"}:
                    row[key], other[key] = names[0].get(row[key]), names[1].get(other[key])
            self.assertEqual(rows, others, name)
        # the record came along, and says that it did
        before, after = (json.loads(files["record.json"]) for files in (one, two))
        self.assertEqual(
            [row["says"] for row in before], [row["says"] for row in after[: len(before)]]
        )
        self.assertEqual(after[-1]["act"], "took in")
        self.assertEqual(list(chain.faults(self.other.pk)), [])
        # nobody new can sign in
        self.assertFalse(User.objects.filter(only_a_name=True, is_active=True).exists())

    def test_every_client_can_go(self):
        taker = User.objects.get(practice=self.other)
        with scope(practice=self.practice):
            archives = [archive_of_client(client) for client in Client.objects.all()]
        self.assertGreater(len(archives), 10)
        for archive in archives:
            read_client(opened(archive), self.other, taker)
        with scope(practice=self.other):
            self.assertEqual(Client.objects.count(), len(archives))

    def test_nothing_of_anybody_else_is_in_it(self):
        with scope(practice=self.practice):
            archive = archive_of_client(self.osk)
            others = [client.name for client in Client.with_removed.exclude(pk=self.osk.pk)]
        with zipfile.ZipFile(io.BytesIO(archive)) as there:
            text = b"".join(there.read(name) for name in there.namelist()).decode()
        self.assertIn(self.osk.name, text)
        self.assertEqual([name for name in others if name in text], [])
        self.assertNotIn("argon2", text)
        self.assertNotIn("md5$", text)

    def test_what_lies_beside_is_read_by_others(self):
        with scope(practice=self.practice):
            files = files_of(archive_of_client(self.osk))
        recipes = [name for name in files if name.startswith("open/recipes/")]
        self.assertGreater(len(recipes), 4)
        for name in recipes:
            self.assertTrue(read_recipe(files[name].decode(), name).recipe.lines, name)
        weights = files["open/weights.csv"].decode().splitlines()
        self.assertGreater(len(weights), 10)
        self.assertTrue(weights[0].startswith("date,weight [kg]"))

    def test_one_that_is_not_whole_is_refused_and_nothing_is_taken_in(self):
        with scope(practice=self.practice):
            archive = archive_of_client(self.osk)
        taker = User.objects.get(practice=self.other)
        fine = opened(archive)
        tables = {name: [dict(row) for row in rows] for name, rows in fine.tables.items()}
        dangling = tables["planner.dayentry"]
        dangling[0]["day"] = 99_999
        for broken, said in (
            (lambda: opened(b"no zip"), "no zip file"),
            (lambda: opened(archive[:-200]), "no zip file"),
            (lambda: opened(repacked(archive, record_json=b"[]")), "was changed"),
            (lambda: opened(repacked(archive, manifest_json=b"{}")), "not whole"),
            (lambda: opened(repacked(archive, manifest_json=b"[1]")), "not whole"),
            (lambda: read_practice(fine), "archive of one client"),
            (
                lambda: read_client(
                    type(fine)(**{**vars(fine), "tables": tables}), self.other, taker
                ),
                "does not fit together",
            ),
            (
                lambda: read_client(
                    type(fine)(**{**vars(fine), "tables": {**fine.tables, "x.y": []}}),
                    self.other,
                    taker,
                ),
                "what is no client's",
            ),
        ):
            with self.subTest(said), self.assertRaises(UnreadableArchive) as caught:
                broken()
            self.assertIn(said, str(caught.exception))
        with scope(practice=self.other):
            self.assertEqual(Client.with_removed.count(), 0)
        self.assertFalse(User.objects.filter(only_a_name=True).exists())

    def test_the_record_is_in_it_in_words(self):
        self.something_happens()
        with scope(practice=self.practice):
            record = json.loads(files_of(archive_of_client(self.osk))["record.json"])
        self.assertEqual(record[-1]["act"], CHANGED)
        self.assertEqual(
            record[-1]["says"]["changes"]["notes"][1], "Cooks on Sundays, for the week."
        )

    def test_the_commands_write_and_read_one(self):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "osk.zip"
            call_command(
                "write_archive",
                "tern point wellness",
                str(path),
                client=self.osk.name,
                stdout=StringIO(),
            )
            self.assertEqual(path.stat().st_mode & 0o777, 0o600)
            for refused in (("nobody", str(path)), ("Tern Point Wellness", str(path))):
                with self.assertRaises(CommandError):
                    call_command("write_archive", *refused, stdout=StringIO())
            with self.assertRaises(CommandError) as caught:
                call_command("read_archive", str(path), stdout=StringIO())
            self.assertIn("--into NAME", str(caught.exception))
            out = StringIO()
            call_command("read_archive", str(path), into=self.other.name, stdout=out)
        self.assertIn(f"{self.osk.name} is at {self.other.name}", out.getvalue())
