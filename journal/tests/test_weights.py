"""Weigh-ins: typed, pasted, from a file; a doubtful one is asked about, none is dropped in
silence."""

from datetime import date, timedelta

from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone

from journal.dates import read_date
from journal.weight.paste import read_weights
from planner.testing import DayCase


class Weights(DayCase):
    def setUp(self):
        super().setUp()
        self.today = timezone.localdate()

    def weigh(self, count=12, kg=100.0):
        for at in range(count):
            self.client_row.weigh(
                self.today - timedelta(days=2 * at + 1), round(kg + 0.2 * (at % 2), 1), self.user
            )

    def read(self, text, **more):
        return read_weights(text, self.client_row, date(2026, 11, 26), **more)

    def kg(self, text, **more):
        return [
            (row.weighed.on.isoformat(), row.weighed.kg) for row in self.read(text, **more).rows
        ]

    def test_as_people_write_them(self):
        day = [("2026-11-03", 101.4)]
        for text in (
            "2026-11-03, 101.4",
            "2026-11-03 101.4 kg",
            "2026-11-03;101,4",
            "2026-11-03\t101.4\ton rising",
            "Nov 3, 2026  101.4",
            "3 November 2026: 101.4",
            "03.11.2026 101,4 kg",
            "2026-11-03 07:15, 101.4",
            "2026-11-03T07:15:00,101.4,22.3,54.1",
            "Date,Time,Weight (kg),Body fat\n2026-11-03,07:15,101.4,22.3",
            "Date;Weight (kg);Remark\n2026-11-03;101,4;undressed",
        ):
            self.assertEqual(self.kg(text), day, text)
        self.assertEqual(self.kg("2026-11-03,98.4"), [("2026-11-03", 98.4)])
        self.assertEqual(self.kg("2026-11-03, 223.5 lb"), [("2026-11-03", 101.38)])
        self.assertEqual(self.kg("2026-11-03, 223.5", pounds=True), [("2026-11-03", 101.38)])
        self.assertEqual(self.kg("date,weight (lbs)\n2026-11-03,223.5"), [("2026-11-03", 101.38)])

    def test_a_date_that_may_be_two_is_asked(self):
        read = self.read("3/4/2026, 101.4")
        self.assertEqual((read.rows, read.ambiguous), ([], True))
        self.assertEqual(self.kg("3/4/2026, 101.4", day_first=True), [("2026-04-03", 101.4)])
        # another line of the same list tells
        self.assertEqual(self.kg("3/4/2026, 101.4\n25/4/2026, 101.0")[0], ("2026-04-03", 101.4))
        self.assertEqual(read_date("31/12/2025"), date(2025, 12, 31))

    def test_what_cannot_be_read_is_named_with_its_line(self):
        read = self.read("2026-11-03, 101.4\nheavy today\n2027-01-01, 100\n2026-11-05, 1014")
        self.assertEqual(len(read.rows), 1)
        self.assertEqual([line for line, _text, _why in read.problems], [2, 3, 4])

    def test_two_of_a_day(self):
        read = self.read("2026-11-03 21:00, 102.9\n2026-11-03 07:00, 101.4")
        self.assertEqual([row.weighed.kg for row in read.rows], [101.4], "the one on rising")
        self.assertIn("102.9", read.problems[0][2])

    def test_read_shown_kept(self):
        self.weigh()
        on = self.today - timedelta(days=40)
        odd = self.today - timedelta(days=2)
        there = self.client_row.weigh_ins.last()
        text = f"{on}, 100.9\n{odd}, 46.0\n{there.date}, {there.kg}"
        shown = self.post(self.for_client("/journal/weights/paste/"), {"text": text})
        self.assertContains(shown, "1 new")
        self.assertContains(shown, "1 there already")
        self.assertContains(shown, "Asked about")
        self.assertFalse(self.client_row.weigh_ins.filter(date=on).exists(), "nothing kept yet")
        data = {"text": text, "keep": "1"}
        self.post(self.for_client("/journal/weights/paste/"), data)
        self.assertTrue(self.client_row.weigh_ins.filter(date=on, kg=100.9).exists())
        self.assertFalse(self.client_row.weigh_ins.filter(date=odd).exists())
        self.post(self.for_client("/journal/weights/paste/"), data | {"agreed": f"{odd}:46"})
        row = self.client_row.weigh_ins.get(date=odd)
        self.assertTrue(row.asked_about)

    def test_a_file(self):
        on = self.today - timedelta(days=3)
        file = SimpleUploadedFile("scale.csv", f"\ufeffDate,Weight (kg)\n{on},99.5".encode())
        shown = self.post(self.for_client("/journal/weights/paste/"), {"file": file})
        self.assertContains(shown, "99.5 kg")
        self.assertContains(shown, f"{on},99.5", msg_prefix="kept to be sent again")

    def test_nothing_read(self):
        answer = self.post(self.for_client("/journal/weights/paste/"), {"text": "hello"})
        self.assertEqual(answer.status_code, 400)
        self.assertContains(answer, "No weigh-in was read", status_code=400)
        self.assertContains(answer, "hello", status_code=400)

    def test_a_doubtful_one_typed_is_asked_about(self):
        self.weigh()
        data = {"date": self.today.isoformat(), "kg": "221.5", "time": "morning", "dressed": "on"}
        address = f"/clients/{self.client_row.pk}/weigh-in/"
        asked = self.post(address, data)
        self.assertEqual(asked.status_code, 400)
        self.assertContains(asked, "pounds", status_code=400)
        self.assertContains(asked, 'value="221.5"', status_code=400)
        self.post(address, data | {"kg": "221.5 lb"})
        row = self.client_row.weigh_ins.get(date=self.today)
        self.assertEqual((row.kg, row.time, row.dressed), (100.47, "morning", True))
        self.post(address, data | {"kg": "112", "sure": "on", "replace": "on"})
        row = self.client_row.weigh_ins.get(date=self.today)
        self.assertEqual((row.kg, row.asked_about), (112.0, True))

    def test_the_page_has_the_line_and_its_table(self):
        empty = self.client.get(self.for_client("/journal/"))
        self.assertContains(empty, "Two weigh-ins make a line")
        self.weigh(30)
        page = self.client.get(self.for_client("/journal/"))
        self.assertContains(page, "weight-chart")
        self.assertContains(page, "The same as a table (30 weigh-ins)")
        self.assertContains(page, "usual guidance: 0.25 to 0.9 kg a week")
        self.assertContains(page, "A stall since")
        self.assertContains(self.client.get("/journal/"), "Whose journal?")

    def test_what_happened_is_marked_and_taken_off(self):
        self.weigh(20)
        address = self.for_client("/journal/happened/")
        wrong = self.post(
            address, {"kind": "illness", "start": str(self.today), "end": "2020-01-01"}
        )
        self.assertContains(wrong, "ends before it begins", status_code=400)
        start = self.today - timedelta(days=9)
        self.post(address, {"kind": "illness", "start": str(start), "words": "a cold"})
        page = self.client.get(self.for_client("/journal/"))
        self.assertContains(page, "illness: a cold")
        row = self.client_row.happenings.get()
        self.post(address, {"remove": row.pk})
        self.assertFalse(self.client_row.happenings.exists())
        self.post(address, {"back": row.pk})
        self.assertTrue(self.client_row.happenings.exists())
