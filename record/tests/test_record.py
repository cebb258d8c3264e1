"""The record: a chain that shows what was done to it, contents that go with their key, reads that
take no lock."""

import json
from io import StringIO

from django.core.management import CommandError, call_command
from django.db import connection, transaction
from django.test import TestCase
from django.utils import timezone

from record import chain, heads, reads
from record.acting import acting, acting_now
from record.models import CHANGED, READ, AppendOnly, Entry, Key
from record.sealing import destroy, unseal
from record.testing import OwnFolder


class RecordCase(OwnFolder, TestCase):
    def three(self, practice=7):
        with acting(practice, 3):
            return [
                chain.write(CHANGED, "bowls.bowl", at, client=12, contents={"said": f"secret {at}"})
                for at in (1, 2, 3)
            ]


class Chain(RecordCase):
    def test_each_follows_the_one_before(self):
        first, second, third = self.three()
        self.assertEqual([first.number, second.number, third.number], [1, 2, 3])
        self.assertEqual(first.before, "0" * 64)
        self.assertEqual((second.before, third.before), (first.hash, second.hash))
        self.assertEqual(first.deed, third.deed)
        self.assertEqual(list(chain.faults(7)), [])
        self.assertEqual(chain.head(7), (3, third.hash))

    def test_each_practice_has_its_own(self):
        self.three(7)
        self.assertEqual(self.three(8)[0].number, 1)
        self.assertEqual(list(chain.faults(8)), [])

    def test_nobody_acting_writes_nothing(self):
        self.assertIsNone(acting_now())
        self.assertIsNone(chain.write(CHANGED, "bowls.bowl", 1))
        self.assertEqual(Entry.objects.count(), 0)

    def raw(self, statement, *values):
        with connection.cursor() as cursor:
            cursor.execute(statement, values)

    def test_what_is_done_to_it_behind_its_back_is_found(self):
        for statement, said in (
            ("UPDATE record_entry SET who = 4 WHERE number = 2", "entry 2 was changed"),
            ("UPDATE record_entry SET at = '2020-01-01 00:00:00' WHERE number = 1", "entry 1 was"),
            ("UPDATE record_entry SET act = 'read' WHERE number = 3", "entry 3 was changed"),
            ("UPDATE record_entry SET client = 13 WHERE number = 3", "entry 3 was changed"),
            ("UPDATE record_entry SET contents = x'00' WHERE number = 2", "what entry 2 says"),
            ("DELETE FROM record_entry WHERE number = 2", "entry 2 is missing"),
            ("DELETE FROM record_entry WHERE number = 1", "entry 1 is missing"),
        ):
            with self.subTest(statement), transaction.atomic():
                self.three()
                self.raw(statement)
                self.assertIn(said, " | ".join(chain.faults(7)))
                transaction.set_rollback(True)

    def test_an_end_that_was_cut_off_or_a_chain_made_anew_is_found_by_what_was_noted(self):
        self.three()
        heads.note()
        with transaction.atomic():
            self.raw("DELETE FROM record_entry WHERE number = 3")
            self.assertEqual(list(chain.faults(7)), [])
            said = list(chain.faults(7, heads.known()[7]))
            self.assertEqual(said, ["entry 3 was noted before, and is gone"])
            transaction.set_rollback(True)
        self.raw("DELETE FROM record_entry")
        self.three()
        said = list(chain.faults(7, heads.known()[7]))
        self.assertEqual(said, ["entry 3 is not the one that was noted before"])

    def test_it_is_not_changed_by_ourselves(self):
        first = self.three()[0]
        first.who = 9
        for change in (
            first.save,
            first.delete,
            lambda: Entry.objects.update(who=9),
            lambda: Entry.objects.filter(pk=first.pk).delete(),
        ):
            with self.assertRaises(AppendOnly):
                change()

    def test_the_command_says_so_and_fails(self):
        self.three()
        out = StringIO()
        call_command("verify_record", stdout=out)
        self.assertIn("practice 7: 3 entries, the chain holds", out.getvalue())
        self.assertEqual(len(heads.known()[7]), 1)
        self.raw("UPDATE record_entry SET who = 4 WHERE number = 2")
        with self.assertRaises(CommandError):
            call_command("verify_record", stdout=out)
        self.assertIn("entry 2 was changed", out.getvalue())


class Sealed(RecordCase):
    def test_what_is_stored_says_nothing(self):
        first = self.three()[0]
        self.assertNotIn(b"secret", bytes(first.contents))
        self.assertEqual(unseal(7, 12, first.contents), {"said": "secret 1"})
        self.assertIsNone(unseal(7, 13, first.contents))
        self.assertIsNone(unseal(8, 12, first.contents))

    def test_with_the_key_what_was_written_is_gone_and_the_chain_holds(self):
        kept = bytes(self.three()[0].contents)
        with acting(7, 3):
            other = chain.write(CHANGED, "bowls.bowl", 1, client=13, contents={"said": "stays"})
        self.assertEqual(destroy(7, 12), 3)
        self.assertFalse(Key.objects.filter(client=12).exists())
        self.assertEqual(Entry.objects.filter(client=12, contents=None).count(), 3)
        self.assertIsNone(unseal(7, 12, kept))
        self.assertEqual(unseal(7, 13, other.contents), {"said": "stays"})
        self.assertEqual(list(chain.faults(7)), [])


class Reads(RecordCase):
    def test_they_are_put_in_by_person_client_and_page(self):
        for _ in range(3):
            reads.note(7, 3, READ, "clients:page", 12)
        reads.note(7, 4, READ, "clients:page", 12)
        reads.note(8, 5, READ, "clients:page", 12)
        self.assertEqual(reads.fold(), 3)
        entries = Entry.objects.filter(practice=7)
        said = [(one.who, one.client, one.kind, one.act) for one in entries]
        self.assertEqual(said, [(3, 12, "clients:page", "read"), (4, 12, "clients:page", "read")])
        self.assertEqual(unseal(7, 12, entries[0].contents)["times"], 3)
        self.assertEqual(list(chain.faults(7)), [])
        self.assertEqual(reads.fold(), 0)
        self.assertEqual(Entry.objects.count(), 3)

    def test_noting_asks_nothing_of_the_database(self):
        with self.assertNumQueries(0):
            self.assertTrue(reads.note(7, 3, READ, "clients:page", 12))
        stored = (self.var / "reads" / "now.jsonl").read_text()
        self.assertEqual(json.loads(stored)[1:], [7, 3, "read", "clients:page", 12])
        self.assertEqual((self.var / "reads" / "now.jsonl").stat().st_mode & 0o777, 0o600)

    def test_a_batch_that_was_interrupted_is_put_in_once(self):
        reads.note(7, 3, READ, "clients:page", 12)
        (self.var / "reads" / "now.jsonl").rename(self.var / "reads" / "batch-1.jsonl")
        kept = (self.var / "reads" / "batch-1.jsonl").read_bytes()
        self.assertEqual(reads.fold(), 1)
        # it stopped after the record was written and before the file was gone
        (self.var / "reads" / "batch-1.jsonl").write_bytes(kept)
        self.assertEqual(reads.fold(), 0)
        self.assertEqual(Entry.objects.count(), 1)
        self.assertFalse((self.var / "reads" / "batch-1.jsonl").exists())

    def test_a_line_that_was_cut_off_loses_itself_alone(self):
        reads.note(7, 3, READ, "clients:page", 12)
        with (self.var / "reads" / "now.jsonl").open("a") as there:
            there.write("[17000")
        self.assertEqual(reads.fold(), 1)

    def test_a_disk_that_takes_nothing_keeps_no_page_back(self):
        # a file where the folder should be
        (self.var / "reads").write_text("")
        with self.assertLogs("record.reads", "ERROR"):
            self.assertFalse(reads.note(7, 3, READ, "clients:page", 12))

    def test_when_it_was_read_is_when_it_was_read(self):
        before = timezone.now()
        reads.note(7, 3, READ, "clients:page", 12)
        after = timezone.now()
        reads.fold()
        self.assertTrue(before <= Entry.objects.get().at <= after)
