"""Blood values: entered, read from a table, in the targets and cautions with their age."""

from datetime import date, timedelta

from django.utils import timezone

from clients.models import Client
from clients.plan.cautions import of_the_client
from clients.plan.in_force import plan_of
from journal.blood.values import key_named, read_table, unit_named
from planner.testing import DayCase

TODAY = date(2026, 11, 26)


class Table(DayCase):
    def read(self, text):
        return read_table(text, TODAY)

    def test_as_laboratories_write_them(self):
        table = self.read(
            "\ufeffDate,Test,Result,Unit,Low,High,Lab\n"
            "2026-11-03,K,5.6,mEq/L,3.5,5.1,Harbor\n"
            "2026-11-03,25-OH Vitamin D,48,nmol/l,,,\n"
            "2026-11-03,A1c,53,mmol/mol,,,\n"
            "2026-11-03,Creatinine,137,umol/L,,,\n"
        )
        self.assertEqual(table.problems, [])
        self.assertEqual(
            [(row.key, row.value, row.unit) for row in table.rows],
            [
                ("potassium", 5.6, "mEq/L"),
                ("vitamin_d", 48.0, "nmol/L"),
                ("hba1c", 53.0, "mmol/mol"),
                ("creatinine", 137.0, "µmol/L"),
            ],
        )
        self.assertEqual((table.rows[0].low, table.rows[0].high), (3.5, 5.1))
        semicolons = self.read("date;what;result;unit\n2026-11-03;Phosphate;1,51;mmol/L")
        self.assertEqual(semicolons.rows[0].value, 1.51)

    def test_every_line_that_cannot_be_read_is_named(self):
        table = self.read(
            "date,what,result,unit\n"
            "2026-11-03,creatinine,88,mg/dL\n"
            "2026-11-03,zinc,12,µmol/L\n"
            "3/4/2026,potassium,4.4,mmol/L\n"
            "2026-11-03,potassium,high,mmol/L\n"
            "2027-01-01,potassium,4.4,mmol/L\n"
            "2026-11-03,glucose,5.6,\n"
        )
        self.assertEqual(table.rows, [])
        said = [why for _line, why in table.problems]
        for at, words in enumerate(
            ("88 µmol/L", "“zinc”", "no date", "no number", "not come yet", "needs its unit")
        ):
            self.assertIn(words, said[at])
        self.assertIn("must name the columns", self.read("a,b\n1,2").problems[0][1])
        self.assertIn("nothing to read", self.read("").problems[0][1])

    def test_names_and_units(self):
        self.assertEqual(key_named("LDL cholesterol"), "ldl")
        self.assertEqual(key_named("  Hb "), "hemoglobin")
        self.assertIsNone(key_named("cholesterol"))
        self.assertEqual(unit_named("μmol/L"), "µmol/L")


class Pages(DayCase):
    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        cls.kidneys = Client.objects.create(
            practice=cls.practice,
            name="Ilse Varga-Holm",
            sex="female",
            birth_year=1954,
            height_cm=164,
            weight_kg=61,
            goal="hold",
            conditions=["ckd_3b"],
        )

    def setUp(self):
        super().setUp()
        self.today = timezone.localdate()

    def address(self, tail=""):
        return f"/for/{self.kidneys.pk}/journal/blood/{tail}"

    def add(self, key="potassium", value="5.6", unit="mmol/L", ago=5, **more):
        data = {"key": key, "value": value, "unit": unit}
        data["date"] = (self.today - timedelta(days=ago)).isoformat()
        return self.post(self.address("add/"), data | more)

    def potassium(self):
        client = Client.objects.get(pk=self.kidneys.pk)
        return plan_of(client).rows["potassium_mg"].target

    def cautions(self):
        client = Client.objects.get(pk=self.kidneys.pk)
        return {one.code: one for one in of_the_client(plan_of(client), client, None).standing}

    def test_a_value_becomes_a_limit_and_a_caution_with_its_age(self):
        self.post(
            f"/clients/{self.kidneys.pk}/retarget/", {"why": "first", "takes_effect": self.today}
        )
        before = self.potassium()
        self.add()
        target = self.potassium()
        self.assertEqual((target.aim, target.high), (2000, 2500))
        self.assertGreater(before.high, 2500)
        self.assertIn("otassium 5.6 mmol/L on", target.reason)
        self.assertIn("5 days ago", self.cautions()["blood_potassium_high"].text)
        page = self.client.get(self.address())
        self.assertContains(page, "high potassium in the blood")
        self.assertContains(page, "5.6 mEq/L")

    def test_taken_away_the_target_follows_and_brought_back_too(self):
        self.add()
        row = self.kidneys.blood_values.get()
        self.post(self.address(f"{row.pk}/remove/"), {})
        self.assertGreater(self.potassium().high, 2500)
        self.assertNotIn("blood_potassium_high", self.cautions())
        self.post(self.address(f"{row.pk}/remove/"), {"back": "1"})
        self.assertEqual(self.potassium().high, 2500)

    def test_an_old_value_sets_nothing_and_asks_for_a_new_one(self):
        self.add(ago=120)
        self.assertGreater(self.potassium().high, 2500)
        codes = self.cautions()
        self.assertIn("blood_potassium_old", codes)
        self.assertNotIn("blood_potassium_high", codes)

    def test_a_caution_put_aside_comes_back_with_the_next_value(self):
        self.add()
        caution = self.cautions()["blood_potassium_high"]
        self.post(
            f"/clients/{self.kidneys.pk}/cautions/",
            {"code": caution.code, "about": caution.about, "why": "the nephrologist knows"},
        )
        self.assertNotIn("blood_potassium_high", self.cautions())
        self.add(value="5.7", ago=1)
        self.assertIn("blood_potassium_high", self.cautions())

    def test_bad_input_keeps_what_was_typed(self):
        answer = self.add(key="creatinine", value="88", unit="mg/dL", laboratory="Harbor lab")
        self.assertEqual(answer.status_code, 400)
        self.assertContains(answer, "88 µmol/L", status_code=400)
        self.assertContains(answer, "Harbor lab", status_code=400)
        self.assertFalse(self.kidneys.blood_values.exists())
        answer = self.add(low="6", high="5")
        self.assertContains(answer, "ends under where it begins", status_code=400)

    def test_a_table_is_kept_whole_or_not_at_all(self):
        text = "date,what,result,unit\n{0},potassium,5.2,mmol/L\n{0},creatinine,{1},mg/dL"
        bad = self.post(self.address("paste/"), {"text": text.format(self.today, 150)})
        self.assertContains(bad, "Nothing was saved yet", status_code=400)
        self.assertFalse(self.kidneys.blood_values.exists())
        self.post(self.address("paste/"), {"text": text.format(self.today, 1.5)})
        self.assertEqual(self.kidneys.blood_values.count(), 2)
        page = self.client.get(self.address())
        self.assertContains(page, "eGFR")
        # read again it takes the place of itself
        self.post(self.address("paste/"), {"text": text.format(self.today, 1.5)})
        self.assertEqual(self.kidneys.blood_values.count(), 2)

    def test_another_practice_reaches_nothing(self):
        self.client.force_login(
            self.other_user, backend="django.contrib.auth.backends.ModelBackend"
        )
        self.assertEqual(self.client.get(self.address()).status_code, 404)
        self.assertEqual(self.add().status_code, 404)
