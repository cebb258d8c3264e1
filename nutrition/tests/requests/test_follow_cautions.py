"""The follow-up command says what the page says: how soon, what to do, the value with its age, whom
to call."""

from unittest import TestCase

from nutrition.requests.follow_answer import as_text, report

PERSON = {"sex": "male", "age_years": 66, "height_cm": 175, "weight_kg": 80}


def asked(conditions=(), **more):
    data = {"person": PERSON | {"conditions": list(conditions)}, "today": "2026-11-20"} | more
    found = report(data)
    return found, {row.code: row for row in found.cautions}


def blood(what, value, unit, on="2026-11-08"):
    return {"what": what, "value": value, "unit": unit, "on": on}


class Command(TestCase):
    def test_a_critical_value(self):
        found, codes = asked(["ckd_4"], blood=[blood("potassium", 6.4, "mmol/L")])
        row = codes["blood_potassium_danger"]
        self.assertEqual((row.level, row.urgent, row.todo), ("stop", "now", "Call the physician"))
        self.assertIn("12 days ago", row.text)
        self.assertIn("physician now", row.turn_to)
        self.assertIn("STOP", as_text(found))
        self.assertIn("now: Call the physician", as_text(found))

    def test_what_was_silent(self):
        for what, value, unit, code in (
            ("phosphate", 0.35, "mmol/L", "blood_phosphate_danger"),
            ("ferritin", 900, "ng/mL", "blood_iron_high"),
            ("vitamin_d", 180, "ng/mL", "blood_vitamin_d_toxic"),
            ("egfr", 40, "mL/min/1.73 m²", "blood_kidneys_unknown"),
            ("lithium", 1.5, "mmol/L", "blood_lithium_danger"),
        ):
            with self.subTest(what):
                self.assertIn(code, asked(blood=[blood(what, value, unit)])[1])

    def test_weights(self):
        rows = [{"on": "2026-11-13", "kg": 80}, {"on": "2026-11-20", "kg": 85}]
        _found, codes = asked(["heart_failure"], weighed=rows)
        self.assertEqual(codes["heart_failure_gain"].urgent, "now")
        rows = [{"on": "2026-08-25", "kg": 63}, {"on": "2026-11-20", "kg": 58}]
        _found, codes = asked(["frail"], weighed=rows)
        self.assertIn("loss_that_nobody_planned", codes)
        self.assertNotIn("loss_that_nobody_planned", asked(weighed=[])[1])
