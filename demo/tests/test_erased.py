"""Somebody erased: nothing of them is left in the file of the database, nor in the record."""

import json
from io import StringIO
from pathlib import Path

from django.core.management import call_command
from django.db import connection
from django.test import TransactionTestCase
from django.utils import timezone
from django_scopes import scope

from bowls.models import Bowl
from clients.models import Client, Intake
from demo.load import NAME
from demo.tests.demo_rows import fill
from practice.models import User
from record import chain, reads
from record.acting import acting
from record.models import READ, Entry
from record.sealing import unseal
from record.testing import OwnFolder
from rights.archive.gathering import own_rows
from rights.erasing import erase, erase_again, mentions
from rights.models import Erased


class Forgotten(OwnFolder, TransactionTestCase):
    def setUp(self):
        super().setUp()
        fill()
        self.user = User.objects.get(username=NAME)
        self.practice = self.user.practice
        with scope(practice=self.practice):
            self.osk = Client.objects.get(name__startswith="Osk")
            self.number = self.osk.pk

    def in_the_file(self, *words):
        """Which words stand anywhere in the database's file, or in what lies beside it."""
        path = Path(connection.settings_dict["NAME"])
        bytes_ = b"".join(
            one.read_bytes() for one in path.parent.glob(f"{path.name}*") if one.is_file()
        )
        return [word for word in words if word.encode() in bytes_]

    def test_nothing_is_left_of_them(self):
        with scope(practice=self.practice):
            with acting(self.practice.pk, self.user.pk):
                self.osk.notes = "a plain marker 7391 of what was written"
                self.osk.save()
                self.osk.notes = "something else"
                self.osk.save()
            reads.note(self.practice.pk, self.user.pk, READ, "clients:page", self.number)
            everybody = Client.with_removed.count()
            others = {
                one.pk: len(list(own_rows(one))) for one in Client.objects.exclude(pk=self.number)
            }
            visits = [
                words for visit in self.osk.visits.all() for words in visit.words.values() if words
            ]
            self.assertTrue(self.in_the_file(self.osk.name))
            receipt = erase(self.osk, self.user)
        words = (self.osk.name, "marker 7391", "something else", *[one[:60] for one in visits])
        self.assertEqual(self.in_the_file(*words), [])
        self.assertGreater(receipt.rows, 100)
        with scope(practice=self.practice):
            self.assertEqual(Client.with_removed.count(), everybody - 1)
            for one in Client.objects.all():
                self.assertEqual(len(list(own_rows(one))), others[one.pk], one.name)
            kept = json.dumps(list(Erased.objects.values("practice", "client", "rows")))
        self.assertNotIn("Osk", kept)
        said = Entry.objects.filter(practice=self.practice.pk, client=self.number)
        self.assertFalse(said.exclude(contents=None).exists())
        self.assertEqual(list(chain.faults(self.practice.pk)), [])
        # 190 days: the oldest backup there is
        self.assertEqual((receipt.in_backups_until - receipt.at.date()).days in (189, 190), True)
        self.assertFalse(any((self.var / "reads").glob("*.jsonl")))

    def test_nor_of_what_was_written_before_they_were_a_client(self):
        with scope(practice=self.practice), acting(self.practice.pk, self.user.pk):
            visit = Intake.objects.create(
                practice=self.practice, by=self.user, data={"name": ["Osk, as he said it"]}
            )
            visit.client = self.osk
            visit.save()
        entry = Entry.objects.filter(kind="clients.intake").first()
        self.assertIn("Osk", str(unseal(entry.practice, entry.client, bytes(entry.contents))))
        with scope(practice=self.practice):
            erase(self.osk, self.user)
        said = Entry.objects.filter(kind="clients.intake", thing=visit.pk)
        self.assertEqual([one.contents for one in said], [None, None])
        self.assertEqual(list(chain.faults(self.practice.pk)), [])

    def test_every_client_can_be_erased(self):
        with scope(practice=self.practice):
            for client in Client.with_removed.all():
                erase(client, self.user)
            self.assertEqual(Client.with_removed.count(), 0)
            self.assertFalse(Bowl.with_removed.exclude(client=None).exists())
        with connection.cursor() as cursor:
            self.assertEqual(cursor.execute("PRAGMA foreign_key_check").fetchall(), [])
        self.assertEqual(list(chain.faults(self.practice.pk)), [])

    def test_a_bowl_that_somebody_else_eats_of_stays_under_no_name(self):
        with scope(practice=self.practice):
            bowl = Bowl.objects.create(
                practice=self.practice, name="Osk's own bowl 5512", client=self.osk
            )
            other = Client.objects.exclude(pk=self.number).filter(days__isnull=False).first()
            other.days.first().entries.create(meal="lunch", bowl=bowl, amount=1)
            erase(self.osk, self.user)
            bowl.refresh_from_db()
            self.assertEqual((bowl.name, bowl.client), ("Somebody's bowl", None))
        self.assertEqual(self.in_the_file("own bowl 5512"), [])

    def test_where_else_the_name_stands_is_said(self):
        with scope(practice=self.practice):
            other = Client.objects.exclude(pk=self.number).first()
            other.notes = f"Shares a kitchen with {self.osk.name}."
            other.save()
            self.assertIn(other.name, [one.words for one in mentions(self.osk)])
            self.assertNotIn(self.osk.name, [one.words for one in mentions(self.osk)])

    def test_who_comes_back_with_an_older_backup_is_erased_again(self):
        with scope(practice=self.practice):
            erase(self.osk, self.user)
            Client(
                pk=self.number,
                practice=self.practice,
                name="Osk again",
                sex="male",
                birth_year=1980,
                height_cm=180,
                weight_kg=90,
                updated=timezone.now(),
            ).save_base(raw=True, force_insert=True)
        self.assertEqual(erase_again(), 1)
        self.assertEqual(erase_again(), 0)
        self.assertFalse(Client._base_manager.filter(pk=self.number).exists())

    def test_the_record_is_verified_after_it(self):
        with scope(practice=self.practice):
            erase(self.osk, self.user)
        call_command("verify_record", verbosity=0, stdout=StringIO())
