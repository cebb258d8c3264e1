"""A client as a FHIR R4 bundle: valid by models made of the published definitions, read back
whole, and others' files read with care."""

import json
import unittest
from dataclasses import replace
from datetime import UTC, date, datetime
from pathlib import Path

from fhirclient.models import bundle as published
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from ucumvert import PintUcumRegistry, get_ucum_parser

from nutrition.formats.fhir.chart import Chart
from nutrition.formats.fhir.codes import UCUM_OF, analyte_of, loinc_of, ucum_of, unit_of
from nutrition.formats.fhir.reading import UnreadableBundle, read_bundle
from nutrition.formats.fhir.writing import to_bundle
from nutrition.targets.blood import analytes
from nutrition.tests.formats.fhir.charts import charts, usual
from nutrition.tests.thorough import thorough

MADE = datetime(2026, 12, 1, 12, tzinfo=UTC)


def written(chart: Chart) -> str:
    return json.dumps(to_bundle(chart, MADE))


def resources(bundle: dict, kind: str) -> list[dict]:
    found = [one["resource"] for one in bundle["entry"]]
    return [one for one in found if one["resourceType"] == kind]


class Published(unittest.TestCase):
    def test_a_whole_client_is_valid_by_the_definitions_of_r4(self):
        # every property known, of its type, and none missing that must be there
        published.Bundle(to_bundle(usual(), MADE), strict=True)

    @settings(max_examples=60, suppress_health_check=list(HealthCheck), deadline=None)
    @given(charts())
    def test_so_is_any_other(self, chart):
        published.Bundle(to_bundle(chart, MADE), strict=True)

    def test_what_the_published_definitions_are_asked_of_is_what_is_written(self):
        # published.test.mjs holds this file against the definitions and their value sets
        there = Path(__file__).with_name("usual.json").read_text(encoding="utf-8")
        self.assertEqual(json.loads(there), to_bundle(usual(), MADE))

    def test_every_reference_leads_to_something_in_it(self):
        bundle = to_bundle(usual(), MADE)
        there = {one["fullUrl"] for one in bundle["entry"]}
        self.assertEqual(len(there), len(bundle["entry"]))
        found = [part.split('"')[0] for part in json.dumps(bundle).split('"reference": "')[1:]]
        self.assertGreater(len(found), 10)
        self.assertLessEqual(set(found), there)

    def test_every_unit_is_one_of_ucum(self):
        parser = get_ucum_parser()
        for unit, code in UCUM_OF.items():
            with self.subTest(unit=unit):
                self.assertTrue(parser.parse(code))
        registry = PintUcumRegistry()
        self.assertAlmostEqual(registry.from_ucum("umol/L").to("mmol/L").magnitude, 0.001)

    def test_every_value_has_a_code_in_each_unit_and_is_known_by_it(self):
        for key, one in analytes().items():
            for unit in one.units:
                with self.subTest(key=key, unit=unit):
                    code = loinc_of(key, unit)
                    self.assertEqual(analyte_of(code), key)
                    self.assertTrue(_check_digit(code))
                    self.assertEqual(unit_of(ucum_of(unit)), unit)

    def test_codes_of_others_have_their_check_digit(self):
        for code in ("29463-7", "8302-2", "85354-9", "13457-7", "98979-8", "14635-7", "1989-3"):
            self.assertTrue(_check_digit(code), code)


def _check_digit(code: str) -> bool:
    """Whether a LOINC code ends in its check digit, by Mod 10 (LOINC Users' Guide)."""
    body, check = code.split("-")
    digits = [int(one) for one in reversed(body)]
    doubled = [sum(divmod(one * 2, 10)) if at % 2 == 0 else one for at, one in enumerate(digits)]
    return (10 - sum(doubled) % 10) % 10 == int(check)


class ReadBack(unittest.TestCase):
    def test_a_client_with_one_of_everything(self):
        found = read_bundle(written(usual()))
        self.assertEqual(found.chart, usual())
        self.assertEqual((found.told, found.asked), ((), ()))

    @thorough
    @settings(max_examples=150, suppress_health_check=list(HealthCheck), deadline=None)
    @given(charts())
    def test_nothing_of_any_client_is_lost(self, chart):
        found = read_bundle(written(chart))
        # orders come together by who gave them
        by_hand = sorted(chart.limits, key=repr)
        self.assertEqual(sorted(found.chart.limits, key=repr), by_hand)
        self.assertEqual(replace(found.chart, limits=()), replace(chart, limits=()))
        self.assertEqual((found.told, found.asked), ((), ()))

    def test_the_same_client_is_the_same_bundle(self):
        self.assertEqual(written(usual()), written(usual()))
        other = replace(usual(), identifier="8")
        self.assertNotEqual(written(usual()), written(other))
        with self.assertRaises(ValueError):
            to_bundle(usual(), datetime(2026, 12, 1))


def observation(**more: object) -> dict:
    return {
        "resourceType": "Observation",
        "status": "final",
        "code": {"coding": [{"system": "http://loinc.org", "code": "2823-3"}], "text": "Potassium"},
        "effectiveDateTime": "2026-11-08T07:10:00-05:00",
        "valueQuantity": {"value": 4.9, "unit": "mmol/L"},
    } | more


def bundle(*rows: dict) -> str:
    entries = [{"resource": one} for one in rows]
    return json.dumps({"resourceType": "Bundle", "type": "collection", "entry": entries})


# What may stand in a resource, whatever it is: names that are read, and anything at all below them.
KINDS = ("Patient", "Observation", "AllergyIntolerance", "NutritionOrder", "Goal")
ABOVE = st.sampled_from(
    "code oralDiet target name component valueQuantity status effectiveDateTime".split()
)
BELOW = st.sampled_from(
    "code coding valueQuantity value unit component status extension url "
    "oralDiet nutrient modifier supplement schedule repeat target name".split()
)
WITHIN = st.recursive(
    st.one_of(st.none(), st.booleans(), st.integers(), st.floats(), st.text(max_size=5)),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(BELOW, inner, max_size=4),
    max_leaves=12,
)


class FromOthers(unittest.TestCase):
    def values(self, *rows: dict):
        found = read_bundle(bundle(*rows))
        return [one.measured for one in found.chart.values], found

    def test_a_laboratorys_report(self):
        rows = [
            observation(),
            observation(
                code={"coding": [{"system": "http://loinc.org", "code": "14682-9"}]},
                valueQuantity={"value": 137, "code": "umol/L", "unit": "umol/L"},
                referenceRange=[{"low": {"value": 49}, "high": {"value": 90}}],
                performer=[{"display": "Harbor laboratory"}],
            ),
        ]
        (creatinine, potassium), found = self.values(*rows)
        self.assertEqual((potassium.key, potassium.value), ("potassium", 4.9))
        self.assertEqual(potassium.unit, "mmol/L")
        self.assertEqual(potassium.on, date(2026, 11, 8))
        self.assertEqual((creatinine.unit, creatinine.low, creatinine.high), ("µmol/L", 49, 90))
        self.assertEqual(found.chart.values[0].laboratory, "Harbor laboratory")

    def test_without_a_unit_or_a_date_it_is_asked_about(self):
        _values, found = self.values(observation(valueQuantity={"value": 5.1}))
        self.assertEqual(found.asked[0].missing, "unit")
        self.assertEqual(found.asked[0].units, ("mmol/L", "mEq/L"))
        undated = observation()
        del undated["effectiveDateTime"]
        _values, found = self.values(undated)
        self.assertEqual((found.asked[0].missing, found.asked[0].unit), ("date", "mmol/L"))
        self.assertEqual(found.chart.values, ())
        # a month is no day
        _values, found = self.values(observation(effectiveDateTime="2026-11"))
        self.assertEqual(found.asked[0].missing, "date")

    def test_a_value_nobody_has_is_asked_about_in_the_unit_it_would_fit(self):
        glucose = {"coding": [{"system": "http://loinc.org", "code": "1558-6"}], "text": "Glucose"}
        _values, found = self.values(
            observation(code=glucose, valueQuantity={"value": 5.4, "unit": "mg/dL"})
        )
        self.assertEqual(found.chart.values, ())
        self.assertEqual(found.asked[0].units, ("mmol/L",))

    def test_what_is_no_number_and_what_is_not_known_is_said(self):
        bound = observation(valueQuantity={"value": 0.5, "comparator": "<", "unit": "mmol/L"})
        zinc = observation(
            code={"coding": [{"system": "http://loinc.org", "code": "5763-8"}], "text": "Zinc"}
        )
        text = observation(valueString="hemolyzed")
        del text["valueQuantity"]
        wrong = observation(status="entered-in-error")
        _values, found = self.values(bound, zinc, text, wrong, {"resourceType": "Medication"})
        self.assertEqual(found.chart.values, ())
        self.assertEqual(len(found.told), 5)
        for words in ("a bound", "Zinc (5763-8)", "no number", "taken back", "Medication"):
            self.assertTrue(any(words in said for said in found.told), words)

    def test_a_pressure_in_two_parts(self):
        part = {"system": "http://loinc.org"}
        both = observation(
            code={"coding": [part | {"code": "85354-9"}]},
            component=[
                {
                    "code": {"coding": [part | {"code": code}]},
                    "valueQuantity": {"value": value, "code": "mm[Hg]"},
                }
                for code, value in (("8480-6", 142), ("8462-4", 78))
            ],
        )
        del both["valueQuantity"]
        values, _found = self.values(both)
        read = [(one.key, one.value) for one in values]
        self.assertEqual(read, [("diastolic", 78), ("systolic", 142)])

    def test_pounds_and_inches(self):
        body = [
            observation(
                code={"coding": [{"system": "http://loinc.org", "code": code}]},
                valueQuantity={"value": value, "code": unit},
            )
            for code, value, unit in (("29463-7", 150, "[lb_av]"), ("8302-2", 65, "[in_i]"))
        ]
        _values, found = self.values(*body)
        self.assertAlmostEqual(found.chart.weights[0].kg, 68.0389, places=4)
        self.assertAlmostEqual(found.chart.height_cm, 165.1)

    def test_people_are_not_mixed(self):
        two = bundle({"resourceType": "Patient"}, {"resourceType": "Patient"})
        others = bundle(
            observation(subject={"reference": "Patient/1"}),
            observation(subject={"reference": "Patient/2"}),
        )
        for text in (two, others):
            with self.assertRaisesRegex(UnreadableBundle, "about 2 people"):
                read_bundle(text)

    def test_an_allergy_that_is_over_and_an_order_that_is_not_in_force(self):
        system = "http://terminology.hl7.org/CodeSystem/allergyintolerance-clinical"
        over = {
            "resourceType": "AllergyIntolerance",
            "code": {"text": "kiwi"},
            "clinicalStatus": {"coding": [{"system": system, "code": "resolved"}]},
        }
        there = {"resourceType": "AllergyIntolerance", "code": {"coding": [{"display": "Peanut"}]}}
        revoked = {"resourceType": "NutritionOrder", "status": "revoked", "intent": "order"}
        found = read_bundle(bundle(over, there, revoked))
        self.assertEqual(found.chart.allergies, ("Peanut",))
        self.assertEqual(len(found.told), 2)

    def test_what_is_no_bundle(self):
        for text in ("", "{}", "[1]", "{", '{"resourceType": 3}', "x" * 5_000_001, "[" * 100_000):
            with self.subTest(text=text[:20]), self.assertRaises(UnreadableBundle):
                read_bundle(text)
        most = bundle(*[observation()] * 5_000)
        self.assertEqual(len(read_bundle(most).chart.values), 5_000)
        with self.assertRaises(UnreadableBundle):
            read_bundle(bundle(*[observation()] * 5_001))

    @thorough
    @settings(max_examples=200, suppress_health_check=list(HealthCheck), deadline=None)
    @given(st.tuples(*[st.dictionaries(ABOVE, WITHIN)] * len(KINDS)))
    def test_whatever_is_in_a_file_nothing_breaks(self, resources):
        rows = zip(resources, KINDS, strict=True)
        read_bundle(bundle(*[row | {"resourceType": kind} for row, kind in rows]))
