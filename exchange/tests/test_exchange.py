"""A client out as FHIR and CSV, and in from a file; what an archive carries of it."""

import csv
import io
import json
import zipfile
from datetime import date

from django.core.files.uploadedfile import SimpleUploadedFile
from django.urls import reverse

from clients.models import BloodValue, Client, Intake, TargetOverride, WeighIn
from exchange.archive_files import fhir_of
from exchange.chart import chart_of
from exchange.models import Begun
from journal.models import LoggedDay, LoggedEntry
from nutrition.formats.fhir.reading import read_bundle
from nutrition.tests.formats.fhir.charts import usual
from nutrition.tests.formats.fhir.test_fhir import written
from planner.models import Day, DayEntry
from planner.testing import DayCase


class Case(DayCase):
    @classmethod
    def make_rows(cls):
        super().make_rows()
        client = cls.client_row
        WeighIn.objects.create(client=client, date=date(2026, 11, 1), kg=96.4)
        BloodValue.objects.create(
            client=client,
            date=date(2026, 11, 3),
            key="potassium",
            value=4.6,
            unit="mmol/L",
            low=3.5,
            high=5.1,
            laboratory="Harbor",
            by=cls.user,
        )
        TargetOverride.objects.create(
            client=client,
            key="potassium_mg",
            high=2500,
            kind="order",
            reason="letter",
            given_by="Dr. Solveig",
            license="MD",
            by=cls.user,
        )
        client.supplements.create(key="vitamin_b12_ug", dose=1000, form="cyano", per_week=2)
        day = LoggedDay.objects.create(
            practice=cls.practice, client=client, date=date(2026, 11, 20), whole=True
        )
        LoggedEntry.objects.create(day=day, meal="lunch", food="tofu-firm", amount=150)
        DayEntry.objects.create(day=cls.day, meal="snack", food="tofu-firm", amount=100)

    def out(self, name):
        return self.client.get(self.for_client(reverse(f"exchange:{name}")))


class Out(Case):
    def test_a_client_goes_out_whole_and_is_read_back(self):
        answer = self.out("fhir")
        self.assertEqual(answer["Content-Type"], "application/fhir+json")
        found = read_bundle(answer.content.decode())
        self.assertEqual((found.told, found.asked), ((), ()))
        chart = chart_of(self.client_row)
        self.assertEqual(set(found.chart.limits), set(chart.limits))
        self.assertEqual(found.chart.weights, chart.weights)
        self.assertEqual(found.chart.values, chart.values)
        self.assertEqual(found.chart.intakes, chart.intakes)
        self.assertEqual(found.chart.supplements, chart.supplements)
        ordered = next(one for one in chart.limits if one.key == "potassium_mg")
        self.assertEqual((ordered.high, ordered.by, ordered.license), (2500, "Dr. Solveig", "MD"))
        self.assertEqual(len(chart.intakes), 1)
        self.assertGreater(chart.intakes[0].amounts["protein_g"].amount, 10)

    def test_plans_and_logs_with_units_and_ranges(self):
        for name, what in (("plans", "100 g"), ("logs", "150 g")):
            with self.subTest(name=name):
                rows = list(csv.DictReader(io.StringIO(self.out(name).content.decode())))
                tofu = next(row for row in rows if row["what"] == "tofu-firm")
                self.assertEqual(tofu["grams [g]"], what.removesuffix(" g") + ".0")
                low, high = tofu["Protein, at least [g]"], tofu["Protein, at most [g]"]
                self.assertLess(float(low), float(tofu["Protein [g]"]))
                self.assertGreater(float(high), float(tofu["Protein [g]"]))

    def test_who_only_looks_takes_nothing_out(self):
        self.user.role = "reader"
        self.user.save()
        for name in ("fhir", "plans", "logs"):
            self.assertEqual(self.out(name).status_code, 403)

    def test_the_archive_carries_them_and_stays_the_same(self):
        address = self.for_client(reverse("rights:archive"))
        first, second = (self.client.get(address).content for _ in range(2))
        names = zipfile.ZipFile(io.BytesIO(first)).namelist()
        for name in ("client.fhir.json", "plans.csv", "logs.csv", "weights.csv"):
            self.assertTrue(any(one.endswith(f"open/{name}") for one in names), names)
        both = [zipfile.ZipFile(io.BytesIO(one)) for one in (first, second)]
        name = next(one for one in names if one.endswith("client.fhir.json"))
        self.assertEqual(*(one.read(name) for one in both))
        self.assertEqual(both[0].read(name), fhir_of(self.client_row))


class Coming(Case):
    def come(self, text, **more):
        return self.post(reverse("exchange:coming"), {"text": text} | more)

    def test_what_was_read_is_shown_first_and_nothing_is_kept(self):
        page = self.come(written(usual()))
        for words in ("Ilse Varga-Holm", "1954-03-02", "164.0 cm", "61.7 kg", "Allergy: sesame"):
            self.assertContains(page, words)
        self.assertContains(page, "Order: Potassium at most 2000 mg, Dr. Solveig (MD, nephrology)")
        self.assertFalse(Intake.objects.exists())

    def test_a_first_visit_is_begun_finished_and_what_was_measured_taken_over(self):
        begun = self.come(written(usual()), begin="1")
        intake = Intake.objects.get()
        self.assertRedirects(begun, reverse("clients:intake", args=[intake.pk]))
        page = self.client.get(begun["Location"])
        for words in ("Ilse Varga-Holm", "1954-03-02", "164.0", "61.7", "Order in the file"):
            self.assertContains(page, words)
        typed = {name: values for name, values in intake.data.items() if values}
        data = typed | {"activity": "low_active", "goal": "hold", "life_stage": "adult"}
        data |= {"formula": "dri_2023", "weight_basis": "auto", "meals": "3", "finish": "1"}
        data["visit_version"] = str(intake.version)
        done = self.post(begun["Location"], data)
        self.assertEqual(done.status_code, 302)
        client = Client.objects.get(name="Ilse Varga-Holm")
        self.assertEqual(client.allergies, ["sesame"])
        self.assertEqual(client.conditions, ["texture_soft"])
        self.assertEqual(client.supplements.get().dose, 1000)
        page = self.client.get(reverse("clients:page", args=[client.pk]))
        self.assertContains(page, "has 2 weights and 3 values")
        self.client.post(f"/for/{client.pk}{reverse('exchange:values')}")
        self.assertEqual(client.blood_values.count(), 3)
        self.assertEqual(client.weigh_ins.filter(date=date(2026, 11, 1)).get().kg, 61.9)
        self.assertFalse(Begun.objects.exists())

    def test_a_file_that_is_none_is_refused_and_kept_in_sight(self):
        page = self.come("{not json")
        self.assertEqual(page.status_code, 400)
        self.assertContains(page, "It is no JSON", status_code=400)
        self.assertContains(page, "{not json", status_code=400)
        self.assertContains(self.come(""), "Choose a file", status_code=400)

    def test_what_is_unsure_says_so(self):
        stranger = {
            "resourceType": "Bundle",
            "entry": [
                {"resource": {"resourceType": "Patient", "gender": "other"}},
                {"resource": {"resourceType": "AllergyIntolerance", "code": {"text": "zyx weed"}}},
            ],
        }
        page = self.come(json.dumps(stranger))
        self.assertContains(page, "not said: choose it")
        self.assertContains(page, '<strong class="near">look</strong>', count=7)


class TablesIn(Case):
    def take(self, text):
        file = SimpleUploadedFile("table.csv", text if isinstance(text, bytes) else text.encode())
        return self.client.post(self.for_client(reverse("exchange:tables")), {"file": file})

    def test_what_was_given_out_comes_back_whole(self):
        for name, rows in (("plans", Day), ("logs", LoggedDay)):
            with self.subTest(name=name):
                before = self.out(name).content
                self.assertGreater(before.count(b"\n"), 1)
                for day in rows.objects.filter(client=self.client_row):
                    day.delete()
                self.assertContains(self.take(before), "taken in")
                self.assertEqual(self.out(name).content, before)

    def test_a_day_that_is_there_stays_as_it_is(self):
        before = self.out("plans").content
        page = self.take(before)
        self.assertContains(page, "0 things on 0 days")
        self.assertContains(page, "stays as it is")
        self.assertEqual(self.out("plans").content, before)

    def test_what_is_not_known_here_is_told(self):
        head = self.out("plans").content.decode().splitlines()[0]
        line = "2026-12-24,dinner,recipe,Nobody knows,1" + "," * (head.count(",") - 4)
        page = self.take(f"{head}\n{line}\n")
        self.assertContains(page, "“Nobody knows” is not known here")
        self.assertFalse(Day.objects.filter(date=date(2026, 12, 24)).exists())

    def test_what_cannot_be_read_keeps_nothing(self):
        head = self.out("plans").content.decode().splitlines()[0]
        rest = "," * (head.count(",") - 4)
        good = f"2026-12-23,dinner,food,tofu-firm,100{rest}"
        for wrong, words in (
            ("soon,dinner,food,tofu-firm,100", "Line 3"),
            ("2026-12-24,brunch,food,tofu-firm,100", "is no meal"),
            ("2026-12-24,dinner,food,tofu-firm,nan", "cannot be"),
            ("2026-12-24,dinner,food,tofu-firm,10001", "cannot be"),
        ):
            page = self.take(f"{head}\n{good}\n{wrong}{rest}\n")
            self.assertContains(page, words, status_code=400)
            self.assertFalse(Day.objects.filter(date=date(2026, 12, 23)).exists())
        self.assertContains(self.take("a,b\n1,2"), "is missing", status_code=400)
