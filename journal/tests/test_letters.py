"""Letters to a physician: begun from the record, signed, answered; the next visit."""

import io
from datetime import date, timedelta

from django.urls import reverse
from django.utils import timezone
from pypdf import PdfReader

from clients.models import BloodValue, WeighIn
from clients.testing import ClientCase
from journal.models import Appointment, Letter


class LetterCase(ClientCase):
    def begin(self):
        BloodValue.objects.create(
            client=self.client_row,
            date=date.today(),
            key="potassium",
            value=5.6,
            unit="mmol/L",
            by=self.user,
        )
        WeighIn.objects.create(client=self.client_row, date=date.today(), kg=96.4)
        self.post(self.for_client(reverse("journal:new-letter")), {})
        return Letter.objects.get()

    def address(self, name, letter):
        return self.for_client(reverse(f"journal:{name}", args=[letter.pk]))

    def words(self, letter, **more):
        words = {"date": f"{letter.date:%Y-%m-%d}", "where": "", "to": "Dr. Solveig"}
        words |= {"asked": "You asked for a diet.", "found": "All well.", "planned": "Oats."}
        words |= {"orders": "A most of potassium\nA most of protein", "version": letter.version}
        return words | more

    def sign(self, letter):
        data = self.words(letter, sign="1", signed_as="Marin Oakes, RDN")
        self.post(self.address("letter", letter), data)
        letter.refresh_from_db()
        return letter


class Letters(LetterCase):
    def test_it_begins_with_the_values_and_what_needs_an_order(self):
        letter = self.begin()
        self.assertIn("Potassium 5.6", letter.words["orders"])
        page = self.client.get(self.address("letter", letter))
        self.assertContains(page, "5.6 mmol/L")
        self.assertContains(page, "96.4 kg")
        # one of today that is not signed is gone on with
        self.post(self.for_client(reverse("journal:new-letter")), {})
        self.assertEqual(Letter.objects.count(), 1)

    def test_it_is_signed_with_its_figures_and_stays(self):
        letter = self.begin()
        for missing, data in (
            ("Write your name", self.words(letter, sign="1", signed_as="")),
            ("Write to whom", self.words(letter, sign="1", signed_as="Marin", to="")),
        ):
            page = self.post(self.address("letter", letter), data)
            self.assertContains(page, missing, status_code=400)
            self.assertContains(page, "You asked for a diet.", status_code=400)
        letter = self.sign(letter)
        self.assertTrue(letter.signed)
        BloodValue.objects.update(value=4.1)
        page = self.client.get(self.address("letter", letter))
        self.assertContains(page, "5.6 mmol/L")
        late = self.post(self.address("letter", letter), self.words(letter, asked="Other."))
        self.assertEqual(late.status_code, 409)
        letter.refresh_from_db()
        self.assertEqual(letter.words["asked"], "You asked for a diet.")

    def test_two_who_write_at_once_lose_nothing(self):
        letter = self.begin()
        self.post(self.address("letter", letter), self.words(letter, asked="Theirs."))
        page = self.post(self.address("letter", letter), self.words(letter, asked="Mine."))
        self.assertEqual(page.status_code, 409)
        self.assertContains(page, "Theirs.", status_code=409)
        self.assertContains(page, "Mine.", status_code=409)

    def test_one_page_with_a_line_to_answer_each_request(self):
        letter = self.sign(self.begin())
        answer = self.client.get(self.address("letter-paper", letter), {"pdf": "1"})
        read = PdfReader(io.BytesIO(answer.content))
        self.assertEqual(len(read.pages), 1)
        text = read.pages[0].extract_text()
        for words in ("Dr. Solveig", "A most of potassium", "A most of protein", "5.6 mmol/L"):
            self.assertIn(words, text)
        self.assertEqual(text.count("Order:"), 2)
        self.assertIn("judgment of a licensed", text)

    def test_an_answer_has_a_name_and_a_license_which_the_order_takes_over(self):
        letter = self.sign(self.begin())
        answered = {"answered": f"{date.today():%Y-%m-%d}", "answer": "At most 2,000 mg."}
        page = self.post(self.address("letter-answered", letter), answered)
        self.assertEqual(page.status_code, 400)
        self.assertContains(page, "At most 2,000 mg.", status_code=400)
        answered |= {"answered_by": "Dr. Solveig", "license": "MD, nephrology"}
        for on in (date.today() + timedelta(days=1), letter.date - timedelta(days=1)):
            wrong = answered | {"answered": f"{on:%Y-%m-%d}"}
            page = self.post(self.address("letter-answered", letter), wrong)
            self.assertContains(page, "comes after the letter", status_code=400)
        self.post(self.address("letter-answered", letter), answered)
        target = reverse("clients:target", args=[self.client_row.pk, "potassium_mg"])
        page = self.client.get(target)
        self.assertContains(page, 'value="Dr. Solveig"')
        self.assertContains(page, 'value="MD, nephrology"')

    def test_a_letter_that_is_not_signed_is_put_away_and_brought_back(self):
        letter = self.begin()
        self.post(self.address("remove-letter", letter), {})
        self.assertFalse(Letter.objects.exists())
        self.post(self.address("remove-letter", letter), {"back": "1"})
        letter = self.sign(Letter.objects.get())
        self.post(self.address("remove-letter", letter), {})
        self.assertTrue(Letter.objects.exists())


class NextVisit(ClientCase):
    def appoint(self, **data):
        return self.post(self.for_client(reverse("journal:appoint")), data)

    def test_it_is_set_moved_and_called_off(self):
        on = timezone.localdate() + timedelta(days=14)
        self.appoint(at=f"{on}T10:30", minutes="45", words="bring the log")
        page = self.client.get(self.for_client(reverse("journal:visits")))
        self.assertContains(page, "10:30")
        self.appoint(at=f"{on}T11:00", minutes="45", words="")
        row = Appointment.objects.get()
        self.assertEqual(timezone.localtime(row.at).hour, 11)
        self.appoint(off="1")
        self.assertFalse(Appointment.objects.exists())

    def test_what_cannot_be_is_refused_beside_the_field(self):
        today = timezone.localdate()
        for days, well in ((-1, False), (0, True), (800, True), (801, False)):
            Appointment.objects.all().delete()
            page = self.appoint(at=f"{today + timedelta(days=days)}T23:59", minutes="45")
            self.assertEqual(Appointment.objects.exists(), well, days)
            if not well:
                self.assertContains(page, "not years from now", status_code=400)
        for minutes, well in (("9", False), ("10", True), ("240", True), ("241", False)):
            Appointment.objects.all().delete()
            self.appoint(at=f"{today}T23:59", minutes=minutes)
            self.assertEqual(Appointment.objects.exists(), well, minutes)


class VisitOnPaper(ClientCase):
    def test_a_note_on_paper(self):
        self.post(self.for_client(reverse("journal:new-visit")), {"form": "short"})
        visit = self.client_row.visits.get()
        page = self.client.get(self.for_client(reverse("journal:visit-paper", args=[visit.pk])))
        self.assertContains(page, "Draft, not signed")
        self.assertContains(page, "How it goes")
        self.assertNotContains(page, "<textarea")
