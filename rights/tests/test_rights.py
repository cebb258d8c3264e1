"""The pages of rights: consent, archive, erasure, how long is kept, who did what."""

import io
import zipfile
from datetime import date, timedelta
from unittest.mock import patch

from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone

from clients.models import Client, Intake, WeighIn
from planner.testing import DayCase
from practice.models import Practice
from record import reads
from record.acting import acting
from record.models import Entry
from record.sealing import unseal
from record.testing import OwnFolder
from rights import retention
from rights.archive import references
from rights.archive.layout import UnreadableArchive
from rights.archive.reading import opened
from rights.models import Consent, Erased, Warned


class RightsCase(OwnFolder, DayCase):
    def setUp(self):
        super().setUp()
        self.base = f"/for/{self.client_row.pk}/rights"


class Consents(RightsCase):
    def test_it_is_kept_as_it_was_given_and_can_be_taken_back(self):
        self.practice.consent_text = "You may."
        self.practice.save()
        self.assertContains(self.client.get(f"{self.base}/"), "You may.")
        said = {"text": "I agree.", "on": timezone.localdate(), "how": "on paper"}
        self.post(f"{self.base}/consent/", said)
        row = Consent.objects.get()
        self.assertEqual((row.text, row.by, row.withdrawn), ("I agree.", self.user, None))
        self.post(f"{self.base}/consent/{row.pk}/", {})
        row.refresh_from_db()
        self.assertEqual(row.withdrawn, timezone.localdate())
        self.assertContains(self.client.get(f"{self.base}/"), "Taken back on")

    def test_not_before_it_happened(self):
        later = timezone.localdate() + timedelta(days=1)
        page = self.post(f"{self.base}/consent/", {"text": "I agree.", "on": later})
        self.assertContains(page, "still to come", status_code=400)
        self.assertContains(page, "I agree.", status_code=400)
        self.assertEqual(Consent.objects.count(), 0)


class Archives(RightsCase):
    def test_a_client_goes_out_and_comes_in_elsewhere(self):
        answer = self.client.get(f"{self.base}/archive.zip")
        self.assertEqual(answer["Content-Type"], "application/zip")
        with zipfile.ZipFile(io.BytesIO(answer.content)) as there:
            self.assertIn("read/client.html", there.namelist())
            self.assertIn("README.txt", there.namelist())
        self.assertEqual(reads.fold() > 0, True)
        self.assertTrue(Entry.objects.filter(act="exported", client=self.client_row.pk).exists())
        other = self.client_class()
        other.force_login(self.other_user, backend="django.contrib.auth.backends.ModelBackend")
        file = SimpleUploadedFile("them.zip", answer.content, "application/zip")
        done = other.post("/rights/practice/take-in/", {"file": file})
        self.assertEqual(done.status_code, 302)
        moved = Client._base_manager.get(practice=self.other_practice)
        self.assertEqual(moved.name, self.client_row.name)
        self.assertEqual(other.get(f"/clients/{moved.pk}/", follow=True).status_code, 200)

    def test_what_is_none_is_refused_beside_the_field(self):
        file = SimpleUploadedFile("x.zip", b"nothing", "application/zip")
        page = self.client.post("/rights/practice/take-in/", {"file": file})
        self.assertContains(page, "it is no zip file. Nothing was taken in.", status_code=400)

    def test_what_is_too_large_for_a_page_says_what_reads_it(self):
        for size, said in ((2_500_001, "bin/manage read_archive"), (2_499_000, "no zip file")):
            file = SimpleUploadedFile("x.zip", b"x" * size, "application/zip")
            page = self.client.post("/rights/practice/take-in/", {"file": file})
            self.assertContains(page, said, status_code=400)

    def test_what_unpacks_to_too_much_is_not_opened(self):
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as there:
            there.writestr("manifest.json", b"{}")
            there.writestr("zeros", b"0" * 3_000_000)
        for most, said in ((2_999_999, "unpacks to more"), (3_000_100, "not whole")):
            with (
                patch("rights.archive.layout.LARGEST", most),
                self.assertRaises(UnreadableArchive) as caught,
            ):
                opened(out.getvalue())
            self.assertIn(said, str(caught.exception))

    def test_references_within_text_and_data(self):
        def renumber(table, number):
            return number + 100 if number < 50 else None

        for data, under, expected in (
            ("recipe-3", "key", "recipe-103"),
            ("food-own-3", "key", "food-own-103"),
            ("recipe-99", "key", "recipe-99"),
            ("a recipe-3", "key", "a recipe-3"),
            ("plate:3", "school", "plate:103"),
            ("plate:3", "note", "plate:3"),
            ({"recipe_id": 3, "amount": 3}, "", {"recipe_id": 103, "amount": 3}),
            ({"bowl_id": 99}, "", {"bowl_id": None}),
            ([{"own-3": {"food": "own-4"}}], "", [{"own-103": {"food": "own-104"}}]),
            ({"part_ids": {"dill sauce": 3}}, "", {"part_ids": {"dill sauce": 103}}),
            ({"dill sauce": 3}, "part_ids", {"dill sauce": 103}),
            (True, "recipe_id", True),
        ):
            self.assertEqual(references.in_data(data, renumber, under), expected, data)


class Erasing(RightsCase):
    def test_the_name_is_typed_first(self):
        page = self.client.get(f"{self.base}/erase/")
        self.assertContains(page, "This cannot be taken back")
        wrong = self.post(f"{self.base}/erase/", {"name": "somebody"})
        self.assertContains(wrong, "nothing was erased", status_code=400)
        name, pk = self.client_row.name, self.client_row.pk
        done = self.post(f"{self.base}/erase/", {"name": f" {name} "})
        self.assertContains(done, "Receipt")
        self.assertContains(done, name)
        self.assertFalse(Client.with_removed.filter(pk=pk).exists())
        self.assertEqual(self.client.get(f"/clients/{pk}/").status_code, 404)
        receipt = Erased.objects.get()
        self.assertEqual(receipt.client, pk)
        self.assertNotContains(self.client.get("/rights/practice/"), name)
        entry = Entry.objects.filter(act="erased").get()
        self.assertEqual((entry.thing, entry.who), (pk, self.user.pk))

    def test_a_practitioner_does_not(self):
        self.user.role = "practitioner"
        self.user.save()
        answer = self.post(f"{self.base}/erase/", {"name": self.client_row.name})
        self.assertEqual(answer.status_code, 403)
        self.assertTrue(Client.objects.filter(pk=self.client_row.pk).exists())


class Keeping(RightsCase):
    def last_seen(self, on):
        self.client_row.weigh_ins.all().delete()
        self.client_row.days.all().delete()
        WeighIn.objects.create(client=self.client_row, date=on, kg=80)
        at = timezone.make_aware(timezone.datetime(on.year, on.month, on.day, 12))
        Client._base_manager.filter(pk=self.client_row.pk).update(updated=at)
        for one in Client.objects.exclude(pk=self.client_row.pk):
            one.remove(self.user)

    def rule(self, years, by_itself=False):
        Practice.objects.filter(pk=self.practice.pk).update(
            keep_years=years, erase_when_due=by_itself
        )
        self.practice.refresh_from_db()

    def due(self):
        return [one.client for one in retention.due_soon(self.practice)]

    def test_sixty_days_before_it_is_said(self):
        self.rule(2)
        today = timezone.localdate()
        for days, said in ((61, False), (60, True), (1, True)):
            on = today + timedelta(days=days)
            self.last_seen(date(on.year - 2, on.month, on.day))
            self.assertEqual(self.client_row in self.due(), said, days)

    def test_no_rule_and_nobody_is_due(self):
        self.last_seen(date(1990, 1, 1))
        self.assertEqual(self.due(), [])

    def test_a_leap_day(self):
        self.assertEqual(retention.years_after(date(2024, 2, 29), 1), date(2025, 3, 1))
        self.assertEqual(retention.years_after(date(2024, 2, 28), 1), date(2025, 2, 28))

    def test_erased_by_itself_only_sixty_days_after_the_warning(self):
        self.last_seen(date(2015, 5, 5))
        self.rule(2, by_itself=True)
        retention.keep_the_rules()
        warned = Warned.objects.get(client=self.client_row)
        self.assertEqual(warned.since, timezone.localdate())
        for days, there in ((59, True), (60, False)):
            Warned.objects.update(since=timezone.localdate() - timedelta(days=days))
            retention.keep_the_rules()
            self.assertEqual(
                Client.with_removed.filter(pk=self.client_row.pk).exists(), there, days
            )

    def test_without_leave_nobody_is_erased(self):
        self.last_seen(date(2015, 5, 5))
        self.rule(2)
        retention.keep_the_rules()
        Warned.objects.update(since=timezone.localdate() - timedelta(days=900))
        retention.keep_the_rules()
        self.assertTrue(Client.objects.filter(pk=self.client_row.pk).exists())

    def test_who_is_kept_for_longer_is_not_due(self):
        self.last_seen(date(2015, 5, 5))
        self.rule(2, by_itself=True)
        until = timezone.localdate() + timedelta(days=400)
        self.post(
            f"/rights/keep/{self.client_row.pk}/", {"until": until, "why": "a question of law"}
        )
        self.assertNotIn(self.client_row, self.due())
        retention.keep_the_rules()
        self.assertEqual(Warned.objects.get().why, "a question of law")
        refused = self.post(f"/rights/keep/{self.client_row.pk}/", {"until": "", "why": ""})
        self.assertRedirects(refused, "/rights/practice/", fetch_redirect_response=False)
        self.assertContains(self.client.get("/rights/practice/"), "Give a day that is to come")

    def test_the_rule_has_bounds(self):
        for years, status in (("0", 400), ("1", 302), ("50", 302), ("51", 400), ("", 302)):
            answer = self.post("/rights/practice/", {"keep_years": years})
            self.assertEqual(answer.status_code, status, years)


class WhoDidWhat(RightsCase):
    def record(self, show="changed"):
        return self.client.get(f"{self.base}/record/?show={show}").content.decode()

    def test_a_change_before_and_after_in_words(self):
        self.post(f"/clients/{self.client_row.pk}/weigh-in/", {"date": "2026-11-24", "kg": "81.5"})
        said = self.record()
        self.assertIn("weigh in", said)
        self.assertIn("81.5", said)
        self.assertIn(self.user.shown_name, said)

    def test_of_plain_data_only_what_differs_is_kept(self):
        with acting(self.practice.pk, self.user.pk):
            draft = Intake.objects.create(
                practice=self.practice, by=self.user, data={"name": ["Isa"], "wish": ["rest"]}
            )
            draft.data = {"name": ["Isa"], "wish": ["sleep"], "height": ["168"]}
            draft.save()
        entry = Entry.objects.filter(kind="clients.intake").last()
        said = unseal(entry.practice, None, bytes(entry.contents))["changes"]["data"]
        self.assertEqual(said, [{"wish": ["rest"]}, {"wish": ["sleep"], "height": ["168"]}])

    def test_what_was_read_and_printed_is_said_and_not_every_look(self):
        for _ in range(3):
            self.client.get(f"/for/{self.client_row.pk}/clients/{self.client_row.pk}/")
        self.client.get(f"/for/{self.client_row.pk}/handouts/days/{self.day.pk}/")
        said = self.record("read")
        self.assertIn("the client&#x27;s page, 3 times", said)
        self.assertIn("a day&#x27;s handout", self.record("handed"))
        self.assertNotIn("handout", said)

    def test_a_bowl_has_its_own_with_a_step_back(self):
        address = f"/bowls/{self.bowl.pk}/parts/{self.kale.pk}/"
        self.post(address, {"amount": "77 g"})
        page = self.client.get(f"/rights/record/of/bowls.bowl/{self.bowl.pk}/")
        self.assertContains(page, "77")
        self.assertContains(page, "Undo the last change")
        self.assertEqual(
            self.client.get(f"/rights/record/of/clients.weighin/{self.bowl.pk}/").status_code, 404
        )

    def test_nothing_of_another_practice(self):
        other = self.client_class()
        other.force_login(self.other_user, backend="django.contrib.auth.backends.ModelBackend")
        for address in (
            f"{self.base}/record/",
            f"{self.base}/archive.zip",
            f"/rights/record/of/bowls.bowl/{self.bowl.pk}/",
        ):
            self.assertEqual(other.get(address).status_code, 404, address)
