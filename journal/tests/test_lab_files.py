"""Laboratories' files: in the column orders they come in, and as FHIR bundles."""

import json
from datetime import date

from django.core.files.uploadedfile import SimpleUploadedFile
from django.urls import reverse

from clients.models import BloodValue
from clients.testing import ClientCase
from journal.blood.tables import as_table
from journal.blood.values import read_table

TODAY = date(2026, 12, 1)
K = ("potassium", 5.1, "mmol/L", 3.5, 5.1)
# Each with what is read of it: the value, and the laboratory's range.
TABLES = {
    "component, value with its unit, range, flag, date": (
        "Component,Your Value,Standard Range,Flag,Date\n"
        "POTASSIUM,5.1 mmol/L,3.5 - 5.1 mmol/L,H,2026-10-02\n",
        [K],
    ),
    "test name, result, units, reference range, collection date": (
        "Test Name,Result,Units,Reference Range,Collection Date\n"
        "Potassium,5.1,mmol/L,3.5-5.1,2026-10-02\n"
        "Hemoglobin A1c,6.1,%,<5.7,2026-10-02\n",
        [K, ("hba1c", 6.1, "%", None, 5.7)],
    ),
    "no headings": ("2026-10-02,Potassium,5.1,mmol/L,3.5-5.1\n", [K]),
    "no headings, the date last, by tabulators": (
        "Potassium\t5.1\tmmol/L\t3.5-5.1\t10/22/2026\n",
        [K],
    ),
    "a column for every value": (
        "Date,Potassium (mmol/L),Ferritin [ng/mL]\n2026-10-02,5.1,\n2026-11-02,,30\n",
        [("potassium", 5.1, "mmol/L", None, None), ("ferritin", 30, "ng/mL", None, None)],
    ),
    "the panel before the value": (
        "Order Date,Test,Observation,Value,Units,Ref Range,Abnormal\n"
        "2026-10-02,LIPID PANEL,LDL Cholesterol,131,mg/dL,<100,H\n",
        [("ldl", 131, "mg/dL", None, 100)],
    ),
    "date and time, semicolons, a decimal comma": (
        "Collection Date/Time;Test;Result;UOM;Reference Interval\n"
        "2026-10-02 08:15;Potassium;5,1;mmol/L;3,5-5,1\n",
        [K],
    ),
    "low and high apart, with the laboratory": (
        "Collected,Test,Result,Unit,Low,High,Lab\n2 Oct 2026,eGFR,58,mL/min/1.73m2,60,,Harbor\n",
        [("egfr", 58, "mL/min/1.73 m²", 60, None)],
    ),
}


class Orders(ClientCase):
    def test_the_common_column_orders(self):
        for name, (text, values) in TABLES.items():
            with self.subTest(name=name):
                table = read_table(as_table(text, TODAY).text, TODAY)
                self.assertEqual(table.problems, [])
                read = [(row.key, row.value, row.unit, row.low, row.high) for row in table.rows]
                self.assertEqual(read, values)

    def test_what_is_not_kept_here_is_told_and_stays_in_sight(self):
        text = "Test,Result,Unit,Date\nZinc,70,µg/dL,2026-10-02\nPotassium,5.1,mmol/L,2026-10-02\n"
        brought = as_table(text, TODAY)
        self.assertIn("Not kept here: Zinc.", brought.told)
        self.assertIn("# 2026-10-02,Zinc,70", brought.text)
        table = read_table(brought.text, TODAY)
        self.assertEqual([row.key for row in table.rows], ["potassium"])
        self.assertEqual(table.problems, [])

    def test_a_missing_unit_or_date_is_asked_about(self):
        wide = as_table("Date,Ferritin\n2026-10-02,30\n", TODAY)
        self.assertIn("needs its unit", read_table(wide.text, TODAY).problems[0][1])
        # two readings of one date are no date until somebody says which
        slashed = as_table("Test,Result,Unit,Collection Date\nTSH,2.1,mIU/L,10/02/2026\n", TODAY)
        self.assertIn("is no date", read_table(slashed.text, TODAY).problems[0][1])

    def test_a_table_with_the_usual_headings_is_left_as_it_is(self):
        text = "date,what,result,unit\n2026-11-03,potassium,5.6,mmol/L"
        self.assertEqual(as_table(text, TODAY).text, text)
        self.assertEqual(as_table("nothing of it", TODAY).text, "nothing of it")


def observation(**more):
    return {
        "resourceType": "Observation",
        "status": "final",
        "code": {"coding": [{"system": "http://loinc.org", "code": "2823-3"}], "text": "Potassium"},
        "effectiveDateTime": "2026-11-08",
        "valueQuantity": {"value": 5.6, "code": "mmol/L"},
        "referenceRange": [{"low": {"value": 3.5}, "high": {"value": 5.1}}],
    } | more


def bundle(*rows):
    return json.dumps({"resourceType": "Bundle", "entry": [{"resource": row} for row in rows]})


class Read(ClientCase):
    def paste(self, **data):
        return self.client.post(self.for_client(reverse("journal:paste-blood")), data)

    def test_a_bundle_is_shown_as_a_table_first_and_kept_then(self):
        file = SimpleUploadedFile("labs.json", bundle(observation()).encode())
        page = self.paste(text="", file=file)
        self.assertContains(page, "nothing was saved yet")
        self.assertContains(page, "2026-11-08,potassium,5.6,mmol/L,3.5,5.1")
        self.assertFalse(BloodValue.objects.exists())
        table = page.context["text"]
        self.assertEqual(self.paste(text=table).status_code, 302)
        row = BloodValue.objects.get()
        self.assertEqual((row.key, row.value, row.low, row.high), ("potassium", 5.6, 3.5, 5.1))

    def test_without_unit_and_date_it_is_asked_and_nothing_is_kept(self):
        bare = observation(valueQuantity={"value": 5.6})
        undated = observation()
        del undated["effectiveDateTime"]
        page = self.paste(text=bundle(bare, undated))
        self.assertContains(page, "needs its unit", status_code=400)
        self.assertContains(page, "It has no date", status_code=400)
        self.assertFalse(BloodValue.objects.exists())

    def test_whose_it_is_and_what_is_not_kept_is_said(self):
        other = observation(code={"text": "Zinc"})
        patient = {"resourceType": "Patient", "name": [{"family": "Other", "given": ["Somebody"]}]}
        page = self.paste(text=bundle(patient, observation(), other))
        self.assertContains(page, "about Somebody Other: is it this client?")
        self.assertContains(page, "Zinc: not known here")

    def test_what_is_json_and_no_bundle(self):
        page = self.paste(text='{"a": 1}')
        self.assertContains(page, "no FHIR resource", status_code=400)
        self.assertContains(page, "&quot;a&quot;", status_code=400)
